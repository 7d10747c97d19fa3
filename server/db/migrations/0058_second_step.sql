CREATE TABLE `second_step` (
	`account_id` int NOT NULL,
	`secret` varchar(64) NOT NULL,
	`confirmed_at` datetime(3),
	`last_step` bigint NOT NULL DEFAULT 0,
	`spare_hashes` json NOT NULL,
	CONSTRAINT `second_step_account_id` PRIMARY KEY(`account_id`)
);
--> statement-breakpoint
ALTER TABLE `second_step` ADD CONSTRAINT `second_step_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;