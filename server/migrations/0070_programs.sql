CREATE TABLE `program_keys` (
	`id` text PRIMARY KEY NOT NULL,
	`program` text NOT NULL,
	`name` text NOT NULL,
	`hash` text NOT NULL,
	`made_at` integer NOT NULL,
	`made_by` text NOT NULL,
	`used_at` integer,
	`expires_at` integer,
	`ended_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `program_keys_hash_unique` ON `program_keys` (`hash`);--> statement-breakpoint
CREATE INDEX `program_keys_program` ON `program_keys` (`program`,`made_at`);--> statement-breakpoint
CREATE TABLE `program_secrets` (
	`program` text PRIMARY KEY NOT NULL,
	`no` integer NOT NULL,
	`renewed_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `told_programs` (
	`id` text PRIMARY KEY NOT NULL,
	`received_at` integer NOT NULL,
	`path` text NOT NULL,
	`headers` text NOT NULL,
	`body` text NOT NULL,
	`status` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `told_programs_received` ON `told_programs` (`received_at`);--> statement-breakpoint
DROP INDEX `notices_left`;--> statement-breakpoint
ALTER TABLE `notices` ADD `program` text;--> statement-breakpoint
CREATE INDEX `notices_left` ON `notices` (`program`,`state`,`next_attempt_at`) WHERE state in ('waiting', 'sending', 'failed');