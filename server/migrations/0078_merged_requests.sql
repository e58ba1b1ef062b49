CREATE TABLE `merged_requests` (
	`request_id` text PRIMARY KEY NOT NULL,
	`into_id` text NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	`stage` text NOT NULL,
	`taken` text NOT NULL,
	`moved` text NOT NULL,
	`round` text,
	`deciders` text,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`into_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `merged_requests_into` ON `merged_requests` (`into_id`);