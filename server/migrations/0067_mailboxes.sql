ALTER TABLE `notices` ADD `group_key` text;--> statement-breakpoint
ALTER TABLE `groups` ADD `mailbox` text DEFAULT '' NOT NULL;