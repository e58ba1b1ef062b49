CREATE TABLE `plan_history` (
	`id` text PRIMARY KEY NOT NULL,
	`register_id` text NOT NULL,
	`at` integer NOT NULL,
	`actor_id` text NOT NULL,
	`event` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `plan_history_register` ON `plan_history` (`register_id`,`at`);--> statement-breakpoint
ALTER TABLE `registers` ADD `ran` text DEFAULT '[]' NOT NULL;