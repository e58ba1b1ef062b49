INSERT INTO `designs` (`id`, `kind`, `key`, `draft`, `version`, `number`)
SELECT `id`, 'door', `slug`, json_object(
  'name', CASE `kind` WHEN 'staff' THEN 'Staff door' ELSE 'Outside door' END,
  'audience', json('{"in":{"everyone":true},"outOf":[]}'),
  'proof', CASE `kind` WHEN 'staff' THEN 'sign-in' ELSE 'confirmed-address' END,
  'open', json(CASE `open` WHEN 1 THEN 'true' ELSE 'false' END),
  'opensAt', `opens_at`,
  'closesAt', `closes_at`,
  'limits', json('[]'),
  'closedMessage', `closed_message`
), 1, 1 FROM `doors`;
--> statement-breakpoint
INSERT INTO `design_states` (`id`, `design_id`, `number`, `content`, `note`, `by`, `at`)
SELECT `id` || '-1', `id`, 1, `draft`, '', '', coalesce((SELECT max(`at`) FROM `design_states`), 0)
FROM `designs` WHERE `kind` = 'door';
--> statement-breakpoint
ALTER TABLE `doors` DROP COLUMN `open`;
--> statement-breakpoint
ALTER TABLE `doors` DROP COLUMN `opens_at`;
--> statement-breakpoint
ALTER TABLE `doors` DROP COLUMN `closes_at`;
--> statement-breakpoint
ALTER TABLE `doors` DROP COLUMN `closed_message`;
--> statement-breakpoint
CREATE INDEX `requests_door` ON `requests` (`door_id`,`created_at`,`trial`);
