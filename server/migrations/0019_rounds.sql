CREATE TABLE `approval_rounds` (
	`id` text PRIMARY KEY NOT NULL,
	`request_id` text NOT NULL,
	`state` text NOT NULL,
	`opened_at` integer NOT NULL,
	`ended_at` integer,
	`ended_by` text,
	`why` text,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `approval_rounds_request` ON `approval_rounds` (`request_id`);--> statement-breakpoint
CREATE TABLE `approval_steps` (
	`id` text PRIMARY KEY NOT NULL,
	`round_id` text NOT NULL,
	`place` integer NOT NULL,
	`key` text NOT NULL,
	`label` text NOT NULL,
	`needed` integer NOT NULL,
	FOREIGN KEY (`round_id`) REFERENCES `approval_rounds`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `approval_steps_round` ON `approval_steps` (`round_id`,`place`);--> statement-breakpoint
CREATE TABLE `seats` (
	`id` text PRIMARY KEY NOT NULL,
	`step_id` text NOT NULL,
	`request_id` text NOT NULL,
	`holder` text NOT NULL,
	`state` text NOT NULL,
	`decided_by` text,
	`decided_at` integer,
	`way` text,
	`seen` text,
	`comment` text,
	FOREIGN KEY (`step_id`) REFERENCES `approval_steps`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `seats_step` ON `seats` (`step_id`);--> statement-breakpoint
CREATE INDEX `seats_request` ON `seats` (`request_id`);--> statement-breakpoint
CREATE INDEX `seats_open` ON `seats` (`holder`,`request_id`) WHERE state = 'open';--> statement-breakpoint
INSERT INTO `approval_rounds`
SELECT a.`id`, a.`request_id`, CASE a.`state` WHEN 'waiting' THEN 'open' ELSE a.`state` END, r.`created_at`, a.`decided_at`,
  CASE a.`state` WHEN 'withdrawn' THEN a.`decided_by` END, CASE a.`state` WHEN 'withdrawn' THEN a.`comment` END
FROM `approvals` a JOIN `requests` r ON r.`id` = a.`request_id`;--> statement-breakpoint
INSERT INTO `approval_steps` SELECT `id`, `id`, 0, 'decision', `label`, 1 FROM `approvals`;--> statement-breakpoint
INSERT INTO `seats`
SELECT `id`, `id`, `request_id`, `group`, CASE `state` WHEN 'waiting' THEN 'open' WHEN 'withdrawn' THEN 'closed' ELSE `state` END,
  CASE `state` WHEN 'withdrawn' THEN NULL ELSE `decided_by` END, CASE `state` WHEN 'withdrawn' THEN NULL ELSE `decided_at` END,
  NULL, NULL, CASE `state` WHEN 'withdrawn' THEN NULL ELSE `comment` END
FROM `approvals`;--> statement-breakpoint
DROP TABLE `approvals`;--> statement-breakpoint
ALTER TABLE `requests` RENAME COLUMN `approver_group` TO `deciders`;--> statement-breakpoint
ALTER TABLE `tallies` RENAME COLUMN `approver_group` TO `deciders`;
