CREATE TABLE `waiver` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`course_id` int NOT NULL,
	`state` enum('asked','granted','declined') NOT NULL,
	`reason` varchar(400) NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`answered_by_id` int,
	`answered_at` datetime(3),
	CONSTRAINT `waiver_id` PRIMARY KEY(`id`),
	CONSTRAINT `waiver_course` UNIQUE(`student_id`,`course_id`),
	CONSTRAINT `waiver_answered` CHECK((`waiver`.`state` = 'asked') = (`waiver`.`answered_by_id` is null))
);
--> statement-breakpoint
ALTER TABLE `waiver` ADD CONSTRAINT `waiver_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `waiver` ADD CONSTRAINT `waiver_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `waiver` ADD CONSTRAINT `waiver_answered_by_id_account_id_fk` FOREIGN KEY (`answered_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;