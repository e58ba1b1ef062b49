DROP INDEX `requests_created`;--> statement-breakpoint
CREATE INDEX `requests_created` ON `requests` (`created_at`,`id`,`trial`,`register_id`,`team`,`handler_id`,`deciders`);
