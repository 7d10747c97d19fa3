CREATE TABLE `course_mark` (
	`student_id` int NOT NULL,
	`course_id` int NOT NULL,
	`starred_at` datetime(3),
	`looked_at` datetime(3),
	CONSTRAINT `course_mark_student_id_course_id_pk` PRIMARY KEY(`student_id`,`course_id`)
);
--> statement-breakpoint
ALTER TABLE `note` MODIFY COLUMN `visibility` enum('own','shared','advisors') NOT NULL;--> statement-breakpoint
ALTER TABLE `subject` ADD `college` varchar(80) NOT NULL;--> statement-breakpoint
ALTER TABLE `course_mark` ADD CONSTRAINT `course_mark_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course_mark` ADD CONSTRAINT `course_mark_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;