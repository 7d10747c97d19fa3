CREATE TABLE `section_suggestion` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`course_id` int NOT NULL,
	`sections` json NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`number` int NOT NULL,
	`state` enum('waiting','accepted','declined','withdrawn') NOT NULL,
	`answered_by_id` int,
	`answered_at` datetime(3),
	CONSTRAINT `section_suggestion_id` PRIMARY KEY(`id`),
	CONSTRAINT `section_suggestion_answered` CHECK((`section_suggestion`.`state` in ('accepted', 'declined')) = (`section_suggestion`.`answered_by_id` is not null)),
	CONSTRAINT `section_suggestion_at` CHECK((`section_suggestion`.`answered_by_id` is null) = (`section_suggestion`.`answered_at` is null))
);
--> statement-breakpoint
ALTER TABLE `section_suggestion` ADD CONSTRAINT `section_suggestion_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_suggestion` ADD CONSTRAINT `section_suggestion_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_suggestion` ADD CONSTRAINT `section_suggestion_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_suggestion` ADD CONSTRAINT `section_suggestion_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_suggestion` ADD CONSTRAINT `section_suggestion_answered_by_id_account_id_fk` FOREIGN KEY (`answered_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `section_suggestion_student` ON `section_suggestion` (`student_id`);