ALTER TABLE `uploads` ADD `from_where` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `uploads_from` ON `uploads` (`from_where`,`request_id`);--> statement-breakpoint
CREATE INDEX `outbox_unconfirmed` ON `outbox` (`to_address`,`created_at`) WHERE kind in ('confirm', 'go-on');--> statement-breakpoint
CREATE INDEX `outbox_bodies` ON `outbox` (`sent_at`) WHERE state = 'sent' and html <> '';--> statement-breakpoint
CREATE INDEX `idempotency_created` ON `idempotency` (`created_at`);--> statement-breakpoint
CREATE INDEX `links_expires` ON `links` (`expires_at`);