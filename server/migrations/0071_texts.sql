CREATE TABLE `texts` (
	`id` text PRIMARY KEY NOT NULL,
	`correlator` text NOT NULL,
	`received_at` integer NOT NULL,
	`to` text NOT NULL,
	`text` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `texts_correlator_unique` ON `texts` (`correlator`);--> statement-breakpoint
CREATE INDEX `texts_received` ON `texts` (`received_at`);--> statement-breakpoint
DROP INDEX `notices_left`;--> statement-breakpoint
ALTER TABLE `notices` ADD `way` text DEFAULT 'email' NOT NULL;--> statement-breakpoint
CREATE INDEX `notices_person` ON `notices` (`person_id`,`created_at`) WHERE person_id is not null;--> statement-breakpoint
CREATE INDEX `notices_kept` ON `notices` (`created_at`) WHERE cause is not null and state in ('dropped', 'sent');--> statement-breakpoint
CREATE INDEX `notices_left` ON `notices` (`program`,`way`,`state`,`next_attempt_at`) WHERE state in ('waiting', 'sending', 'failed');--> statement-breakpoint
ALTER TABLE `people` ADD `bell_seen_at` integer;--> statement-breakpoint
-- What was told before there was a bell counts as seen.
UPDATE `people` SET `bell_seen_at` = (SELECT max(`created_at`) FROM `notices`);