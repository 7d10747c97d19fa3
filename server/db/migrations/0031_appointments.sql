CREATE TABLE `advisor_away` (
	`id` int AUTO_INCREMENT NOT NULL,
	`advisor_id` int NOT NULL,
	`from_date` date NOT NULL,
	`to_date` date NOT NULL,
	CONSTRAINT `advisor_away_id` PRIMARY KEY(`id`),
	CONSTRAINT `advisor_away_order` CHECK(`advisor_away`.`from_date` <= `advisor_away`.`to_date`)
);
--> statement-breakpoint
CREATE TABLE `advisor_calendar` (
	`advisor_id` int NOT NULL,
	`key` varchar(40) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	CONSTRAINT `advisor_calendar_advisor_id` PRIMARY KEY(`advisor_id`),
	CONSTRAINT `advisor_calendar_key` UNIQUE(`key`)
);
--> statement-breakpoint
CREATE TABLE `appointment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`advisor_id` int NOT NULL,
	`starts_at` datetime(3) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`place` varchar(160) NOT NULL,
	`about` varchar(400),
	`bring` varchar(400),
	`state` enum('invited','booked','declined','cancelled') NOT NULL,
	`active` boolean,
	`sequence` smallint NOT NULL DEFAULT 0,
	`changed_by_id` int NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	`words` varchar(400),
	`reminded_at` datetime(3),
	CONSTRAINT `appointment_id` PRIMARY KEY(`id`),
	CONSTRAINT `appointment_once` UNIQUE(`advisor_id`,`starts_at`,`active`),
	CONSTRAINT `appointment_order` CHECK(`appointment`.`starts_at` < `appointment`.`ends_at`),
	CONSTRAINT `appointment_active` CHECK((`appointment`.`state` in ('invited', 'booked')) = (`appointment`.`active` is not null) and (`appointment`.`active` is null or `appointment`.`active` = true))
);
--> statement-breakpoint
CREATE TABLE `offered_time` (
	`id` int AUTO_INCREMENT NOT NULL,
	`advisor_id` int NOT NULL,
	`weekday` smallint,
	`on_date` date,
	`starts_min` smallint NOT NULL,
	`ends_min` smallint NOT NULL,
	`length_min` smallint NOT NULL,
	`place` varchar(160) NOT NULL,
	`from_date` date,
	`until_date` date,
	CONSTRAINT `offered_time_id` PRIMARY KEY(`id`),
	CONSTRAINT `offered_time_when` CHECK((`offered_time`.`weekday` is null) <> (`offered_time`.`on_date` is null)),
	CONSTRAINT `offered_time_hours` CHECK(`offered_time`.`starts_min` + `offered_time`.`length_min` <= `offered_time`.`ends_min`)
);
--> statement-breakpoint
CREATE TABLE `talk_record` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`by_id` int NOT NULL,
	`on_date` date NOT NULL,
	`how` enum('inPerson','byPhone','byVideo','byMail') NOT NULL,
	`summary` varchar(2000) NOT NULL,
	`written_at` datetime(3) NOT NULL,
	CONSTRAINT `talk_record_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `advisor_away` ADD CONSTRAINT `advisor_away_advisor_id_advisor_id_fk` FOREIGN KEY (`advisor_id`) REFERENCES `advisor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `advisor_calendar` ADD CONSTRAINT `advisor_calendar_advisor_id_advisor_id_fk` FOREIGN KEY (`advisor_id`) REFERENCES `advisor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `appointment` ADD CONSTRAINT `appointment_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `appointment` ADD CONSTRAINT `appointment_advisor_id_advisor_id_fk` FOREIGN KEY (`advisor_id`) REFERENCES `advisor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `appointment` ADD CONSTRAINT `appointment_changed_by_id_account_id_fk` FOREIGN KEY (`changed_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `offered_time` ADD CONSTRAINT `offered_time_advisor_id_advisor_id_fk` FOREIGN KEY (`advisor_id`) REFERENCES `advisor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `talk_record` ADD CONSTRAINT `talk_record_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `talk_record` ADD CONSTRAINT `talk_record_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `advisor_away_advisor` ON `advisor_away` (`advisor_id`);--> statement-breakpoint
CREATE INDEX `appointment_student` ON `appointment` (`student_id`,`starts_at`);--> statement-breakpoint
CREATE INDEX `appointment_due` ON `appointment` (`active`,`starts_at`);--> statement-breakpoint
CREATE INDEX `offered_time_advisor` ON `offered_time` (`advisor_id`);--> statement-breakpoint
CREATE INDEX `talk_record_student` ON `talk_record` (`student_id`);