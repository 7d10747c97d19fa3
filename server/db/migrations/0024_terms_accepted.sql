CREATE TABLE `agreement` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`text` text NOT NULL,
	`accepted_at` datetime(3) NOT NULL,
	`by_id` int NOT NULL,
	CONSTRAINT `agreement_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `term` ADD `agreement` text;--> statement-breakpoint
ALTER TABLE `agreement` ADD CONSTRAINT `agreement_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `agreement` ADD CONSTRAINT `agreement_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `agreement` ADD CONSTRAINT `agreement_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `agreement_student` ON `agreement` (`student_id`,`term_id`);