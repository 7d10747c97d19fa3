CREATE TABLE `made_change` (
	`account_id` int NOT NULL,
	`change_key` varchar(64) NOT NULL,
	`asked` char(64) NOT NULL,
	`answer` json,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `made_change_account_id_change_key_pk` PRIMARY KEY(`account_id`,`change_key`)
);
--> statement-breakpoint
CREATE TABLE `news` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`student_id` int,
	`account_id` int,
	`change_key` varchar(64),
	`about` json NOT NULL,
	CONSTRAINT `news_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `made_change` ADD CONSTRAINT `made_change_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `news` ADD CONSTRAINT `news_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `news` ADD CONSTRAINT `news_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `made_change_at` ON `made_change` (`at`);--> statement-breakpoint
CREATE INDEX `news_at` ON `news` (`at`);