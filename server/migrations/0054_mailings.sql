CREATE TABLE `goings` (
	`id` text PRIMARY KEY NOT NULL,
	`mailing_id` text NOT NULL,
	`at` integer NOT NULL,
	`by` text,
	`request_id` text,
	`period` text,
	`only_new` integer DEFAULT false NOT NULL,
	`state` text NOT NULL,
	`not_sent` integer DEFAULT 0 NOT NULL,
	FOREIGN KEY (`mailing_id`) REFERENCES `mailings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `goings_waiting` ON `goings` (`at`) WHERE state = 'waiting';--> statement-breakpoint
CREATE INDEX `goings_mailing` ON `goings` (`mailing_id`,`at`);--> statement-breakpoint
CREATE INDEX `goings_request` ON `goings` (`request_id`) WHERE request_id is not null;--> statement-breakpoint
CREATE TABLE `mailings` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`awaits` text,
	`removed_at` integer,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `mailings_form` ON `mailings` (`form_id`);--> statement-breakpoint
CREATE INDEX `mailings_awaits` ON `mailings` (`awaits`);--> statement-breakpoint
CREATE TABLE `owed_forms` (
	`id` text PRIMARY KEY NOT NULL,
	`mailing_id` text NOT NULL,
	`going_id` text NOT NULL,
	`person_id` text NOT NULL,
	`about_person_id` text,
	`about_request_id` text,
	`topic` text DEFAULT '' NOT NULL,
	`field` text,
	`sent_at` integer NOT NULL,
	`due` integer,
	`remind_at` integer,
	`state` text NOT NULL,
	`closed_at` integer,
	`answer_id` text,
	`passed_by` text,
	FOREIGN KEY (`mailing_id`) REFERENCES `mailings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`going_id`) REFERENCES `goings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`about_person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`about_request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answer_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`passed_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `owed_once` ON `owed_forms` (`going_id`,`person_id`,`topic`);--> statement-breakpoint
CREATE INDEX `owed_person` ON `owed_forms` (`person_id`,`state`);--> statement-breakpoint
CREATE INDEX `owed_remind` ON `owed_forms` (`remind_at`) WHERE state = 'open' and remind_at is not null;--> statement-breakpoint
CREATE INDEX `owed_mailing` ON `owed_forms` (`mailing_id`,`state`);--> statement-breakpoint
CREATE INDEX `owed_about` ON `owed_forms` (`about_request_id`) WHERE about_request_id is not null;--> statement-breakpoint
CREATE INDEX `owed_answer` ON `owed_forms` (`answer_id`) WHERE answer_id is not null;--> statement-breakpoint
DROP INDEX `kept_person`;--> statement-breakpoint
ALTER TABLE `kept_answers` ADD `owed` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX `kept_person` ON `kept_answers` (`door_id`,`person_id`,`owed`);