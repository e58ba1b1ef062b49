CREATE TABLE `designs` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`key` text NOT NULL,
	`draft` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`number` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `designs_key` ON `designs` (`kind`,`key`);--> statement-breakpoint
INSERT INTO `designs` SELECT `id`, 'form', `key`, `draft`, `version`, `release` FROM `forms`;--> statement-breakpoint
INSERT INTO `designs` SELECT 'vocabulary/' || `key`, 'vocabulary', `key`, json_object('name', `name`, 'terms', json(`terms`)), `version`, 1 FROM `vocabularies`;--> statement-breakpoint
CREATE TABLE `__new_releases` (
	`id` text PRIMARY KEY NOT NULL,
	`design_id` text NOT NULL,
	`number` integer NOT NULL,
	`content` text NOT NULL,
	`note` text NOT NULL,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`design_id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_releases` SELECT `id`, `form_id`, `number`, `design`, `note`, `released_by`, `released_at` FROM `releases`;--> statement-breakpoint
INSERT INTO `__new_releases` SELECT `id` || '/1', `id`, 1, `draft`, '', '', 0 FROM `designs` WHERE `kind` = 'vocabulary';--> statement-breakpoint
DROP TABLE `releases`;--> statement-breakpoint
ALTER TABLE `__new_releases` RENAME TO `releases`;--> statement-breakpoint
ALTER TABLE `releases` RENAME TO `design_states`;--> statement-breakpoint
CREATE UNIQUE INDEX `design_states_number` ON `design_states` (`design_id`,`number`);--> statement-breakpoint
CREATE TABLE `__new_draft_states` (
	`id` text PRIMARY KEY NOT NULL,
	`design_id` text NOT NULL,
	`draft` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`design_id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_draft_states` SELECT `id`, `form_id`, `draft`, `version`, `changed_by`, `changed_at` FROM `draft_states`;--> statement-breakpoint
DROP TABLE `draft_states`;--> statement-breakpoint
ALTER TABLE `__new_draft_states` RENAME TO `draft_states`;--> statement-breakpoint
CREATE INDEX `draft_states_design` ON `draft_states` (`design_id`,`changed_at`);--> statement-breakpoint
CREATE TABLE `__new_forms` (
	`id` text PRIMARY KEY NOT NULL,
	`register_id` text NOT NULL,
	FOREIGN KEY (`id`) REFERENCES `designs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_forms` SELECT `id`, `register_id` FROM `forms`;--> statement-breakpoint
DROP TABLE `forms`;--> statement-breakpoint
ALTER TABLE `__new_forms` RENAME TO `forms`;--> statement-breakpoint
DROP TABLE `vocabularies`;
