CREATE TABLE `deadlines` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`key` text NOT NULL,
	`start` integer NOT NULL,
	`due` integer NOT NULL,
	`allowance` integer NOT NULL,
	`working_days` integer NOT NULL,
	`pauses` text NOT NULL,
	`state` text NOT NULL,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `deadlines_request` ON `deadlines` (`request_id`,`key`);--> statement-breakpoint
ALTER TABLE `timers` ADD `deadline_id` text REFERENCES deadlines(id);
