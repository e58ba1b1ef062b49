CREATE TABLE `register_grants` (
	`register_id` text NOT NULL,
	`subject` text NOT NULL,
	`right` text NOT NULL,
	`given` integer NOT NULL,
	PRIMARY KEY(`register_id`, `subject`, `right`)
);
--> statement-breakpoint
CREATE INDEX `register_grants_subject` ON `register_grants` (`subject`);--> statement-breakpoint
CREATE TABLE `registers_apart` (
	`register_id` text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
-- Whoever read requests saw their history.
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'history:team' FROM `grants` WHERE `right` = 'read:team';
--> statement-breakpoint
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'history:all' FROM `grants` WHERE `right` = 'read:all';
--> statement-breakpoint
-- Whoever has a package has all of it, with what it holds from now on.
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'decide:all' FROM (select `subject` from `grants` where `right` in ('read:all','change:all','move:all','assign:all','export:all','configure','groundwork','people') group by `subject` having count(*) = 8);
--> statement-breakpoint
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'share:all' FROM (select `subject` from `grants` where `right` in ('read:all','change:all','move:all','assign:all','export:all','configure','groundwork','people') group by `subject` having count(*) = 8);
--> statement-breakpoint
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'delete:all' FROM `grants` WHERE `right` IN ('rights','audit') AND `subject` IN (select `subject` from `grants` where `right` in ('read:all','change:all','move:all','assign:all','export:all','configure','groundwork','people') group by `subject` having count(*) = 8) GROUP BY `subject` HAVING count(*) = 2;
