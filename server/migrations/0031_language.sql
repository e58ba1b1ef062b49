ALTER TABLE `kept_answers` ADD `language` text;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `language` text;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `sent_link` text;--> statement-breakpoint
ALTER TABLE `people` ADD `language` text;--> statement-breakpoint
-- What is answered again under its key tells when it is due as a moment, and has no link to see what became of it.
UPDATE `idempotency` SET `answer` = json_set(json_remove(`answer`, '$.dueWords'), '$.due', (SELECT strftime('%Y-%m-%dT%H:%M:%fZ', `due` / 1000.0, 'unixepoch') FROM `requests` WHERE `number` = json_extract(`answer`, '$.number'))) WHERE json_extract(`answer`, '$.state') = 'arrived';--> statement-breakpoint
UPDATE `idempotency` SET `answer` = json_set(`answer`, '$.sent', NULL) WHERE json_extract(`answer`, '$.state') = 'to-confirm';
