ALTER TABLE `deleted_requests` ADD `request_id` text;--> statement-breakpoint
ALTER TABLE `deleted_requests` ADD `laid` text;--> statement-breakpoint
ALTER TABLE `deleted_requests` ADD `put_back_at` integer;--> statement-breakpoint
ALTER TABLE `deleted_requests` ADD `put_back_by` text;--> statement-breakpoint
CREATE INDEX `deleted_requests_laid` ON `deleted_requests` (`at`) WHERE laid is not null;