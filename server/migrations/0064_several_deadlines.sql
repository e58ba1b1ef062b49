ALTER TABLE `deadlines` ADD `counted` text DEFAULT 'days' NOT NULL;--> statement-breakpoint
ALTER TABLE `deadlines` ADD `ended_at` integer;