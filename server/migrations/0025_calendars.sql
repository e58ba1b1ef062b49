INSERT INTO `designs` (`id`, `kind`, `key`, `draft`, `version`, `number`)
SELECT 'calendar-' || `key`, 'calendar', `key`, `calendar`, 1, 1 FROM `calendars`;
--> statement-breakpoint
INSERT INTO `design_states` (`id`, `design_id`, `number`, `content`, `note`, `by`, `at`)
SELECT `id` || '-1', `id`, 1, `draft`, '', '', coalesce((SELECT max(`at`) FROM `design_states`), 0)
FROM `designs` WHERE `kind` = 'calendar';
--> statement-breakpoint
DROP TABLE `calendars`;
