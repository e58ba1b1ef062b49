CREATE TABLE `uploads` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`field` text NOT NULL,
	`name` text NOT NULL,
	`media` text NOT NULL,
	`bytes` integer NOT NULL,
	`sha256` text NOT NULL,
	`created_at` integer NOT NULL,
	`request_id` text,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `uploads_request` ON `uploads` (`request_id`);--> statement-breakpoint
CREATE INDEX `uploads_hash` ON `uploads` (`sha256`);--> statement-breakpoint
CREATE INDEX `uploads_unclaimed` ON `uploads` (`request_id`,`created_at`);