ALTER TABLE `receipt_line` MODIFY COLUMN `outcome` enum('waiting','registered','exchanged','refused','unsettled','notTried') NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt` ADD `run_key` varchar(64);--> statement-breakpoint
ALTER TABLE `receipt` ADD `begun_at` datetime(3);--> statement-breakpoint
ALTER TABLE `receipt` ADD `ended_at` datetime(3);--> statement-breakpoint
UPDATE `receipt` SET `begun_at` = utc_timestamp(3), `ended_at` = utc_timestamp(3);--> statement-breakpoint
ALTER TABLE `receipt` MODIFY COLUMN `begun_at` datetime(3) NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt` ADD CONSTRAINT `receipt_run` UNIQUE(`student_id`,`run_key`);--> statement-breakpoint
CREATE INDEX `receipt_ended` ON `receipt` (`ended_at`);
