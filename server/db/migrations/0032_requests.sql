CREATE TABLE `request` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`kind` enum('prerequisite','corequisite','clash','full','reserved','restriction','load','consent','late','waiver','need','substitution') NOT NULL,
	`section_id` int,
	`course_id` int,
	`program_version_id` int,
	`need_id` varchar(40),
	`state` enum('asked','given','declined','withdrawn') NOT NULL,
	`reason` varchar(400) NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`against` json,
	`waits_for` enum('programAdvisor','instructor','department','registrar') NOT NULL,
	`by_id` int,
	`decided_at` datetime(3),
	`words` varchar(400),
	`until` datetime(3),
	CONSTRAINT `request_id` PRIMARY KEY(`id`),
	CONSTRAINT `request_about` CHECK((`request`.`section_id` is null) = (`request`.`kind` in ('waiver', 'need', 'substitution'))
        and (`request`.`course_id` is not null) = (`request`.`kind` in ('waiver', 'substitution'))
        and (`request`.`program_version_id` is not null) = (`request`.`kind` in ('need', 'substitution'))
        and (`request`.`need_id` is null) = (`request`.`program_version_id` is null))
);
--> statement-breakpoint
CREATE TABLE `request_handed_on` (
	`id` int AUTO_INCREMENT NOT NULL,
	`request_id` int NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`handed_to` enum('programAdvisor','instructor','department','registrar') NOT NULL,
	`words` varchar(400),
	CONSTRAINT `request_handed_on_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `department` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `department_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
INSERT INTO `request` (`id`, `student_id`, `kind`, `section_id`, `state`, `reason`, `asked_at`, `against`, `waits_for`, `by_id`, `decided_at`, `words`, `until`)
	SELECT `id`, `student_id`,
		IF(`kind` = 'full' AND JSON_VALUE(`against`, '$.code') = 'reserved', 'reserved', `kind`),
		`section_id`, `state`, `reason`, `asked_at`, `against`,
		IF(`forwarded_at` IS NOT NULL OR `kind` IN ('full', 'consent'), 'registrar', 'programAdvisor'),
		`by_id`, `decided_at`, `words`, `until`
	FROM `permission`;--> statement-breakpoint
INSERT INTO `request_handed_on` (`request_id`, `by_id`, `at`, `handed_to`)
	SELECT `id`, `forwarded_by_id`, `forwarded_at`, 'registrar' FROM `permission`
	WHERE `forwarded_at` IS NOT NULL AND `forwarded_by_id` IS NOT NULL;--> statement-breakpoint
INSERT INTO `request` (`student_id`, `kind`, `course_id`, `state`, `reason`, `asked_at`, `waits_for`, `by_id`, `decided_at`)
	SELECT `student_id`, 'waiver', `course_id`, IF(`state` = 'granted', 'given', `state`), `reason`, `asked_at`,
		'programAdvisor', `answered_by_id`, `answered_at`
	FROM `waiver` ORDER BY `id`;--> statement-breakpoint
DROP TABLE `permission`;--> statement-breakpoint
DROP TABLE `waiver`;--> statement-breakpoint
ALTER TABLE `account` MODIFY COLUMN `role` enum('student','programAdvisor','supportAdvisor','registrar','instructor','department') NOT NULL;--> statement-breakpoint
ALTER TABLE `subject` ADD `department_id` int;--> statement-breakpoint
ALTER TABLE `institution` ADD `request_policy` json;--> statement-breakpoint
ALTER TABLE `account` ADD `instructor_id` int;--> statement-breakpoint
ALTER TABLE `account` ADD `department_id` int;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_program_version_id_program_version_id_fk` FOREIGN KEY (`program_version_id`) REFERENCES `program_version`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request_handed_on` ADD CONSTRAINT `request_handed_on_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request_handed_on` ADD CONSTRAINT `request_handed_on_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `request_student` ON `request` (`student_id`,`section_id`);--> statement-breakpoint
CREATE INDEX `request_state` ON `request` (`state`,`waits_for`);--> statement-breakpoint
CREATE INDEX `request_handed_on_request` ON `request_handed_on` (`request_id`);--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_instructor` CHECK (`account`.`instructor_id` is null or `account`.`role` = 'instructor');--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_department` CHECK (`account`.`department_id` is null or `account`.`role` = 'department');--> statement-breakpoint
ALTER TABLE `subject` ADD CONSTRAINT `subject_department_id_department_id_fk` FOREIGN KEY (`department_id`) REFERENCES `department`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_instructor_id_instructor_id_fk` FOREIGN KEY (`instructor_id`) REFERENCES `instructor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_department_id_department_id_fk` FOREIGN KEY (`department_id`) REFERENCES `department`(`id`) ON DELETE no action ON UPDATE no action;