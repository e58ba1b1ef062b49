CREATE TABLE `absences` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`from_day` text NOT NULL,
	`until_day` text,
	`substitute_id` text,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`substitute_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `absences_person` ON `absences` (`person_id`,`from_day`);--> statement-breakpoint
CREATE INDEX `absences_substitute` ON `absences` (`substitute_id`);--> statement-breakpoint
CREATE TABLE `people_import_steps` (
	`import_id` text NOT NULL,
	`place` integer NOT NULL,
	`step` text NOT NULL,
	PRIMARY KEY(`import_id`, `place`),
	FOREIGN KEY (`import_id`) REFERENCES `people_imports`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `people_imports` (
	`id` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL,
	`by` text NOT NULL,
	`kind` text NOT NULL,
	`file` text NOT NULL,
	`added` integer NOT NULL,
	`changed` integer NOT NULL,
	`gone` integer NOT NULL,
	`ended_at` integer,
	`undone_at` integer
);
--> statement-breakpoint
CREATE INDEX `people_imports_at` ON `people_imports` (`at`);--> statement-breakpoint
CREATE TABLE `stand_ins` (
	`holder` text NOT NULL,
	`person_id` text NOT NULL,
	PRIMARY KEY(`holder`, `person_id`),
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `stand_ins_person` ON `stand_ins` (`person_id`);--> statement-breakpoint
ALTER TABLE `people` ADD `profile` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `merged_into` text;--> statement-breakpoint
ALTER TABLE `people` ADD `removed_at` integer;--> statement-breakpoint
INSERT OR IGNORE INTO `grants` (`subject`, `right`) SELECT `subject`, 'audit' FROM `grants` WHERE `right` = 'rights';
