ALTER TABLE `deadlines` ADD `counted` text DEFAULT 'days' NOT NULL;--> statement-breakpoint
ALTER TABLE `deadlines` ADD `ended_at` integer;--> statement-breakpoint
ALTER TABLE `requests` ADD `planned_by` text REFERENCES design_states(id);