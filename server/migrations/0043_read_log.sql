CREATE TABLE `read_log` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	`register_id` text NOT NULL,
	`about` text NOT NULL,
	`numbers` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `read_log_at` ON `read_log` (`at`);