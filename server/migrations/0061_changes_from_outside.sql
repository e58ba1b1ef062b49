ALTER TABLE `waiting_submissions` ADD `entry` text;--> statement-breakpoint
ALTER TABLE `proposals` ADD `consent` integer;--> statement-breakpoint
ALTER TABLE `proposals` ADD `consent_in` text;