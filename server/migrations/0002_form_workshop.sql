CREATE TABLE `draft_states` (
	`id` text PRIMARY KEY NOT NULL,
	`form_id` text NOT NULL,
	`draft` text NOT NULL,
	`version` integer NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `draft_states_form` ON `draft_states` (`form_id`,`changed_at`);--> statement-breakpoint
CREATE TABLE `claims` (
	`form_id` text NOT NULL,
	`rule_id` text NOT NULL,
	`value` text NOT NULL,
	`request_id` text NOT NULL,
	PRIMARY KEY(`form_id`, `rule_id`, `value`),
	FOREIGN KEY (`form_id`) REFERENCES `forms`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`request_id`) REFERENCES `requests`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `claims_request` ON `claims` (`request_id`);--> statement-breakpoint
ALTER TABLE `requests` ADD `trial` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `releases` SET `design` = json_remove(
	json_set(
		`design`,
		'$.parts', (SELECT json_group_array(json_set(value, '$.part', 'question')) FROM json_each(`design`, '$.questions')),
		'$.rules', (
			SELECT json_group_array(json_remove(
				json_set(value, '$.says', '', '$.then', json_array(json_object('do', 'show', 'parts', json_extract(value, '$.show'))), '$.otherwise', json('[]'), '$.runs', 'filling'),
				'$.show'
			)) FROM json_each(`design`, '$.rules')
		),
		'$.unique', json('[]')
	),
	'$.questions'
) WHERE json_type(`design`, '$.parts') IS NULL;
--> statement-breakpoint
UPDATE `forms` SET `draft` = json_remove(
	json_set(
		`draft`,
		'$.parts', (SELECT json_group_array(json_set(value, '$.part', 'question')) FROM json_each(`draft`, '$.questions')),
		'$.rules', (
			SELECT json_group_array(json_remove(
				json_set(value, '$.says', '', '$.then', json_array(json_object('do', 'show', 'parts', json_extract(value, '$.show'))), '$.otherwise', json('[]'), '$.runs', 'filling'),
				'$.show'
			)) FROM json_each(`draft`, '$.rules')
		),
		'$.unique', json('[]')
	),
	'$.questions'
) WHERE json_type(`draft`, '$.parts') IS NULL;
