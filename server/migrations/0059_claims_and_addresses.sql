CREATE TABLE `door_addresses` (
	`slug` text PRIMARY KEY NOT NULL,
	`door_id` text NOT NULL,
	`leads_on` integer NOT NULL,
	`ended_at` integer NOT NULL,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `door_addresses_door` ON `door_addresses` (`door_id`);--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `person_id` text;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `request_id` text;--> statement-breakpoint
ALTER TABLE `requests` ADD `claim` text;