CREATE TABLE `readings` (
	`reader` text NOT NULL,
	`request_id` text NOT NULL,
	PRIMARY KEY(`reader`, `request_id`),
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `readings_request` ON `readings` (`request_id`);