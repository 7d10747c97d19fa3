CREATE TABLE `agreed` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`what` varchar(200) NOT NULL,
	`who` enum('student','programAdvisor','supportAdvisor') NOT NULL,
	`due_on` date,
	`made_by_id` int NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`done_at` datetime(3),
	`done_by_id` int,
	`dropped_at` datetime(3),
	CONSTRAINT `agreed_id` PRIMARY KEY(`id`),
	CONSTRAINT `agreed_done` CHECK((`agreed`.`done_at` is null) = (`agreed`.`done_by_id` is null))
);
--> statement-breakpoint
CREATE TABLE `remark` (
	`id` int AUTO_INCREMENT NOT NULL,
	`thread_id` int NOT NULL,
	`author_id` int NOT NULL,
	`text` varchar(2000) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `remark_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `review` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`note` varchar(1000),
	`asked_at` datetime(3) NOT NULL,
	`withdrawn_at` datetime(3),
	`answer` enum('signedOff','notYet'),
	`missing` varchar(1000),
	`answered_by_id` int,
	`answered_at` datetime(3),
	CONSTRAINT `review_id` PRIMARY KEY(`id`),
	CONSTRAINT `review_answered` CHECK((`review`.`answer` is null) = (`review`.`answered_by_id` is null) and (`review`.`answer` is null) = (`review`.`answered_at` is null)),
	CONSTRAINT `review_missing` CHECK((`review`.`answer` is not null and `review`.`answer` = 'notYet') = (`review`.`missing` is not null))
);
--> statement-breakpoint
CREATE TABLE `thread` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`about` enum('route','term','course','need','section') NOT NULL,
	`about_key` varchar(80),
	`advisors_only` boolean NOT NULL DEFAULT false,
	`settled_at` datetime(3),
	`settled_by_id` int,
	CONSTRAINT `thread_id` PRIMARY KEY(`id`),
	CONSTRAINT `thread_about` CHECK((`thread`.`about` = 'route') = (`thread`.`about_key` is null)),
	CONSTRAINT `thread_settled` CHECK((`thread`.`settled_at` is null) = (`thread`.`settled_by_id` is null))
);
--> statement-breakpoint
CREATE TABLE `thread_read` (
	`account_id` int NOT NULL,
	`thread_id` int NOT NULL,
	`remark_id` int NOT NULL,
	CONSTRAINT `thread_read_account_id_thread_id_pk` PRIMARY KEY(`account_id`,`thread_id`)
);
--> statement-breakpoint
ALTER TABLE `sign_off` ADD `conditions` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `sign_off` ADD `until` datetime(3);--> statement-breakpoint
ALTER TABLE `agreed` ADD CONSTRAINT `agreed_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `agreed` ADD CONSTRAINT `agreed_made_by_id_account_id_fk` FOREIGN KEY (`made_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `agreed` ADD CONSTRAINT `agreed_done_by_id_account_id_fk` FOREIGN KEY (`done_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `remark` ADD CONSTRAINT `remark_thread_id_thread_id_fk` FOREIGN KEY (`thread_id`) REFERENCES `thread`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `remark` ADD CONSTRAINT `remark_author_id_account_id_fk` FOREIGN KEY (`author_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `review` ADD CONSTRAINT `review_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `review` ADD CONSTRAINT `review_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `review` ADD CONSTRAINT `review_answered_by_id_account_id_fk` FOREIGN KEY (`answered_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `thread` ADD CONSTRAINT `thread_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `thread` ADD CONSTRAINT `thread_settled_by_id_account_id_fk` FOREIGN KEY (`settled_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `thread_read` ADD CONSTRAINT `thread_read_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `thread_read` ADD CONSTRAINT `thread_read_thread_id_thread_id_fk` FOREIGN KEY (`thread_id`) REFERENCES `thread`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `thread_read` ADD CONSTRAINT `thread_read_remark_id_remark_id_fk` FOREIGN KEY (`remark_id`) REFERENCES `remark`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `agreed_student` ON `agreed` (`student_id`);--> statement-breakpoint
CREATE INDEX `remark_thread` ON `remark` (`thread_id`);--> statement-breakpoint
CREATE INDEX `review_student` ON `review` (`student_id`,`term_id`);--> statement-breakpoint
CREATE INDEX `thread_student` ON `thread` (`student_id`);--> statement-breakpoint
INSERT INTO `review` (`student_id`, `term_id`, `asked_at`) SELECT `r`.`student_id`, (SELECT `t`.`id` FROM `term` `t` WHERE `t`.`starts_on` > date(`r`.`review_asked_at`) ORDER BY `t`.`starts_on` LIMIT 1), `r`.`review_asked_at` FROM `route` `r` WHERE `r`.`review_asked_at` IS NOT NULL AND `r`.`chosen` AND EXISTS (SELECT 1 FROM `term` `t` WHERE `t`.`starts_on` > date(`r`.`review_asked_at`));--> statement-breakpoint
INSERT INTO `thread` (`id`, `student_id`, `about`) SELECT `id`, `student_id`, 'route' FROM `message`;--> statement-breakpoint
INSERT INTO `remark` (`thread_id`, `author_id`, `text`, `at`) SELECT `id`, `author_id`, left(`text`, 2000), `at` FROM `message`;--> statement-breakpoint
ALTER TABLE `route` DROP COLUMN `review_asked_at`;