CREATE TABLE `duties_told` (
	`roster` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `duty_offers` (
	`id` text PRIMARY KEY NOT NULL,
	`roster` text NOT NULL,
	`from_at` integer NOT NULL,
	`until_at` integer NOT NULL,
	`person_id` text NOT NULL,
	`asked_id` text,
	`note` text NOT NULL,
	`state` text NOT NULL,
	`taken_by` text,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`asked_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`taken_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `duty_offers_open` ON `duty_offers` (`state`,`until_at`);--> statement-breakpoint
CREATE INDEX `duty_offers_until` ON `duty_offers` (`until_at`);