CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`about` text NOT NULL,
	`by` text NOT NULL,
	`state` text NOT NULL,
	`looked` integer DEFAULT 0 NOT NULL,
	`of` integer,
	`result` text,
	`created_at` integer NOT NULL,
	`ended_at` integer
);
--> statement-breakpoint
CREATE INDEX `jobs_left` ON `jobs` (`created_at`) WHERE state in ('waiting', 'running');--> statement-breakpoint
CREATE INDEX `jobs_created` ON `jobs` (`created_at`);
