CREATE TABLE `sign_in_attempt` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `sign_in_attempt_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
CREATE TABLE `signed_in` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`key_hash` char(64) NOT NULL,
	`signed_in_at` datetime(3) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`browser` varchar(80) NOT NULL,
	CONSTRAINT `signed_in_id` PRIMARY KEY(`id`),
	CONSTRAINT `signed_in_key` UNIQUE(`key_hash`)
);
--> statement-breakpoint
ALTER TABLE `signed_in` ADD CONSTRAINT `signed_in_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `signed_in_account` ON `signed_in` (`account_id`);--> statement-breakpoint
CREATE INDEX `signed_in_at` ON `signed_in` (`signed_in_at`);