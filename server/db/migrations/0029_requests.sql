ALTER TABLE `permission` ADD `against` json;--> statement-breakpoint
ALTER TABLE `permission` ADD `forwarded_at` datetime(3);--> statement-breakpoint
ALTER TABLE `permission` ADD `forwarded_by_id` int;--> statement-breakpoint
ALTER TABLE `permission` ADD `words` varchar(400);--> statement-breakpoint
ALTER TABLE `permission` ADD CONSTRAINT `permission_forwarded_by_id_account_id_fk` FOREIGN KEY (`forwarded_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;