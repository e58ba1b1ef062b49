ALTER TABLE `readings` ADD `created_at` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `readings` SET `created_at` = (SELECT `created_at` FROM `requests` WHERE `requests`.`id` = `readings`.`request_id`);--> statement-breakpoint
CREATE INDEX `readings_created` ON `readings` (`reader`,`created_at`,`request_id`);
