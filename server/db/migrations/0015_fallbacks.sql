CREATE TABLE `fallback` (
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`course_id` int NOT NULL,
	`list` json NOT NULL,
	CONSTRAINT `fallback_student_id_term_id_course_id_pk` PRIMARY KEY(`student_id`,`term_id`,`course_id`)
);
--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `fallback` smallint;--> statement-breakpoint
ALTER TABLE `fallback` ADD CONSTRAINT `fallback_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `fallback` ADD CONSTRAINT `fallback_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `fallback` ADD CONSTRAINT `fallback_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;