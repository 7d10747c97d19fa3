CREATE TABLE `hold_kind` (
	`id` int AUTO_INCREMENT NOT NULL,
	`title` varchar(80) NOT NULL,
	`office` varchar(80) NOT NULL,
	`how_to_lift` text NOT NULL,
	`stops_registration` boolean NOT NULL,
	`takes_amount` boolean NOT NULL,
	CONSTRAINT `hold_kind_id` PRIMARY KEY(`id`),
	CONSTRAINT `hold_kind_title` UNIQUE(`office`,`title`)
);
--> statement-breakpoint
ALTER TABLE `hold` ADD `placed_by_id` int;--> statement-breakpoint
ALTER TABLE `hold` ADD `lifted_by_id` int;--> statement-breakpoint
ALTER TABLE `hold` ADD CONSTRAINT `hold_placed_by_id_account_id_fk` FOREIGN KEY (`placed_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `hold` ADD CONSTRAINT `hold_lifted_by_id_account_id_fk` FOREIGN KEY (`lifted_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;