CREATE TABLE `student_term` (
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`carry_credits` decimal(4,1),
	`carry_hours` smallint,
	`away` enum('exchange','leave'),
	CONSTRAINT `student_term_student_id_term_id_pk` PRIMARY KEY(`student_id`,`term_id`)
);
--> statement-breakpoint
CREATE TABLE `route_step` (
	`route_id` int NOT NULL,
	`version` int NOT NULL,
	`kind` enum('do','undo','redo') NOT NULL,
	`of_version` int,
	`change` json NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` int NOT NULL,
	CONSTRAINT `route_step_route_id_version_pk` PRIMARY KEY(`route_id`,`version`)
);
--> statement-breakpoint
ALTER TABLE `student` ADD `carry_credits` decimal(4,1);--> statement-breakpoint
ALTER TABLE `student` ADD `carry_hours` smallint;--> statement-breakpoint
ALTER TABLE `student` ADD `outside_hours` smallint;--> statement-breakpoint
ALTER TABLE `route` ADD `note` varchar(400);--> statement-breakpoint
ALTER TABLE `route` ADD `advisor_may_edit` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `route` ADD `seen_at` datetime(3);--> statement-breakpoint
ALTER TABLE `route` ADD `seen_by` int;--> statement-breakpoint
ALTER TABLE `route` ADD `seen_version` int;--> statement-breakpoint
ALTER TABLE `student_term` ADD CONSTRAINT `student_term_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student_term` ADD CONSTRAINT `student_term_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `route_step` ADD CONSTRAINT `route_step_route_id_route_id_fk` FOREIGN KEY (`route_id`) REFERENCES `route`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `route_step` ADD CONSTRAINT `route_step_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `route` ADD CONSTRAINT `route_seen_by_account_id_fk` FOREIGN KEY (`seen_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;