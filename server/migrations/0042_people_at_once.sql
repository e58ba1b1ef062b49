ALTER TABLE `groups` ADD `members` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `sought` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `people_sought` ON `people` (`sought`,`id`);--> statement-breakpoint
CREATE INDEX `people_by_kind` ON `people` (`kind`,`active`,`merged_into`,`removed_at`);--> statement-breakpoint
UPDATE `groups` SET `members` = (SELECT count(*) FROM `memberships` WHERE `group_key` = `groups`.`key`);
