CREATE TABLE `desk_view` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`name` varchar(40) NOT NULL,
	`view` json NOT NULL,
	CONSTRAINT `desk_view_id` PRIMARY KEY(`id`),
	CONSTRAINT `desk_view_name` UNIQUE(`account_id`,`name`)
);
--> statement-breakpoint
ALTER TABLE `desk_view` ADD CONSTRAINT `desk_view_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;