CREATE TABLE `mail` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`event_id` bigint NOT NULL,
	`state` enum('waiting','sent','failed') NOT NULL DEFAULT 'waiting',
	`tries` smallint NOT NULL DEFAULT 0,
	`next_try_at` datetime(3) NOT NULL,
	`sent_at` datetime(3),
	CONSTRAINT `mail_id` PRIMARY KEY(`id`),
	CONSTRAINT `mail_once` UNIQUE(`event_id`,`account_id`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD `mail` varchar(120);--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_event_id_event_log_id_fk` FOREIGN KEY (`event_id`) REFERENCES `event_log`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `mail_due` ON `mail` (`state`,`next_try_at`);--> statement-breakpoint
CREATE INDEX `mail_account` ON `mail` (`account_id`,`id`);