CREATE TABLE `pictures` (
	`key` text PRIMARY KEY NOT NULL,
	`type` text NOT NULL,
	`version` text NOT NULL,
	`bytes` blob NOT NULL
);
