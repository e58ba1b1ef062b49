ALTER TABLE `deadlines` ADD `counted` text DEFAULT 'days' NOT NULL;--> statement-breakpoint
ALTER TABLE `deadlines` ADD `ended_at` integer;--> statement-breakpoint
ALTER TABLE `notices` ADD `in_id` text;--> statement-breakpoint
ALTER TABLE `notices` ADD `why` text;--> statement-breakpoint
CREATE INDEX `notices_gathering` ON `notices` (`next_attempt_at`) WHERE state = 'gathering';--> statement-breakpoint
CREATE INDEX `notices_request` ON `notices` (`request_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `notices_in` ON `notices` (`in_id`) WHERE in_id is not null;--> statement-breakpoint
ALTER TABLE `people` ADD `hearing` text;--> statement-breakpoint
ALTER TABLE `requests` ADD `planned_by` text REFERENCES design_states(id);