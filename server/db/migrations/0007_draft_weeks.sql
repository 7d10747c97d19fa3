CREATE TABLE `calendar_address` (
	`student_id` int NOT NULL,
	`key` varchar(32) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `calendar_address_student_id` PRIMARY KEY(`student_id`),
	CONSTRAINT `calendar_address_key` UNIQUE(`key`)
);
--> statement-breakpoint
CREATE TABLE `keep_free` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`name` varchar(60) NOT NULL,
	`days` varchar(7) NOT NULL,
	`starts_min` smallint NOT NULL,
	`ends_min` smallint NOT NULL,
	`hard` boolean NOT NULL,
	CONSTRAINT `keep_free_id` PRIMARY KEY(`id`),
	CONSTRAINT `keep_free_hours` CHECK(`keep_free`.`starts_min` >= 0 and `keep_free`.`starts_min` < `keep_free`.`ends_min` and `keep_free`.`ends_min` <= 1440)
);
--> statement-breakpoint
CREATE TABLE `week_habits` (
	`student_id` int NOT NULL,
	`wishes` json NOT NULL,
	`travel_holds` boolean NOT NULL,
	CONSTRAINT `week_habits_student_id` PRIMARY KEY(`student_id`)
);
--> statement-breakpoint
ALTER TABLE `draft_week` ADD `share_key` varchar(32);--> statement-breakpoint
ALTER TABLE `picked_section` ADD `as_picked` json;--> statement-breakpoint
ALTER TABLE `draft_week` ADD CONSTRAINT `draft_week_share` UNIQUE(`share_key`);--> statement-breakpoint
ALTER TABLE `calendar_address` ADD CONSTRAINT `calendar_address_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `keep_free` ADD CONSTRAINT `keep_free_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `week_habits` ADD CONSTRAINT `week_habits_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `keep_free_student` ON `keep_free` (`student_id`);