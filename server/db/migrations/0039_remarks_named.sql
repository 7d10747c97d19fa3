CREATE TABLE `remark_named` (
	`remark_id` int NOT NULL,
	`account_id` int NOT NULL,
	CONSTRAINT `remark_named_remark_id_account_id_pk` PRIMARY KEY(`remark_id`,`account_id`)
);
--> statement-breakpoint
ALTER TABLE `thread` MODIFY COLUMN `about` enum('route','term','course','need','section','finding') NOT NULL;--> statement-breakpoint
ALTER TABLE `remark_named` ADD CONSTRAINT `remark_named_remark_id_remark_id_fk` FOREIGN KEY (`remark_id`) REFERENCES `remark`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `remark_named` ADD CONSTRAINT `remark_named_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;