CREATE TABLE `tallies` (
	`register_id` text NOT NULL,
	`form_id` text NOT NULL,
	`phase` text NOT NULL,
	`team` text NOT NULL,
	`handler_id` text NOT NULL,
	`approver_group` text NOT NULL,
	`n` integer NOT NULL,
	PRIMARY KEY(`register_id`, `form_id`, `phase`, `team`, `handler_id`, `approver_group`)
);
--> statement-breakpoint
DROP INDEX `requests_register`;--> statement-breakpoint
CREATE INDEX `requests_register` ON `requests` (`register_id`,`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `session_expires` ON `session` (`expires_at`);--> statement-breakpoint
INSERT INTO `tallies`
SELECT `register_id`, `form_id`, `phase`, `team`, coalesce(`handler_id`, ''), coalesce(`approver_group`, ''), count(*)
FROM `requests` WHERE `trial` = 0 GROUP BY 1, 2, 3, 4, 5, 6;--> statement-breakpoint
CREATE TRIGGER `requests_come` AFTER INSERT ON `requests` WHEN new.`trial` = 0 BEGIN
  INSERT INTO `tallies` VALUES (new.`register_id`, new.`form_id`, new.`phase`, new.`team`, coalesce(new.`handler_id`, ''), coalesce(new.`approver_group`, ''), 1)
  ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `requests_go` AFTER DELETE ON `requests` WHEN old.`trial` = 0 BEGIN
  UPDATE `tallies` SET `n` = `n` - 1
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = old.`team`
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `approver_group` = coalesce(old.`approver_group`, '');
  DELETE FROM `tallies`
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = old.`team`
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `approver_group` = coalesce(old.`approver_group`, '') AND `n` = 0;
END;--> statement-breakpoint
CREATE TRIGGER `requests_turn` AFTER UPDATE OF `register_id`, `form_id`, `phase`, `team`, `handler_id`, `approver_group`, `trial` ON `requests`
WHEN old.`trial` <> new.`trial` OR old.`register_id` <> new.`register_id` OR old.`form_id` <> new.`form_id` OR old.`phase` <> new.`phase`
  OR old.`team` <> new.`team` OR old.`handler_id` IS NOT new.`handler_id` OR old.`approver_group` IS NOT new.`approver_group` BEGIN
  UPDATE `tallies` SET `n` = `n` - 1
  WHERE old.`trial` = 0 AND `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = old.`team`
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `approver_group` = coalesce(old.`approver_group`, '');
  DELETE FROM `tallies`
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = old.`team`
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `approver_group` = coalesce(old.`approver_group`, '') AND `n` = 0;
  INSERT INTO `tallies` SELECT new.`register_id`, new.`form_id`, new.`phase`, new.`team`, coalesce(new.`handler_id`, ''), coalesce(new.`approver_group`, ''), 1
  WHERE new.`trial` = 0 ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;
