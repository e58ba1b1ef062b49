CREATE TABLE `rule_run_changes` (
	`run_id` text NOT NULL,
	`request_id` text NOT NULL,
	`changes` text NOT NULL,
	PRIMARY KEY(`run_id`, `request_id`),
	FOREIGN KEY (`run_id`) REFERENCES `rule_runs`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `rule_runs` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`rule` text NOT NULL,
	`name` text NOT NULL,
	`by` text NOT NULL,
	`at` integer NOT NULL,
	`taken_back_at` integer,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `rule_runs_rule` ON `rule_runs` (`form_id`,`rule`,`at`);--> statement-breakpoint
CREATE INDEX `rule_runs_at` ON `rule_runs` (`at`);--> statement-breakpoint
DROP INDEX `requests_phase_due`;--> statement-breakpoint
DROP INDEX `requests_due`;--> statement-breakpoint
DROP INDEX `requests_created`;--> statement-breakpoint
CREATE INDEX `requests_register` ON `requests` (`register_id`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_phase_due` ON `requests` (`phase`,`due`,`id`,`trial`,`register_id`);--> statement-breakpoint
CREATE INDEX `requests_due` ON `requests` (`due`,`id`,`trial`,`register_id`);--> statement-breakpoint
CREATE INDEX `requests_created` ON `requests` (`created_at`,`id`,`trial`,`register_id`);--> statement-breakpoint
ALTER TABLE `uploads` ADD `from_where` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `uploads_from` ON `uploads` (`from_where`,`request_id`);--> statement-breakpoint
CREATE INDEX `outbox_unconfirmed` ON `outbox` (`to_address`,`created_at`) WHERE kind in ('confirm', 'go-on');--> statement-breakpoint
CREATE INDEX `outbox_bodies` ON `outbox` (`sent_at`) WHERE state = 'sent' and html <> '';--> statement-breakpoint
CREATE INDEX `idempotency_created` ON `idempotency` (`created_at`);--> statement-breakpoint
CREATE INDEX `links_expires` ON `links` (`expires_at`);