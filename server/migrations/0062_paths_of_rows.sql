CREATE TABLE `handler_turns` (
	`team` text NOT NULL,
	`person_id` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`team`, `person_id`),
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `approval_rounds` ADD `from_stage` text;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `against` integer;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `instead` text;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `limit` text;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `due_at` integer;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `ring_at` integer;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `nobody_since` integer;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `left` integer;--> statement-breakpoint
ALTER TABLE `approval_steps` ADD `silently` text;--> statement-breakpoint
CREATE INDEX `approval_steps_ring` ON `approval_steps` (`ring_at`) WHERE ring_at is not null;--> statement-breakpoint
CREATE INDEX `approval_steps_nobody` ON `approval_steps` (`nobody_since`) WHERE nobody_since is not null;--> statement-breakpoint
ALTER TABLE `seats` ADD `planned` text;--> statement-breakpoint
ALTER TABLE `seats` ADD `instead_of` text;