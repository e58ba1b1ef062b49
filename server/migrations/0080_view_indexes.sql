CREATE TABLE `view_indexes` (
	`name` text PRIMARY KEY NOT NULL,
	`used_at` integer NOT NULL
);
