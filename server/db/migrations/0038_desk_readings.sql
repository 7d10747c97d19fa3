CREATE TABLE `desk_reading` (
	`student_id` int NOT NULL,
	`print` varchar(44) NOT NULL,
	`reading` mediumtext NOT NULL,
	CONSTRAINT `desk_reading_student_id` PRIMARY KEY(`student_id`)
);
--> statement-breakpoint
ALTER TABLE `desk_reading` ADD CONSTRAINT `desk_reading_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;