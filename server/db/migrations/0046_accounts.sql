CREATE TABLE `invitation` (
	`account_id` int NOT NULL,
	`key_hash` char(64) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `invitation_account_id` PRIMARY KEY(`account_id`),
	CONSTRAINT `invitation_key` UNIQUE(`key_hash`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD `ended_at` datetime(3);--> statement-breakpoint
ALTER TABLE `invitation` ADD CONSTRAINT `invitation_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;