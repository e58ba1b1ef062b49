CREATE TABLE `spent_work` (
	`signature` text PRIMARY KEY NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `spent_work_expires` ON `spent_work` (`expires_at`);--> statement-breakpoint
ALTER TABLE `doors` ADD `removed_at` integer;--> statement-breakpoint
ALTER TABLE `kept_answers` ADD `began_at` integer;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `consent` integer;--> statement-breakpoint
ALTER TABLE `requests` ADD `consent` integer;