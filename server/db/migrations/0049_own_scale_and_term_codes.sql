ALTER TABLE `term` MODIFY COLUMN `code` varchar(8) NOT NULL;--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `season` enum('autumn','winter','spring','summer') NOT NULL;--> statement-breakpoint
ALTER TABLE `record_course` MODIFY COLUMN `grade` varchar(4);--> statement-breakpoint
ALTER TABLE `institution` ADD `grades` json;