CREATE TABLE `offered_seat` (
	`offer_id` int NOT NULL,
	`section_id` int NOT NULL,
	CONSTRAINT `offered_seat_offer_id_section_id_pk` PRIMARY KEY(`offer_id`,`section_id`)
);
--> statement-breakpoint
CREATE TABLE `seat_offer` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`course_id` int NOT NULL,
	`sections` json NOT NULL,
	`offered_at` datetime(3) NOT NULL,
	`until` datetime(3) NOT NULL,
	`answer` enum('accepted','declined','lapsed'),
	`answered_at` datetime(3),
	CONSTRAINT `seat_offer_id` PRIMARY KEY(`id`),
	CONSTRAINT `seat_offer_until` CHECK(`seat_offer`.`until` > `seat_offer`.`offered_at`)
);
--> statement-breakpoint
ALTER TABLE `offered_seat` ADD CONSTRAINT `offered_seat_offer_id_seat_offer_id_fk` FOREIGN KEY (`offer_id`) REFERENCES `seat_offer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `offered_seat` ADD CONSTRAINT `offered_seat_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seat_offer` ADD CONSTRAINT `seat_offer_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seat_offer` ADD CONSTRAINT `seat_offer_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seat_offer` ADD CONSTRAINT `seat_offer_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `offered_seat_section` ON `offered_seat` (`section_id`);--> statement-breakpoint
CREATE INDEX `seat_offer_student` ON `seat_offer` (`student_id`);--> statement-breakpoint
CREATE INDEX `seat_offer_until` ON `seat_offer` (`answer`,`until`);