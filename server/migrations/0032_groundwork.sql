CREATE TABLE `addresses` (
	`address` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `addresses_person` ON `addresses` (`person_id`);--> statement-breakpoint
CREATE TABLE `grants` (
	`subject` text NOT NULL,
	`right` text NOT NULL,
	PRIMARY KEY(`subject`, `right`)
);
--> statement-breakpoint
CREATE INDEX `grants_right` ON `grants` (`right`);--> statement-breakpoint
CREATE TABLE `ground_history` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	`about` text NOT NULL,
	`key` text NOT NULL,
	`change` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `ground_history_about` ON `ground_history` (`about`,`key`,`at`);--> statement-breakpoint
CREATE INDEX `ground_history_at` ON `ground_history` (`at`);--> statement-breakpoint
CREATE TABLE `group_entries` (
	`id` text PRIMARY KEY NOT NULL,
	`group_key` text NOT NULL,
	`person_id` text,
	`member_group` text,
	`from_day` text,
	`until_day` text,
	`source` text DEFAULT 'local' NOT NULL,
	FOREIGN KEY (`group_key`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`member_group`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `group_entries_group` ON `group_entries` (`group_key`);--> statement-breakpoint
CREATE INDEX `group_entries_person` ON `group_entries` (`person_id`);--> statement-breakpoint
CREATE INDEX `group_entries_member` ON `group_entries` (`member_group`);--> statement-breakpoint
ALTER TABLE `groups` ADD `about` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `groups` ADD `source` text DEFAULT 'local' NOT NULL;--> statement-breakpoint
ALTER TABLE `groups` ADD `retired` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `groups` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `source` text DEFAULT 'local' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `version` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `invited_at` integer;--> statement-breakpoint
ALTER TABLE `people` ADD `left_at` integer;--> statement-breakpoint
CREATE INDEX `people_by_name` ON `people` (`name`,`id`);--> statement-breakpoint
-- Everybody is found by the address they had, and is in the groups they were in, with no beginning and no end.
INSERT INTO `addresses` (`address`, `person_id`) SELECT `email`, `id` FROM `people`;--> statement-breakpoint
INSERT INTO `group_entries` (`id`, `group_key`, `person_id`) SELECT printf('before-%d', rowid), `group_key`, `person_id` FROM `memberships`;