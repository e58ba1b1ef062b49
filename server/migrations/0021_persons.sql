CREATE TABLE `__new_requests` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`register_id` text NOT NULL,
	`form_id` text NOT NULL,
	`release_id` text NOT NULL,
	`computed_by` text,
	`door_id` text,
	`requester_id` text,
	`on_behalf_id` text,
	`entered_by_id` text,
	`stage` text NOT NULL,
	`phase` text NOT NULL,
	`team` text,
	`handler_id` text,
	`deciders` text,
	`priority` text,
	`values` text NOT NULL,
	`routed` text,
	`due` integer,
	`version` integer DEFAULT 1 NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`finished_at` integer,
	`trial` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`register_id`) REFERENCES `registers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`release_id`) REFERENCES `design_states`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`computed_by`) REFERENCES `design_states`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`door_id`) REFERENCES `doors`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`requester_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`on_behalf_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`entered_by_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`team`) REFERENCES `groups`(`key`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`handler_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_requests` (`id`, `number`, `register_id`, `form_id`, `release_id`, `computed_by`, `door_id`, `requester_id`, `stage`, `phase`, `team`, `handler_id`, `deciders`, `priority`, `values`, `routed`, `due`, `version`, `created_at`, `updated_at`, `finished_at`, `trial`) SELECT `id`, `number`, `register_id`, `form_id`, `release_id`, `computed_by`, `door_id`, `requester_id`, `stage`, `phase`, `team`, `handler_id`, `deciders`, `priority`, `values`, `routed`, `due`, `version`, `created_at`, `updated_at`, `finished_at`, `trial` FROM `requests`;--> statement-breakpoint
DROP TABLE `requests`;--> statement-breakpoint
ALTER TABLE `__new_requests` RENAME TO `requests`;--> statement-breakpoint
CREATE UNIQUE INDEX `requests_number_unique` ON `requests` (`number`);--> statement-breakpoint
CREATE INDEX `requests_requester` ON `requests` (`requester_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `requests_unfinished_due` ON `requests` (`due`,`id`,`trial`) WHERE phase <> 'finished';--> statement-breakpoint
CREATE INDEX `requests_team` ON `requests` (`team`,`phase`,`due`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_handler` ON `requests` (`handler_id`,`phase`,`due`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_phase_due` ON `requests` (`phase`,`due`,`id`,`trial`,`register_id`);--> statement-breakpoint
CREATE INDEX `requests_due` ON `requests` (`due`,`id`,`trial`,`register_id`);--> statement-breakpoint
CREATE INDEX `requests_created` ON `requests` (`created_at`,`id`,`trial`,`register_id`);--> statement-breakpoint
CREATE INDEX `requests_register` ON `requests` (`register_id`,`created_at`,`id`);--> statement-breakpoint
CREATE TRIGGER `requests_come` AFTER INSERT ON `requests` WHEN new.`trial` = 0 BEGIN
  INSERT INTO `tallies` VALUES (new.`register_id`, new.`form_id`, new.`phase`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), 1)
  ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;--> statement-breakpoint
CREATE TRIGGER `requests_go` AFTER DELETE ON `requests` WHEN old.`trial` = 0 BEGIN
  UPDATE `tallies` SET `n` = `n` - 1
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = coalesce(old.`team`, '')
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '');
  DELETE FROM `tallies`
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = coalesce(old.`team`, '')
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `n` = 0;
END;--> statement-breakpoint
CREATE TRIGGER `requests_turn` AFTER UPDATE OF `register_id`, `form_id`, `phase`, `team`, `handler_id`, `deciders`, `trial` ON `requests`
WHEN old.`trial` <> new.`trial` OR old.`register_id` <> new.`register_id` OR old.`form_id` <> new.`form_id` OR old.`phase` <> new.`phase`
  OR old.`team` IS NOT new.`team` OR old.`handler_id` IS NOT new.`handler_id` OR old.`deciders` IS NOT new.`deciders` BEGIN
  UPDATE `tallies` SET `n` = `n` - 1
  WHERE old.`trial` = 0 AND `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = coalesce(old.`team`, '')
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '');
  DELETE FROM `tallies`
  WHERE `register_id` = old.`register_id` AND `form_id` = old.`form_id` AND `phase` = old.`phase` AND `team` = coalesce(old.`team`, '')
    AND `handler_id` = coalesce(old.`handler_id`, '') AND `deciders` = coalesce(old.`deciders`, '') AND `n` = 0;
  INSERT INTO `tallies` SELECT new.`register_id`, new.`form_id`, new.`phase`, coalesce(new.`team`, ''), coalesce(new.`handler_id`, ''), coalesce(new.`deciders`, ''), 1
  WHERE new.`trial` = 0 ON CONFLICT DO UPDATE SET `n` = `n` + 1;
END;
