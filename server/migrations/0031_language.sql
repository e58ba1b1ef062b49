ALTER TABLE `kept_answers` ADD `language` text;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `language` text;--> statement-breakpoint
ALTER TABLE `waiting_submissions` ADD `sent_link` text;--> statement-breakpoint
ALTER TABLE `people` ADD `language` text;