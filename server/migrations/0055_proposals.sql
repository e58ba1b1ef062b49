CREATE TABLE `proposals` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`form_id` text NOT NULL,
	`release_id` text NOT NULL,
	`door_id` text NOT NULL,
	`person_id` text NOT NULL,
	`was_sent` integer NOT NULL,
	`answers` text NOT NULL,
	`at` integer NOT NULL,
	`state` text NOT NULL,
	`closed_at` integer,
	`closed_by` text,
	`reason` text,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`release_id`) REFERENCES `design_states`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`closed_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `proposals_request` ON `proposals` (`request_id`,`at`);--> statement-breakpoint
CREATE INDEX `proposals_person` ON `proposals` (`person_id`) WHERE state = 'open';