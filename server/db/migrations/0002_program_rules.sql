CREATE TABLE `milestone` (
	`student_id` int NOT NULL,
	`condition` varchar(40) NOT NULL,
	`reached_on` date NOT NULL,
	CONSTRAINT `milestone_student_id_condition_pk` PRIMARY KEY(`student_id`,`condition`)
);
--> statement-breakpoint
CREATE TABLE `course_list` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(40) NOT NULL,
	`catalog_year` varchar(9) NOT NULL,
	`title` varchar(120) NOT NULL,
	`from_text` text NOT NULL,
	CONSTRAINT `course_list_id` PRIMARY KEY(`id`),
	CONSTRAINT `course_list_year` UNIQUE(`name`,`catalog_year`)
);
--> statement-breakpoint
ALTER TABLE `record_course` ADD `campus_id` int;--> statement-breakpoint
ALTER TABLE `record_course` ADD `mode` enum('inPerson','onlineHours','online','mixed');--> statement-breakpoint
ALTER TABLE `program_version` ADD `rules` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
ALTER TABLE `milestone` ADD CONSTRAINT `milestone_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `record_course` ADD CONSTRAINT `record_course_campus_id_campus_id_fk` FOREIGN KEY (`campus_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;