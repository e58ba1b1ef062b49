CREATE TABLE `profile_conditions` (
	`register` text NOT NULL,
	`is_draft` integer NOT NULL,
	`condition` text NOT NULL,
	PRIMARY KEY(`register`, `is_draft`, `condition`)
);
