CREATE TABLE `counters` (
	`register_id` text NOT NULL,
	`field` text NOT NULL,
	`prefix` text NOT NULL,
	`next` integer NOT NULL,
	PRIMARY KEY(`register_id`, `field`, `prefix`),
	FOREIGN KEY (`register_id`) REFERENCES `registers`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `pointers` (
	`request_id` text NOT NULL,
	`field` text NOT NULL,
	`target_id` text NOT NULL,
	PRIMARY KEY(`request_id`, `field`, `target_id`),
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`target_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `pointers_target` ON `pointers` (`target_id`);--> statement-breakpoint
CREATE TABLE `vocabularies` (
	`key` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`terms` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
