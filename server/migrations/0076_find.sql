CREATE TABLE `find_due` (
	`request_id` text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
CREATE TABLE `find_places` (
	`id` integer PRIMARY KEY NOT NULL,
	`key` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `find_places_key_unique` ON `find_places` (`key`);--> statement-breakpoint
CREATE TABLE `findable` (
	`n` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`request_id` text NOT NULL,
	`hash` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `findable_requestId_unique` ON `findable` (`request_id`);--> statement-breakpoint
CREATE VIRTUAL TABLE `found` USING fts5(`words`, content='', contentless_delete=1, detail='none', tokenize='ascii');--> statement-breakpoint
CREATE VIRTUAL TABLE `found_words` USING fts5vocab('found', 'row');--> statement-breakpoint
INSERT INTO `find_due` SELECT `id` FROM `requests` WHERE `trial` = 0 ORDER BY `created_at`, `id`;
