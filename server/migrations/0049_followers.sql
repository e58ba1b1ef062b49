CREATE TABLE `followers` (
	`request_id` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`request_id`, `person_id`),
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `followers_person` ON `followers` (`person_id`);