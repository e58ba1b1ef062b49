INSERT INTO `designs` SELECT `id`, 'register', `key`, json_object('name', `name`, 'prefix', `prefix`, 'fields', json(`fields`), 'stages', json(`stages`), 'access', json(`access`), 'deskGroups', json(`desk_groups`), 'staysIn', json(iif(`stays_in`, 'true', 'false'))), 1, 1 FROM `registers`;--> statement-breakpoint
INSERT INTO `design_states` SELECT `id` || '/1', `id`, 1, `draft`, '', '', 0 FROM `designs` WHERE `kind` = 'register';--> statement-breakpoint
CREATE TABLE `__new_registers` (
	`id` text PRIMARY KEY NOT NULL,
	`next_number` integer DEFAULT 1 NOT NULL,
	`ran` text DEFAULT '[]' NOT NULL,
	FOREIGN KEY (`id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_registers` SELECT `id`, `next_number`, `ran` FROM `registers`;--> statement-breakpoint
DROP TABLE `registers`;--> statement-breakpoint
ALTER TABLE `__new_registers` RENAME TO `registers`;
