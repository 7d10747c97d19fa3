CREATE TABLE `mail_choice` (
	`account_id` int NOT NULL,
	`topic` enum('advising','appointments') NOT NULL,
	`choice` enum('atOnce','daily','never') NOT NULL,
	CONSTRAINT `mail_choice_account_id_topic_pk` PRIMARY KEY(`account_id`,`topic`)
);
--> statement-breakpoint
ALTER TABLE `mail` MODIFY COLUMN `state` enum('waiting','sent','failed','gathered','told') NOT NULL DEFAULT 'waiting';--> statement-breakpoint
ALTER TABLE `mail_choice` ADD CONSTRAINT `mail_choice_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;