CREATE TABLE `notice_turns` (
	`form_id` text NOT NULL,
	`rule` text NOT NULL,
	`value` text NOT NULL,
	`turned` integer NOT NULL,
	`last` text,
	PRIMARY KEY(`form_id`, `rule`, `value`)
);
