CREATE TABLE `prepared_sheet` (
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`order` json NOT NULL,
	`left_out` json NOT NULL,
	`whole` boolean NOT NULL,
	`armed_at` datetime(3),
	`lot` int,
	`leased_until` datetime(3),
	CONSTRAINT `prepared_sheet_student_id_term_id_pk` PRIMARY KEY(`student_id`,`term_id`)
);
--> statement-breakpoint
ALTER TABLE `term` ADD `arming` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt` ADD `armed` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `prepared_sheet` ADD CONSTRAINT `prepared_sheet_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `prepared_sheet` ADD CONSTRAINT `prepared_sheet_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `prepared_sheet_armed` ON `prepared_sheet` (`armed_at`);