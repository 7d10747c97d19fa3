DROP TABLE `charge`;--> statement-breakpoint
DELETE FROM `payment`;--> statement-breakpoint
ALTER TABLE `payment` MODIFY COLUMN `amount` int NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt` MODIFY COLUMN `by_id` int;--> statement-breakpoint
ALTER TABLE `receipt_line` MODIFY COLUMN `action` enum('register','drop','leave','offer','release') NOT NULL DEFAULT 'register';--> statement-breakpoint
ALTER TABLE `receipt_line` MODIFY COLUMN `outcome` enum('waiting','registered','exchanged','inLine','dropped','released','left','declined','refused','unsettled','notTried') NOT NULL;--> statement-breakpoint
ALTER TABLE `term` ADD `prices` json;--> statement-breakpoint
ALTER TABLE `payment` ADD `pay_key` varchar(64) NOT NULL;--> statement-breakpoint
ALTER TABLE `payment` ADD `state` enum('asked','taken','refused') NOT NULL;--> statement-breakpoint
ALTER TABLE `payment` ADD `answered_at` datetime(3);--> statement-breakpoint
ALTER TABLE `payment` ADD `by_id` int NOT NULL;--> statement-breakpoint
ALTER TABLE `section` ADD `taken_formerly` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `student` ADD `residency` enum('resident','nonResident') DEFAULT 'resident' NOT NULL;--> statement-breakpoint
ALTER TABLE `payment` ADD CONSTRAINT `payment_key` UNIQUE(`student_id`,`pay_key`);--> statement-breakpoint
ALTER TABLE `payment` ADD CONSTRAINT `payment_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `payment_state` ON `payment` (`state`);--> statement-breakpoint
DROP INDEX `payment_student` ON `payment`;
