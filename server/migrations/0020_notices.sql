CREATE TABLE `notices` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text,
	`person_id` text,
	`kind` text NOT NULL,
	`cause` text,
	`to_name` text NOT NULL,
	`to_address` text NOT NULL,
	`subject` text DEFAULT '' NOT NULL,
	`said` blob,
	`state` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text,
	`created_at` integer NOT NULL,
	`sent_at` integer
);
--> statement-breakpoint
CREATE INDEX `notices_left` ON `notices` (`state`,`next_attempt_at`) WHERE state in ('waiting', 'sending', 'failed');--> statement-breakpoint
CREATE INDEX `notices_unconfirmed` ON `notices` (`to_address`,`created_at`) WHERE kind in ('confirm', 'go-on');--> statement-breakpoint
CREATE INDEX `notices_said` ON `notices` (`sent_at`) WHERE state = 'sent' and said is not null;--> statement-breakpoint
INSERT INTO `notices`
SELECT `id`, `request_id`, NULL, `kind`, NULL, `to_name`, `to_address`, `subject`,
  CASE `html` WHEN '' THEN NULL ELSE json_object('text', `text`, 'html', `html`) END,
  `state`, `attempts`, `next_attempt_at`, `last_error`, `created_at`, `sent_at`
FROM `outbox`;--> statement-breakpoint
DROP TABLE `outbox`;
