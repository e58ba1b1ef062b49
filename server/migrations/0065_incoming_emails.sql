CREATE TABLE `email_files` (
	`id` text PRIMARY KEY NOT NULL,
	`email_id` text NOT NULL,
	`name` text NOT NULL,
	`media` text NOT NULL,
	`bytes` integer NOT NULL,
	`sha256` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `email_files_email` ON `email_files` (`email_id`);--> statement-breakpoint
CREATE INDEX `email_files_hash` ON `email_files` (`sha256`);--> statement-breakpoint
CREATE TABLE `incoming_emails` (
	`id` text PRIMARY KEY NOT NULL,
	`message_id` text NOT NULL,
	`received_at` integer NOT NULL,
	`from_name` text NOT NULL,
	`from_address` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`whole` text NOT NULL,
	`left_out` text NOT NULL,
	`state` text NOT NULL,
	`why` text,
	`request_id` text,
	`settled_by` text,
	`settled_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `incoming_once` ON `incoming_emails` (`from_address`,`message_id`);--> statement-breakpoint
CREATE INDEX `incoming_held` ON `incoming_emails` (`received_at`) WHERE state = 'held';--> statement-breakpoint
CREATE INDEX `incoming_state` ON `incoming_emails` (`state`,`received_at`);--> statement-breakpoint
CREATE INDEX `incoming_request` ON `incoming_emails` (`request_id`) WHERE request_id is not null;