CREATE TABLE `group_member` (
	`session_id` int NOT NULL,
	`student_id` int NOT NULL,
	`suggestion_id` int,
	`agreed_id` int,
	`without` json NOT NULL,
	CONSTRAINT `group_member_session_id_student_id_pk` PRIMARY KEY(`session_id`,`student_id`)
);
--> statement-breakpoint
CREATE TABLE `group_session` (
	`id` int AUTO_INCREMENT NOT NULL,
	`by_id` int NOT NULL,
	`title` varchar(80) NOT NULL,
	`term_id` int NOT NULL,
	`courses` json NOT NULL,
	`sequence` boolean NOT NULL,
	`task` varchar(200),
	`due_on` date,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `group_session_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `group_member` ADD CONSTRAINT `group_member_session_id_group_session_id_fk` FOREIGN KEY (`session_id`) REFERENCES `group_session`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `group_member` ADD CONSTRAINT `group_member_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `group_member` ADD CONSTRAINT `group_member_suggestion_id_suggestion_id_fk` FOREIGN KEY (`suggestion_id`) REFERENCES `suggestion`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `group_member` ADD CONSTRAINT `group_member_agreed_id_agreed_id_fk` FOREIGN KEY (`agreed_id`) REFERENCES `agreed`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `group_session` ADD CONSTRAINT `group_session_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `group_session` ADD CONSTRAINT `group_session_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `group_member_student` ON `group_member` (`student_id`);--> statement-breakpoint
CREATE INDEX `group_session_by` ON `group_session` (`by_id`);