ALTER TABLE `receipt_line` MODIFY COLUMN `outcome` enum('registered','exchanged','refused','unsettled') NOT NULL;--> statement-breakpoint
ALTER TABLE `section` ADD `off_site` varchar(80);--> statement-breakpoint
ALTER TABLE `section` ADD `prerequisite` varchar(500);--> statement-breakpoint
ALTER TABLE `section` ADD `categories` json;--> statement-breakpoint
ALTER TABLE `record_course` ADD `categories` json;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `gave_back` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `picked_section` ADD `exchange` boolean DEFAULT false NOT NULL;