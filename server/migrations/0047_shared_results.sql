CREATE TABLE `shared_results` (
	`id` text PRIMARY KEY NOT NULL,
	`register_id` text NOT NULL,
	`name` text NOT NULL,
	`facts` text NOT NULL,
	`fields` text NOT NULL,
	`when` text NOT NULL,
	`audience` text,
	`until` text NOT NULL,
	`takes_out` integer NOT NULL,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	`ended_at` integer,
	`link_id` text
);
--> statement-breakpoint
CREATE INDEX `shared_results_by` ON `shared_results` (`by`);