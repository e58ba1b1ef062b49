CREATE TABLE `kept_answers` (
	`id` text PRIMARY KEY NOT NULL,
	`door_id` text NOT NULL,
	`person_id` text,
	`email` text,
	`name` text DEFAULT '' NOT NULL,
	`answers` text NOT NULL,
	`typed_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `kept_person` ON `kept_answers` (`door_id`,`person_id`);--> statement-breakpoint
CREATE INDEX `kept_expires` ON `kept_answers` (`expires_at`);