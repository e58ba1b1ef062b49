DROP INDEX `requests_unfinished_due`;--> statement-breakpoint
DROP INDEX `requests_phase_due`;--> statement-breakpoint
DROP INDEX `requests_due`;--> statement-breakpoint
DROP INDEX `requests_created`;--> statement-breakpoint
DROP INDEX `requests_team`;--> statement-breakpoint
DROP INDEX `requests_handler`;--> statement-breakpoint
CREATE INDEX `requests_unfinished_due` ON `requests` (`due`,`id`,`trial`) WHERE phase <> 'finished';--> statement-breakpoint
CREATE INDEX `requests_phase_due` ON `requests` (`phase`,`due`,`id`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_due` ON `requests` (`due`,`id`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_created` ON `requests` (`created_at`,`id`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_team` ON `requests` (`team`,`phase`,`due`,`trial`);--> statement-breakpoint
CREATE INDEX `requests_handler` ON `requests` (`handler_id`,`phase`,`due`,`trial`);