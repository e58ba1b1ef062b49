CREATE TABLE `handled` (
	`handler_id` text NOT NULL,
	`phase` text NOT NULL,
	`priority` text NOT NULL,
	`due` integer NOT NULL,
	`n` integer NOT NULL,
	PRIMARY KEY(`handler_id`, `phase`, `priority`, `due`)
);
--> statement-breakpoint
INSERT INTO `handled`
SELECT `handler_id`, `phase`, coalesce(`priority`, 'normal'), coalesce(`due`, 8640000000000000), count(*)
FROM `requests` WHERE `trial` = 0 AND `handler_id` IS NOT NULL AND `phase` <> 'finished' GROUP BY 1, 2, 3, 4;--> statement-breakpoint
CREATE TRIGGER `handled_come` AFTER INSERT ON `requests` WHEN new.`trial` = 0 AND new.`handler_id` IS NOT NULL AND new.`phase` <> 'finished' BEGIN
  INSERT INTO `handled` VALUES (new.`handler_id`, new.`phase`, coalesce(new.`priority`, 'normal'), coalesce(new.`due`, 8640000000000000), 1) ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `handled_go` AFTER DELETE ON `requests` WHEN old.`trial` = 0 AND old.`handler_id` IS NOT NULL AND old.`phase` <> 'finished' BEGIN
  UPDATE `handled` SET `n` = `n` - 1 WHERE `handler_id` = old.`handler_id` AND `phase` = old.`phase` AND `priority` = coalesce(old.`priority`, 'normal') AND `due` = coalesce(old.`due`, 8640000000000000);
  DELETE FROM `handled` WHERE `handler_id` = old.`handler_id` AND `phase` = old.`phase` AND `priority` = coalesce(old.`priority`, 'normal') AND `due` = coalesce(old.`due`, 8640000000000000) AND `n` = 0;
END;--> statement-breakpoint
CREATE TRIGGER `handled_turn` AFTER UPDATE OF `handler_id`, `phase`, `priority`, `due`, `trial` ON `requests`
WHEN old.`handler_id` IS NOT new.`handler_id` OR old.`phase` IS NOT new.`phase` OR old.`priority` IS NOT new.`priority` OR old.`due` IS NOT new.`due` OR old.`trial` IS NOT new.`trial` BEGIN
  UPDATE `handled` SET `n` = `n` - 1 WHERE old.`trial` = 0 AND old.`handler_id` IS NOT NULL AND old.`phase` <> 'finished' AND `handler_id` = old.`handler_id` AND `phase` = old.`phase` AND `priority` = coalesce(old.`priority`, 'normal') AND `due` = coalesce(old.`due`, 8640000000000000);
  DELETE FROM `handled` WHERE old.`trial` = 0 AND old.`handler_id` IS NOT NULL AND old.`phase` <> 'finished' AND `handler_id` = old.`handler_id` AND `phase` = old.`phase` AND `priority` = coalesce(old.`priority`, 'normal') AND `due` = coalesce(old.`due`, 8640000000000000) AND `n` = 0;
  INSERT INTO `handled` SELECT new.`handler_id`, new.`phase`, coalesce(new.`priority`, 'normal'), coalesce(new.`due`, 8640000000000000), 1 WHERE new.`trial` = 0 AND new.`handler_id` IS NOT NULL AND new.`phase` <> 'finished' ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;
