CREATE TABLE `graduation` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`program_version_id` int NOT NULL,
	`term_id` int NOT NULL,
	`state` enum('asked','awarded','withdrawn') NOT NULL,
	`live` boolean,
	`asked_at` datetime(3) NOT NULL,
	`awarded_at` datetime(3),
	`awarded_by_id` int,
	CONSTRAINT `graduation_id` PRIMARY KEY(`id`),
	CONSTRAINT `graduation_live` UNIQUE(`student_id`,`live`)
);
--> statement-breakpoint
CREATE TABLE `transcript_order` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`recipient` varchar(120) NOT NULL,
	`email` varchar(160) NOT NULL,
	`after_term_id` int,
	`state` enum('waiting','sent','withdrawn') NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`sent_at` datetime(3),
	CONSTRAINT `transcript_order_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `term` ADD `graduate_by` datetime(3);--> statement-breakpoint
ALTER TABLE `hold` ADD `stops_transcript` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `hold_kind` ADD `stops_transcript` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `graduation` ADD CONSTRAINT `graduation_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `graduation` ADD CONSTRAINT `graduation_program_version_id_program_version_id_fk` FOREIGN KEY (`program_version_id`) REFERENCES `program_version`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `graduation` ADD CONSTRAINT `graduation_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `graduation` ADD CONSTRAINT `graduation_awarded_by_id_account_id_fk` FOREIGN KEY (`awarded_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transcript_order` ADD CONSTRAINT `transcript_order_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transcript_order` ADD CONSTRAINT `transcript_order_after_term_id_term_id_fk` FOREIGN KEY (`after_term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `graduation_state` ON `graduation` (`state`);--> statement-breakpoint
CREATE INDEX `transcript_order_student` ON `transcript_order` (`student_id`);--> statement-breakpoint
CREATE INDEX `transcript_order_state` ON `transcript_order` (`state`);