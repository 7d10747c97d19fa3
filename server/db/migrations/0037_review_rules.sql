CREATE TABLE `program_sign_off` (
	`term_id` int NOT NULL,
	`program_id` int NOT NULL,
	`policy` enum('none','term','strict','anew') NOT NULL,
	CONSTRAINT `program_sign_off_term_id_program_id_pk` PRIMARY KEY(`term_id`,`program_id`)
);
--> statement-breakpoint
CREATE TABLE `intention` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`course_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `intention_id` PRIMARY KEY(`id`),
	CONSTRAINT `intention_once` UNIQUE(`student_id`,`term_id`,`course_id`)
);
--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `sign_off_policy` enum('none','term','strict','anew') NOT NULL;--> statement-breakpoint
ALTER TABLE `review` ADD `answers` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `sign_off` ADD `alternatives` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `sign_off` ADD `together` varchar(36);--> statement-breakpoint
ALTER TABLE `term` ADD `intentions_due_at` datetime(3);--> statement-breakpoint
ALTER TABLE `program_version` ADD `review` json DEFAULT ('{"covers":"term","questions":[]}') NOT NULL;--> statement-breakpoint
ALTER TABLE `program_sign_off` ADD CONSTRAINT `program_sign_off_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `program_sign_off` ADD CONSTRAINT `program_sign_off_program_id_program_id_fk` FOREIGN KEY (`program_id`) REFERENCES `program`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `intention` ADD CONSTRAINT `intention_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `intention` ADD CONSTRAINT `intention_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `intention` ADD CONSTRAINT `intention_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `intention_term` ON `intention` (`term_id`);