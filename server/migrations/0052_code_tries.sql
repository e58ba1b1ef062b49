CREATE TABLE `code_tries` (
	`link_id` text PRIMARY KEY NOT NULL,
	`wrong` integer NOT NULL
);
