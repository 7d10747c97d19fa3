ALTER TABLE `receipt_line` MODIFY COLUMN `action` enum('register','drop','leave','offer','release','giveUp') NOT NULL DEFAULT 'register';--> statement-breakpoint
ALTER TABLE `fallback` ADD `giving_up_id` int;--> statement-breakpoint
ALTER TABLE `fallback` ADD `note` varchar(300);--> statement-breakpoint
ALTER TABLE `prepared_sheet` ADD `drops` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `draft_week` ADD `note` varchar(500);--> statement-breakpoint
ALTER TABLE `fallback` ADD CONSTRAINT `fallback_giving_up_id_course_id_fk` FOREIGN KEY (`giving_up_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;