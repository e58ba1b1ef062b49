CREATE TABLE `door_lines` (
	`id` text PRIMARY KEY NOT NULL,
	`door_id` text NOT NULL,
	`person_id` text,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`language` text,
	`since` integer NOT NULL,
	`held_until` integer,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `door_lines_who` ON `door_lines` (`door_id`,`email`);--> statement-breakpoint
CREATE INDEX `door_lines_since` ON `door_lines` (`door_id`,`since`);--> statement-breakpoint
CREATE INDEX `door_lines_person` ON `door_lines` (`person_id`);