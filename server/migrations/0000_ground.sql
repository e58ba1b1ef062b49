CREATE TABLE `approvals` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`label` text NOT NULL,
	`group` text NOT NULL,
	`state` text NOT NULL,
	`decided_by` text,
	`decided_at` integer,
	`comment` text,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `approvals_request` ON `approvals` (`request_id`);--> statement-breakpoint
CREATE INDEX `approvals_waiting` ON `approvals` (`state`,`group`);--> statement-breakpoint
CREATE TABLE `calendars` (
	`key` text PRIMARY KEY NOT NULL,
	`calendar` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `timers` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`kind` text NOT NULL,
	`at` integer NOT NULL,
	`state` text NOT NULL,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `timers_waiting` ON `timers` (`state`,`at`);--> statement-breakpoint
CREATE INDEX `timers_request` ON `timers` (`request_id`);--> statement-breakpoint
CREATE TABLE `doors` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`slug` text NOT NULL,
	`kind` text NOT NULL,
	`open` integer NOT NULL,
	`opens_at` integer,
	`closes_at` integer,
	`closed_message` text DEFAULT '' NOT NULL,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `doors_slug_unique` ON `doors` (`slug`);--> statement-breakpoint
CREATE TABLE `waiting_submissions` (
	`id` text PRIMARY KEY NOT NULL,
	`door_id` text NOT NULL,
	`release_id` text NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`answers` text NOT NULL,
	`created_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`release_id`) REFERENCES `releases`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `waiting_expires` ON `waiting_submissions` (`expires_at`);--> statement-breakpoint
CREATE TABLE `forms` (
	`id` text PRIMARY KEY NOT NULL,
	`key` text NOT NULL,
	`register_id` text NOT NULL,
	`draft` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`release` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `forms_key_unique` ON `forms` (`key`);--> statement-breakpoint
CREATE TABLE `releases` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`number` integer NOT NULL,
	`design` text NOT NULL,
	`note` text NOT NULL,
	`released_by` text NOT NULL,
	`released_at` integer NOT NULL,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `releases_number` ON `releases` (`form_id`,`number`);--> statement-breakpoint
CREATE TABLE `letters` (
	`id` text PRIMARY KEY NOT NULL,
	`message_id` text NOT NULL,
	`received_at` integer NOT NULL,
	`from` text NOT NULL,
	`to` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`html` text NOT NULL,
	`headers` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `letters_messageId_unique` ON `letters` (`message_id`);--> statement-breakpoint
CREATE INDEX `letters_received` ON `letters` (`received_at`);--> statement-breakpoint
CREATE TABLE `outbox` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text,
	`kind` text NOT NULL,
	`to_name` text NOT NULL,
	`to_address` text NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	`html` text NOT NULL,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text,
	`created_at` integer NOT NULL,
	`sent_at` integer
);
--> statement-breakpoint
CREATE INDEX `outbox_waiting` ON `outbox` (`state`,`next_attempt_at`);--> statement-breakpoint
CREATE TABLE `groups` (
	`key` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`is_team` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE `memberships` (
	`group_key` text NOT NULL,
	`person_id` text NOT NULL,
	PRIMARY KEY(`group_key`, `person_id`),
	FOREIGN KEY (`group_key`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`role` text DEFAULT 'member' NOT NULL,
	`active` integer DEFAULT true NOT NULL,
	`does` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_email_unique` ON `people` (`email`);--> statement-breakpoint
CREATE TABLE `history` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`at` integer NOT NULL,
	`actor_id` text,
	`kind` text NOT NULL,
	`words` text NOT NULL,
	`changes` text NOT NULL,
	`comment` text,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `history_request` ON `history` (`request_id`,`at`);--> statement-breakpoint
CREATE TABLE `registers` (
	`id` text PRIMARY KEY NOT NULL,
	`key` text NOT NULL,
	`name` text NOT NULL,
	`prefix` text NOT NULL,
	`next_number` integer DEFAULT 1 NOT NULL,
	`fields` text NOT NULL,
	`stages` text NOT NULL,
	`access` text NOT NULL,
	`desk_groups` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `registers_key_unique` ON `registers` (`key`);--> statement-breakpoint
CREATE TABLE `requests` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`register_id` text NOT NULL,
	`form_id` text NOT NULL,
	`release_id` text NOT NULL,
	`door_id` text NOT NULL,
	`requester_id` text NOT NULL,
	`stage` text NOT NULL,
	`phase` text NOT NULL,
	`team` text NOT NULL,
	`handler_id` text,
	`approver_group` text,
	`priority` text NOT NULL,
	`values` text NOT NULL,
	`routed` text NOT NULL,
	`deadline` text NOT NULL,
	`due` integer NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`finished_at` integer,
	FOREIGN KEY (`register_id`) REFERENCES `registers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`release_id`) REFERENCES `releases`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`requester_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`team`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`handler_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `requests_number_unique` ON `requests` (`number`);--> statement-breakpoint
CREATE INDEX `requests_unfinished_due` ON `requests` (`due`,`id`) WHERE phase <> 'finished';--> statement-breakpoint
CREATE INDEX `requests_phase_due` ON `requests` (`phase`,`due`,`id`);--> statement-breakpoint
CREATE INDEX `requests_due` ON `requests` (`due`,`id`);--> statement-breakpoint
CREATE INDEX `requests_team` ON `requests` (`team`,`phase`,`due`);--> statement-breakpoint
CREATE INDEX `requests_handler` ON `requests` (`handler_id`,`phase`,`due`);--> statement-breakpoint
CREATE INDEX `requests_requester` ON `requests` (`requester_id`,`created_at`);--> statement-breakpoint
CREATE TABLE `account` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`provider_id` text NOT NULL,
	`user_id` text NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` integer,
	`refresh_token_expires_at` integer,
	`scope` text,
	`password` text,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `idempotency` (
	`key` text NOT NULL,
	`scope` text NOT NULL,
	`fingerprint` text NOT NULL,
	`answer` text NOT NULL,
	`created_at` integer NOT NULL,
	PRIMARY KEY(`scope`, `key`)
);
--> statement-breakpoint
CREATE TABLE `links` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`purpose` text NOT NULL,
	`person_id` text NOT NULL,
	`target_id` text NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_tokenHash_unique` ON `links` (`token_hash`);--> statement-breakpoint
CREATE INDEX `links_target` ON `links` (`target_id`);--> statement-breakpoint
CREATE TABLE `session` (
	`id` text PRIMARY KEY NOT NULL,
	`expires_at` integer NOT NULL,
	`token` text NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`ip_address` text,
	`user_agent` text,
	`user_id` text NOT NULL,
	FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `session_token_unique` ON `session` (`token`);--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `user` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`email_verified` integer DEFAULT false NOT NULL,
	`image` text,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `user_email_unique` ON `user` (`email`);--> statement-breakpoint
CREATE TABLE `verification` (
	`id` text PRIMARY KEY NOT NULL,
	`identifier` text NOT NULL,
	`value` text NOT NULL,
	`expires_at` integer NOT NULL,
	`created_at` integer,
	`updated_at` integer
);
