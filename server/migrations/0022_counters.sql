DROP TRIGGER `requests_come`;--> statement-breakpoint
DROP TRIGGER `requests_go`;--> statement-breakpoint
DROP TRIGGER `requests_turn`;--> statement-breakpoint
DROP TABLE `tallies`;--> statement-breakpoint
CREATE TABLE `tallies` (
	`register_id` text NOT NULL,
	`form_id` text NOT NULL,
	`phase` text NOT NULL,
	`stage` text NOT NULL,
	`team` text NOT NULL,
	`handler_id` text NOT NULL,
	`deciders` text NOT NULL,
	`n` integer NOT NULL,
	PRIMARY KEY(`register_id`, `form_id`, `phase`, `stage`, `team`, `handler_id`, `deciders`)
);
--> statement-breakpoint
CREATE TABLE `dues` (
	`register_id` text NOT NULL,
	`team` text NOT NULL,
	`handler_id` text NOT NULL,
	`deciders` text NOT NULL,
	`hour` integer NOT NULL,
	`n` integer NOT NULL,
	PRIMARY KEY(`hour`, `register_id`, `team`, `handler_id`, `deciders`)
);
--> statement-breakpoint
INSERT INTO `tallies`
SELECT `register_id`, `form_id`, `phase`, `stage`, coalesce(`team`, ''), coalesce(`handler_id`, ''), coalesce(`deciders`, ''), count(*)
FROM `requests` WHERE `trial` = 0 GROUP BY 1, 2, 3, 4, 5, 6, 7;--> statement-breakpoint
INSERT INTO `dues`
SELECT `register_id`, coalesce(`team`, ''), coalesce(`handler_id`, ''), coalesce(`deciders`, ''), `due` / 3600000, count(*)
FROM `requests` WHERE `trial` = 0 AND `due` IS NOT NULL AND `phase` IN ('arrived', 'working') GROUP BY 1, 2, 3, 4, 5;--> statement-breakpoint
CREATE TRIGGER `tallies_come` AFTER INSERT ON `requests` WHEN new.`trial` = 0 BEGIN
  INSERT INTO `tallies` VALUES (new.`register_id`, new.`form_id`, new.`phase`, new.`stage`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), 1) ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `tallies_go` AFTER DELETE ON `requests` WHEN old.`trial` = 0 BEGIN
  UPDATE `tallies` SET `n` = `n` - 1 WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `stage` = old.`stage` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '');
  DELETE FROM `tallies` WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `stage` = old.`stage` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `n` = 0;
END;--> statement-breakpoint
CREATE TRIGGER `tallies_turn` AFTER UPDATE OF `register_id`, `form_id`, `phase`, `stage`, `team`, `handler_id`, `deciders`, `trial` ON `requests`
WHEN old.`register_id` IS NOT new.`register_id` OR old.`form_id` IS NOT new.`form_id` OR old.`phase` IS NOT new.`phase` OR old.`stage` IS NOT new.`stage` OR old.`team` IS NOT new.`team` OR old.`handler_id` IS NOT new.`handler_id` OR old.`deciders` IS NOT new.`deciders` OR old.`trial` IS NOT new.`trial` BEGIN
  UPDATE `tallies` SET `n` = `n` - 1 WHERE old.`trial` = 0 AND `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `stage` = old.`stage` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '');
  DELETE FROM `tallies` WHERE old.`trial` = 0 AND `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `stage` = old.`stage` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `n` = 0;
  INSERT INTO `tallies` SELECT new.`register_id`, new.`form_id`, new.`phase`, new.`stage`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), 1 WHERE new.`trial` = 0 ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `dues_come` AFTER INSERT ON `requests` WHEN new.`trial` = 0 AND new.`due` IS NOT NULL AND new.`phase` IN ('arrived', 'working') BEGIN
  INSERT INTO `dues` VALUES (new.`register_id`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), new.`due` / 3600000, 1) ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `dues_go` AFTER DELETE ON `requests` WHEN old.`trial` = 0 AND old.`due` IS NOT NULL AND old.`phase` IN ('arrived', 'working') BEGIN
  UPDATE `dues` SET `n` = `n` - 1 WHERE `register_id` = old.`register_id` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `hour` = old.`due` / 3600000;
  DELETE FROM `dues` WHERE `register_id` = old.`register_id` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `hour` = old.`due` / 3600000 AND `n` = 0;
END;--> statement-breakpoint
CREATE TRIGGER `dues_turn` AFTER UPDATE OF `register_id`, `team`, `handler_id`, `deciders`, `trial`, `due`, `phase` ON `requests`
WHEN old.`register_id` IS NOT new.`register_id` OR old.`team` IS NOT new.`team` OR old.`handler_id` IS NOT new.`handler_id` OR old.`deciders` IS NOT new.`deciders` OR old.`trial` IS NOT new.`trial` OR old.`due` IS NOT new.`due` OR old.`phase` <> new.`phase` BEGIN
  UPDATE `dues` SET `n` = `n` - 1 WHERE old.`trial` = 0 AND old.`due` IS NOT NULL AND old.`phase` IN ('arrived', 'working') AND `register_id` = old.`register_id` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `hour` = old.`due` / 3600000;
  DELETE FROM `dues` WHERE old.`trial` = 0 AND old.`due` IS NOT NULL AND old.`phase` IN ('arrived', 'working') AND `register_id` = old.`register_id` AND `team` = coalesce(old.`team`, '') AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `hour` = old.`due` / 3600000 AND `n` = 0;
  INSERT INTO `dues` SELECT new.`register_id`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), new.`due` / 3600000, 1 WHERE new.`trial` = 0 AND new.`due` IS NOT NULL AND new.`phase` IN ('arrived', 'working') ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;
