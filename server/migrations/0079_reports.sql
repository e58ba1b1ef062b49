CREATE TABLE `report_copies` (
	`id` text PRIMARY KEY NOT NULL,
	`report_id` text NOT NULL,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`frozen_at` integer NOT NULL,
	`by_id` text NOT NULL,
	`report` text NOT NULL,
	`kept` blob NOT NULL,
	`sent` integer NOT NULL,
	`removed_at` integer,
	FOREIGN KEY (`report_id`) REFERENCES `reports`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`by_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `report_copies_report` ON `report_copies` (`report_id`,`frozen_at`);--> statement-breakpoint
CREATE TABLE `report_copy_rows` (
	`copy_id` text NOT NULL,
	`part` integer NOT NULL,
	`place` integer NOT NULL,
	`request_id` text NOT NULL,
	`cells` text NOT NULL,
	PRIMARY KEY(`copy_id`, `part`, `place`),
	FOREIGN KEY (`copy_id`) REFERENCES `report_copies`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `report_copy_rows_request` ON `report_copy_rows` (`request_id`);--> statement-breakpoint
CREATE TABLE `reports` (
	`id` text PRIMARY KEY NOT NULL,
	`owner_id` text NOT NULL,
	`created_at` integer NOT NULL,
	`removed_at` integer,
	`sent_until` integer NOT NULL,
	FOREIGN KEY (`owner_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `reports_owner` ON `reports` (`owner_id`);