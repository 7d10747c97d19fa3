CREATE TABLE `rehearsal` (
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`on_date` date NOT NULL,
	`said` json,
	CONSTRAINT `rehearsal_student_id_term_id_pk` PRIMARY KEY(`student_id`,`term_id`)
);
--> statement-breakpoint
ALTER TABLE `rehearsal` ADD CONSTRAINT `rehearsal_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rehearsal` ADD CONSTRAINT `rehearsal_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;