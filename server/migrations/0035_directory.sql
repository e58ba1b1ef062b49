CREATE TABLE `directory_groups` (
	`group_key` text PRIMARY KEY NOT NULL,
	`external_id` text,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`group_key`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `directory_groups_external` ON `directory_groups` (`external_id`);--> statement-breakpoint
CREATE TABLE `directory_tokens` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`hash` text NOT NULL,
	`made_at` integer NOT NULL,
	`made_by` text NOT NULL,
	`used_at` integer,
	`expires_at` integer,
	`ended_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `directory_tokens_hash_unique` ON `directory_tokens` (`hash`);--> statement-breakpoint
CREATE TABLE `directory_users` (
	`person_id` text PRIMARY KEY NOT NULL,
	`user_name` text NOT NULL,
	`external_id` text,
	`resource` text NOT NULL,
	`unread` text DEFAULT '{}' NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `directory_users_userName_unique` ON `directory_users` (`user_name`);--> statement-breakpoint
CREATE INDEX `directory_users_external` ON `directory_users` (`external_id`);