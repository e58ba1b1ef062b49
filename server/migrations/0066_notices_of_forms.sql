CREATE TABLE `notice_days` (
	`form_id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`turning` integer,
	`done_at` integer,
	`done_id` text
);
--> statement-breakpoint
ALTER TABLE `notices` ADD `rule` text;