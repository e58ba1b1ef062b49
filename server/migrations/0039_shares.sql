CREATE TABLE `deleted_requests` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`register_id` text NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	`reason` text NOT NULL,
	FOREIGN KEY (`register_id`) REFERENCES `registers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `deleted_requests_register` ON `deleted_requests` (`register_id`,`at`);--> statement-breakpoint
CREATE TABLE `shares` (
	`request_id` text NOT NULL,
	`holder` text NOT NULL,
	`until_day` text,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`request_id`, `holder`),
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `shares_holder` ON `shares` (`holder`);