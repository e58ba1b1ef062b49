CREATE TABLE `__new_claims` (
	`register_id` text NOT NULL,
	`rule_id` text NOT NULL,
	`value` text NOT NULL,
	`request_id` text NOT NULL,
	PRIMARY KEY(`register_id`, `rule_id`, `value`, `request_id`),
	FOREIGN KEY (`register_id`) REFERENCES `registers`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_claims` SELECT `forms`.`register_id`, `rule_id`, `value`, `request_id` FROM `claims` INNER JOIN `forms` ON `forms`.`id` = `claims`.`form_id`;--> statement-breakpoint
DROP TABLE `claims`;--> statement-breakpoint
ALTER TABLE `__new_claims` RENAME TO `claims`;--> statement-breakpoint
CREATE INDEX `claims_request` ON `claims` (`request_id`);--> statement-breakpoint
ALTER TABLE `requests` ADD `computed_by` text REFERENCES design_states(id);--> statement-breakpoint
ALTER TABLE `forms` ADD `stopped_at` integer;--> statement-breakpoint
ALTER TABLE `forms` ADD `deleted_at` integer;
