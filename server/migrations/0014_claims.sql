CREATE TABLE `__new_claims` (
	`form_id` text NOT NULL,
	`rule_id` text NOT NULL,
	`value` text NOT NULL,
	`request_id` text NOT NULL,
	PRIMARY KEY(`form_id`, `rule_id`, `value`, `request_id`),
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_claims` SELECT `form_id`, `rule_id`, `value`, `request_id` FROM `claims`;--> statement-breakpoint
DROP TABLE `claims`;--> statement-breakpoint
ALTER TABLE `__new_claims` RENAME TO `claims`;--> statement-breakpoint
CREATE INDEX `claims_request` ON `claims` (`request_id`);
