CREATE TABLE `delivery` (
	`id` int AUTO_INCREMENT NOT NULL,
	`webhook_id` int NOT NULL,
	`reference` varchar(40) NOT NULL,
	`type` varchar(24) NOT NULL,
	`body` text NOT NULL,
	`state` enum('waiting','delivered','givenUp') NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`tries` int NOT NULL,
	`next_at` datetime(3) NOT NULL,
	`answer` varchar(160),
	CONSTRAINT `delivery_id` PRIMARY KEY(`id`),
	CONSTRAINT `delivery_reference` UNIQUE(`reference`)
);
--> statement-breakpoint
CREATE TABLE `service_token` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`key_hash` char(64) NOT NULL,
	`scopes` json NOT NULL,
	`made_by_id` int NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	CONSTRAINT `service_token_id` PRIMARY KEY(`id`),
	CONSTRAINT `service_token_key` UNIQUE(`key_hash`),
	CONSTRAINT `service_token_account` UNIQUE(`account_id`)
);
--> statement-breakpoint
CREATE TABLE `webhook` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`address` varchar(300) NOT NULL,
	`secret` varchar(80) NOT NULL,
	`types` json NOT NULL,
	`made_by_id` int NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	`heard_up_to` bigint NOT NULL,
	CONSTRAINT `webhook_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `delivery` ADD CONSTRAINT `delivery_webhook_id_webhook_id_fk` FOREIGN KEY (`webhook_id`) REFERENCES `webhook`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `service_token` ADD CONSTRAINT `service_token_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `service_token` ADD CONSTRAINT `service_token_made_by_id_account_id_fk` FOREIGN KEY (`made_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `webhook` ADD CONSTRAINT `webhook_made_by_id_account_id_fk` FOREIGN KEY (`made_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `delivery_due` ON `delivery` (`state`,`next_at`);--> statement-breakpoint
CREATE INDEX `delivery_of` ON `delivery` (`webhook_id`,`id`);