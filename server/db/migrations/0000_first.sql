CREATE TABLE `exception` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`kind` enum('waiver','substitution') NOT NULL,
	`program_version_id` int NOT NULL,
	`need_id` varchar(40) NOT NULL,
	`course_id` int,
	`reason` varchar(400) NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `exception_id` PRIMARY KEY(`id`),
	CONSTRAINT `exception_course` CHECK((`exception`.`kind` = 'substitution') = (`exception`.`course_id` is not null))
);
--> statement-breakpoint
CREATE TABLE `message` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`author_id` int NOT NULL,
	`text` text NOT NULL,
	`at` datetime(3) NOT NULL,
	`read_at` datetime(3),
	CONSTRAINT `message_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `permission` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`section_id` int NOT NULL,
	`kind` enum('prerequisite','clash','full','load','consent') NOT NULL,
	`state` enum('asked','given','declined','withdrawn') NOT NULL,
	`reason` varchar(400) NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`by_id` int,
	`decided_at` datetime(3),
	`until` datetime(3),
	CONSTRAINT `permission_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `sign_off` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`route_id` int NOT NULL,
	`term_id` int NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`courses` json NOT NULL,
	`credits_least` decimal(4,1) NOT NULL,
	`credits_most` decimal(4,1) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `sign_off_id` PRIMARY KEY(`id`),
	CONSTRAINT `sign_off_range` CHECK(`sign_off`.`credits_least` <= `sign_off`.`credits_most`)
);
--> statement-breakpoint
CREATE TABLE `campus_clock` (
	`id` int NOT NULL,
	`mode` enum('standing','running','real') NOT NULL,
	`campus_at` datetime(3) NOT NULL,
	`set_at` datetime(3) NOT NULL,
	CONSTRAINT `campus_clock_id` PRIMARY KEY(`id`),
	CONSTRAINT `campus_clock_single` CHECK(`campus_clock`.`id` = 1)
);
--> statement-breakpoint
CREATE TABLE `holiday` (
	`id` int AUTO_INCREMENT NOT NULL,
	`term_id` int NOT NULL,
	`on_date` date NOT NULL,
	`name` varchar(60) NOT NULL,
	CONSTRAINT `holiday_id` PRIMARY KEY(`id`),
	CONSTRAINT `holiday_date` UNIQUE(`term_id`,`on_date`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`id` int AUTO_INCREMENT NOT NULL,
	`term_id` int NOT NULL,
	`code` varchar(8) NOT NULL,
	`name` varchar(60) NOT NULL,
	`half` enum('full','first','second','other') NOT NULL,
	`starts_on` date NOT NULL,
	`ends_on` date NOT NULL,
	CONSTRAINT `session_id` PRIMARY KEY(`id`),
	CONSTRAINT `session_code` UNIQUE(`term_id`,`code`),
	CONSTRAINT `session_dates` CHECK(`session`.`starts_on` <= `session`.`ends_on`)
);
--> statement-breakpoint
CREATE TABLE `term` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(4) NOT NULL,
	`name` varchar(40) NOT NULL,
	`season` enum('autumn','spring','summer') NOT NULL,
	`year` smallint NOT NULL,
	`starts_on` date NOT NULL,
	`ends_on` date NOT NULL,
	`published` boolean NOT NULL,
	`add_ends_at` datetime(3) NOT NULL,
	`drop_ends_at` datetime(3) NOT NULL,
	`payment_due_on` date NOT NULL,
	`load_most` decimal(4,1) NOT NULL,
	`sign_off_policy` enum('none','term','strict') NOT NULL,
	`waitlist_policy` enum('offer','automatic') NOT NULL,
	CONSTRAINT `term_id` PRIMARY KEY(`id`),
	CONSTRAINT `term_code` UNIQUE(`code`),
	CONSTRAINT `term_dates` CHECK(`term`.`starts_on` < `term`.`ends_on`)
);
--> statement-breakpoint
CREATE TABLE `category` (
	`id` int AUTO_INCREMENT NOT NULL,
	`family` varchar(40) NOT NULL,
	`code` varchar(24) NOT NULL,
	`title` varchar(80) NOT NULL,
	CONSTRAINT `category_id` PRIMARY KEY(`id`),
	CONSTRAINT `category_code` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `course` (
	`id` int AUTO_INCREMENT NOT NULL,
	`subject_id` int NOT NULL,
	`code` varchar(12) NOT NULL,
	`title` varchar(120) NOT NULL,
	`description` text NOT NULL,
	`credits` decimal(4,1) NOT NULL,
	`credits_most` decimal(4,1) NOT NULL,
	`level` enum('undergraduate','graduate') NOT NULL,
	`year_level` tinyint NOT NULL,
	`seasons` json NOT NULL,
	`years` enum('every','odd','even') NOT NULL,
	`prerequisite` varchar(500) NOT NULL,
	`repeatable` boolean NOT NULL,
	`fee` decimal(9,2) NOT NULL,
	CONSTRAINT `course_id` PRIMARY KEY(`id`),
	CONSTRAINT `course_code` UNIQUE(`code`),
	CONSTRAINT `course_credits` CHECK(`course`.`credits` > 0 and `course`.`credits_most` >= `course`.`credits`)
);
--> statement-breakpoint
CREATE TABLE `course_category` (
	`course_id` int NOT NULL,
	`category_id` int NOT NULL,
	CONSTRAINT `course_category_course_id_category_id_pk` PRIMARY KEY(`course_id`,`category_id`)
);
--> statement-breakpoint
CREATE TABLE `course_relation` (
	`course_id` int NOT NULL,
	`other_id` int NOT NULL,
	`kind` enum('equivalent','exclusive','supportLab') NOT NULL,
	CONSTRAINT `course_relation_course_id_other_id_kind_pk` PRIMARY KEY(`course_id`,`other_id`,`kind`)
);
--> statement-breakpoint
CREATE TABLE `subject` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(5) NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `subject_id` PRIMARY KEY(`id`),
	CONSTRAINT `subject_code` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `building` (
	`id` int AUTO_INCREMENT NOT NULL,
	`campus_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `building_id` PRIMARY KEY(`id`),
	CONSTRAINT `building_name` UNIQUE(`campus_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `campus` (
	`id` int AUTO_INCREMENT NOT NULL,
	`institution_id` int NOT NULL,
	`code` varchar(12) NOT NULL,
	`name` varchar(80) NOT NULL,
	`time_zone` varchar(64),
	CONSTRAINT `campus_id` PRIMARY KEY(`id`),
	CONSTRAINT `campus_code` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `campus_travel` (
	`from_id` int NOT NULL,
	`to_id` int NOT NULL,
	`minutes` smallint NOT NULL,
	CONSTRAINT `campus_travel_from_id_to_id_pk` PRIMARY KEY(`from_id`,`to_id`)
);
--> statement-breakpoint
CREATE TABLE `institution` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(120) NOT NULL,
	`time_zone` varchar(64) NOT NULL,
	CONSTRAINT `institution_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `room` (
	`id` int AUTO_INCREMENT NOT NULL,
	`building_id` int NOT NULL,
	`name` varchar(40) NOT NULL,
	`seats` smallint NOT NULL,
	CONSTRAINT `room_id` PRIMARY KEY(`id`),
	CONSTRAINT `room_name` UNIQUE(`building_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `charge` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`title` varchar(120) NOT NULL,
	`amount` decimal(9,2) NOT NULL,
	`due_on` date NOT NULL,
	CONSTRAINT `charge_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `event_log` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at` datetime(3) NOT NULL,
	`account_id` int,
	`student_id` int,
	`action` varchar(40) NOT NULL,
	`before` json,
	`after` json,
	CONSTRAINT `event_log_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `payment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`amount` decimal(9,2) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `payment_id` PRIMARY KEY(`id`),
	CONSTRAINT `payment_amount` CHECK(`payment`.`amount` > 0)
);
--> statement-breakpoint
CREATE TABLE `block` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(16) NOT NULL,
	`title` varchar(60) NOT NULL,
	`program_code` varchar(8) NOT NULL,
	`year_level` smallint NOT NULL,
	CONSTRAINT `block_id` PRIMARY KEY(`id`),
	CONSTRAINT `block_code` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `instructor` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`mail` varchar(120) NOT NULL,
	CONSTRAINT `instructor_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `meeting` (
	`id` int AUTO_INCREMENT NOT NULL,
	`section_id` int NOT NULL,
	`days` varchar(7) NOT NULL,
	`starts_min` smallint NOT NULL,
	`ends_min` smallint NOT NULL,
	`from_on` date NOT NULL,
	`to_on` date NOT NULL,
	`room_id` int,
	CONSTRAINT `meeting_id` PRIMARY KEY(`id`),
	CONSTRAINT `meeting_hours` CHECK(`meeting`.`starts_min` >= 0 and `meeting`.`starts_min` < `meeting`.`ends_min` and `meeting`.`ends_min` <= 1440),
	CONSTRAINT `meeting_dates` CHECK(`meeting`.`from_on` <= `meeting`.`to_on`)
);
--> statement-breakpoint
CREATE TABLE `reserved_seats` (
	`id` int AUTO_INCREMENT NOT NULL,
	`section_id` int NOT NULL,
	`program_code` varchar(8),
	`block_id` int,
	`seats` smallint NOT NULL,
	CONSTRAINT `reserved_seats_id` PRIMARY KEY(`id`),
	CONSTRAINT `reserved_for` CHECK((`reserved_seats`.`program_code` is null) <> (`reserved_seats`.`block_id` is null))
);
--> statement-breakpoint
CREATE TABLE `section` (
	`id` int AUTO_INCREMENT NOT NULL,
	`course_id` int NOT NULL,
	`term_id` int NOT NULL,
	`session_id` int NOT NULL,
	`number` varchar(6) NOT NULL,
	`code` varchar(5) NOT NULL,
	`kind` enum('lecture','lab','tutorial','seminar','studio') NOT NULL,
	`parent_id` int,
	`campus_id` int NOT NULL,
	`mode` enum('inPerson','onlineHours','online','mixed') NOT NULL,
	`credits` decimal(4,1) NOT NULL,
	`topic` varchar(120),
	`capacity` smallint NOT NULL,
	`taken` smallint NOT NULL DEFAULT 0,
	`wait_capacity` smallint NOT NULL,
	`waiting` smallint NOT NULL DEFAULT 0,
	`block_id` int,
	`office_only` boolean NOT NULL DEFAULT false,
	`permission_needed` boolean NOT NULL DEFAULT false,
	`cancelled` boolean NOT NULL DEFAULT false,
	`only_for` json,
	`fee` decimal(9,2) NOT NULL,
	CONSTRAINT `section_id` PRIMARY KEY(`id`),
	CONSTRAINT `section_code` UNIQUE(`code`),
	CONSTRAINT `section_number` UNIQUE(`term_id`,`course_id`,`number`),
	CONSTRAINT `section_taken` CHECK(`section`.`taken` >= 0 and `section`.`taken` <= `section`.`capacity`),
	CONSTRAINT `section_waiting` CHECK(`section`.`waiting` >= 0 and `section`.`waiting` <= `section`.`wait_capacity`)
);
--> statement-breakpoint
CREATE TABLE `section_instructor` (
	`section_id` int NOT NULL,
	`instructor_id` int NOT NULL,
	CONSTRAINT `section_instructor_section_id_instructor_id_pk` PRIMARY KEY(`section_id`,`instructor_id`)
);
--> statement-breakpoint
CREATE TABLE `account` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(80) NOT NULL,
	`sign_in` varchar(60) NOT NULL,
	`password_hash` varchar(200) NOT NULL,
	`role` enum('student','programAdvisor','supportAdvisor','registrar') NOT NULL,
	`situation` varchar(160),
	CONSTRAINT `account_id` PRIMARY KEY(`id`),
	CONSTRAINT `account_sign_in` UNIQUE(`sign_in`)
);
--> statement-breakpoint
CREATE TABLE `advising` (
	`advisor_id` int NOT NULL,
	`student_id` int NOT NULL,
	`purpose` enum('program','support') NOT NULL,
	`since_on` date NOT NULL,
	CONSTRAINT `advising_advisor_id_student_id_pk` PRIMARY KEY(`advisor_id`,`student_id`)
);
--> statement-breakpoint
CREATE TABLE `advisor` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`kind` enum('person','office') NOT NULL,
	`office` varchar(60) NOT NULL,
	`mail` varchar(120) NOT NULL,
	`phone` varchar(40) NOT NULL,
	`hours` varchar(120) NOT NULL,
	CONSTRAINT `advisor_id` PRIMARY KEY(`id`),
	CONSTRAINT `advisor_account` UNIQUE(`account_id`)
);
--> statement-breakpoint
CREATE TABLE `hold` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`title` varchar(80) NOT NULL,
	`office` varchar(80) NOT NULL,
	`how_to_lift` text NOT NULL,
	`amount` decimal(9,2),
	`stops_registration` boolean NOT NULL,
	`placed_at` datetime(3) NOT NULL,
	`lifted_at` datetime(3),
	CONSTRAINT `hold_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `record_course` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`course_id` int NOT NULL,
	`term_id` int,
	`credits` decimal(4,1) NOT NULL,
	`grade` varchar(2),
	`origin` enum('here','transfer','test') NOT NULL,
	CONSTRAINT `record_course_id` PRIMARY KEY(`id`),
	CONSTRAINT `record_course_once` UNIQUE(`student_id`,`course_id`,`term_id`),
	CONSTRAINT `record_course_grade` CHECK(`record_course`.`grade` is not null or `record_course`.`term_id` is not null)
);
--> statement-breakpoint
CREATE TABLE `student` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`number` varchar(10) NOT NULL,
	`standing` enum('freshman','sophomore','junior','senior','graduate') NOT NULL,
	`level` enum('undergraduate','graduate') NOT NULL,
	`home_campus_id` int NOT NULL,
	`block_id` int,
	`attendance` enum('fullTime','partTime','evening','distance') NOT NULL,
	`aid` enum('none','receiving','warning') NOT NULL,
	`aim_term_id` int,
	CONSTRAINT `student_id` PRIMARY KEY(`id`),
	CONSTRAINT `student_account` UNIQUE(`account_id`),
	CONSTRAINT `student_number` UNIQUE(`number`)
);
--> statement-breakpoint
CREATE TABLE `student_program` (
	`student_id` int NOT NULL,
	`program_version_id` int NOT NULL,
	`ordinal` smallint NOT NULL,
	`confirmed` enum('open','confirmed','wrong') NOT NULL DEFAULT 'open',
	`said_instead` varchar(400),
	`said_at` datetime(3),
	CONSTRAINT `student_program_student_id_program_version_id_pk` PRIMARY KEY(`student_id`,`program_version_id`)
);
--> statement-breakpoint
CREATE TABLE `test_score` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`test` varchar(24) NOT NULL,
	`score` smallint NOT NULL,
	`taken_on` date NOT NULL,
	CONSTRAINT `test_score_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `program` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(8) NOT NULL,
	`title` varchar(120) NOT NULL,
	`short_title` varchar(40) NOT NULL,
	`kind` enum('degree','minor','certificate') NOT NULL,
	CONSTRAINT `program_id` PRIMARY KEY(`id`),
	CONSTRAINT `program_code` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `program_version` (
	`id` int AUTO_INCREMENT NOT NULL,
	`program_id` int NOT NULL,
	`catalog_year` varchar(9) NOT NULL,
	`credits` decimal(4,1) NOT NULL,
	`areas` json NOT NULL,
	`obliges` json NOT NULL,
	`suggested` json NOT NULL,
	CONSTRAINT `program_version_id` PRIMARY KEY(`id`),
	CONSTRAINT `program_version_year` UNIQUE(`program_id`,`catalog_year`)
);
--> statement-breakpoint
CREATE TABLE `opening` (
	`id` int AUTO_INCREMENT NOT NULL,
	`term_id` int NOT NULL,
	`title` varchar(120) NOT NULL,
	`opens_at` datetime(3) NOT NULL,
	`standings` json NOT NULL,
	`programs` json NOT NULL,
	`blocks` json NOT NULL,
	`student_id` int,
	CONSTRAINT `opening_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `receipt` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`by_id` int NOT NULL,
	CONSTRAINT `receipt_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `receipt_line` (
	`id` int AUTO_INCREMENT NOT NULL,
	`receipt_id` int NOT NULL,
	`ordinal` smallint NOT NULL,
	`course_id` int NOT NULL,
	`sections` json NOT NULL,
	`outcome` enum('registered','refused','unsettled') NOT NULL,
	`refusals` json NOT NULL,
	CONSTRAINT `receipt_line_id` PRIMARY KEY(`id`),
	CONSTRAINT `receipt_line_order` UNIQUE(`receipt_id`,`ordinal`)
);
--> statement-breakpoint
CREATE TABLE `registration` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`section_id` int NOT NULL,
	`registered_at` datetime(3) NOT NULL,
	`by_id` int NOT NULL,
	`placed_by_office` boolean NOT NULL DEFAULT false,
	CONSTRAINT `registration_id` PRIMARY KEY(`id`),
	CONSTRAINT `registration_once` UNIQUE(`student_id`,`section_id`)
);
--> statement-breakpoint
CREATE TABLE `seat_offer` (
	`id` int AUTO_INCREMENT NOT NULL,
	`waitlist_place_id` int NOT NULL,
	`offered_at` datetime(3) NOT NULL,
	`until` datetime(3) NOT NULL,
	`answer` enum('taken','declined','lapsed'),
	`answered_at` datetime(3),
	CONSTRAINT `seat_offer_id` PRIMARY KEY(`id`),
	CONSTRAINT `seat_offer_until` CHECK(`seat_offer`.`until` > `seat_offer`.`offered_at`)
);
--> statement-breakpoint
CREATE TABLE `waitlist_place` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`section_id` int NOT NULL,
	`joined_at` datetime(3) NOT NULL,
	CONSTRAINT `waitlist_place_id` PRIMARY KEY(`id`),
	CONSTRAINT `waitlist_once` UNIQUE(`student_id`,`section_id`)
);
--> statement-breakpoint
CREATE TABLE `draft_week` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`name` varchar(60) NOT NULL,
	`going_with` boolean,
	CONSTRAINT `draft_week_id` PRIMARY KEY(`id`),
	CONSTRAINT `draft_week_going` UNIQUE(`student_id`,`term_id`,`going_with`),
	CONSTRAINT `draft_week_name` UNIQUE(`student_id`,`term_id`,`name`),
	CONSTRAINT `draft_week_going_or_null` CHECK(`draft_week`.`going_with` is null or `draft_week`.`going_with` = true)
);
--> statement-breakpoint
CREATE TABLE `note` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`author_id` int NOT NULL,
	`route_id` int,
	`term_id` int,
	`course_id` int,
	`visibility` enum('shared','advisors') NOT NULL,
	`text` text NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `note_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `picked_section` (
	`id` int AUTO_INCREMENT NOT NULL,
	`draft_week_id` int NOT NULL,
	`section_id` int NOT NULL,
	CONSTRAINT `picked_section_id` PRIMARY KEY(`id`),
	CONSTRAINT `picked_section_once` UNIQUE(`draft_week_id`,`section_id`)
);
--> statement-breakpoint
CREATE TABLE `planned_course` (
	`id` int AUTO_INCREMENT NOT NULL,
	`route_id` int NOT NULL,
	`course_id` int NOT NULL,
	`term_id` int NOT NULL,
	`credits` decimal(4,1) NOT NULL,
	`note` varchar(400),
	`locked` boolean NOT NULL DEFAULT false,
	CONSTRAINT `planned_course_id` PRIMARY KEY(`id`),
	CONSTRAINT `planned_course_once` UNIQUE(`route_id`,`term_id`,`course_id`)
);
--> statement-breakpoint
CREATE TABLE `route` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`name` varchar(60) NOT NULL,
	`chosen` boolean,
	`version` int NOT NULL DEFAULT 1,
	`changed_at` datetime(3) NOT NULL,
	`changed_by` int NOT NULL,
	`review_asked_at` datetime(3),
	CONSTRAINT `route_id` PRIMARY KEY(`id`),
	CONSTRAINT `route_chosen` UNIQUE(`student_id`,`chosen`),
	CONSTRAINT `route_name` UNIQUE(`student_id`,`name`),
	CONSTRAINT `route_chosen_or_null` CHECK(`route`.`chosen` is null or `route`.`chosen` = true)
);
--> statement-breakpoint
ALTER TABLE `exception` ADD CONSTRAINT `exception_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `exception` ADD CONSTRAINT `exception_program_version_id_program_version_id_fk` FOREIGN KEY (`program_version_id`) REFERENCES `program_version`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `exception` ADD CONSTRAINT `exception_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `exception` ADD CONSTRAINT `exception_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `message` ADD CONSTRAINT `message_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `message` ADD CONSTRAINT `message_author_id_account_id_fk` FOREIGN KEY (`author_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `permission` ADD CONSTRAINT `permission_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `permission` ADD CONSTRAINT `permission_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `permission` ADD CONSTRAINT `permission_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_off` ADD CONSTRAINT `sign_off_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_off` ADD CONSTRAINT `sign_off_route_id_route_id_fk` FOREIGN KEY (`route_id`) REFERENCES `route`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_off` ADD CONSTRAINT `sign_off_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_off` ADD CONSTRAINT `sign_off_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `holiday` ADD CONSTRAINT `holiday_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course` ADD CONSTRAINT `course_subject_id_subject_id_fk` FOREIGN KEY (`subject_id`) REFERENCES `subject`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course_category` ADD CONSTRAINT `course_category_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course_category` ADD CONSTRAINT `course_category_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course_relation` ADD CONSTRAINT `course_relation_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `course_relation` ADD CONSTRAINT `course_relation_other_id_course_id_fk` FOREIGN KEY (`other_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `building` ADD CONSTRAINT `building_campus_id_campus_id_fk` FOREIGN KEY (`campus_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `campus` ADD CONSTRAINT `campus_institution_id_institution_id_fk` FOREIGN KEY (`institution_id`) REFERENCES `institution`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `campus_travel` ADD CONSTRAINT `campus_travel_from_id_campus_id_fk` FOREIGN KEY (`from_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `campus_travel` ADD CONSTRAINT `campus_travel_to_id_campus_id_fk` FOREIGN KEY (`to_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room` ADD CONSTRAINT `room_building_id_building_id_fk` FOREIGN KEY (`building_id`) REFERENCES `building`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge` ADD CONSTRAINT `charge_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge` ADD CONSTRAINT `charge_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_log` ADD CONSTRAINT `event_log_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_log` ADD CONSTRAINT `event_log_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payment` ADD CONSTRAINT `payment_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payment` ADD CONSTRAINT `payment_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `meeting` ADD CONSTRAINT `meeting_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `meeting` ADD CONSTRAINT `meeting_room_id_room_id_fk` FOREIGN KEY (`room_id`) REFERENCES `room`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reserved_seats` ADD CONSTRAINT `reserved_seats_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reserved_seats` ADD CONSTRAINT `reserved_seats_block_id_block_id_fk` FOREIGN KEY (`block_id`) REFERENCES `block`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_session_id_session_id_fk` FOREIGN KEY (`session_id`) REFERENCES `session`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_parent_id_section_id_fk` FOREIGN KEY (`parent_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_campus_id_campus_id_fk` FOREIGN KEY (`campus_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_block_id_block_id_fk` FOREIGN KEY (`block_id`) REFERENCES `block`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_instructor` ADD CONSTRAINT `section_instructor_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `section_instructor` ADD CONSTRAINT `section_instructor_instructor_id_instructor_id_fk` FOREIGN KEY (`instructor_id`) REFERENCES `instructor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `advising` ADD CONSTRAINT `advising_advisor_id_advisor_id_fk` FOREIGN KEY (`advisor_id`) REFERENCES `advisor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `advising` ADD CONSTRAINT `advising_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `advisor` ADD CONSTRAINT `advisor_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `hold` ADD CONSTRAINT `hold_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `record_course` ADD CONSTRAINT `record_course_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `record_course` ADD CONSTRAINT `record_course_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `record_course` ADD CONSTRAINT `record_course_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student` ADD CONSTRAINT `student_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student` ADD CONSTRAINT `student_home_campus_id_campus_id_fk` FOREIGN KEY (`home_campus_id`) REFERENCES `campus`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student` ADD CONSTRAINT `student_block_id_block_id_fk` FOREIGN KEY (`block_id`) REFERENCES `block`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student` ADD CONSTRAINT `student_aim_term_id_term_id_fk` FOREIGN KEY (`aim_term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student_program` ADD CONSTRAINT `student_program_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `student_program` ADD CONSTRAINT `student_program_program_version_id_program_version_id_fk` FOREIGN KEY (`program_version_id`) REFERENCES `program_version`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `test_score` ADD CONSTRAINT `test_score_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `program_version` ADD CONSTRAINT `program_version_program_id_program_id_fk` FOREIGN KEY (`program_id`) REFERENCES `program`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `opening` ADD CONSTRAINT `opening_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `opening` ADD CONSTRAINT `opening_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `receipt` ADD CONSTRAINT `receipt_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `receipt` ADD CONSTRAINT `receipt_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `receipt` ADD CONSTRAINT `receipt_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD CONSTRAINT `receipt_line_receipt_id_receipt_id_fk` FOREIGN KEY (`receipt_id`) REFERENCES `receipt`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD CONSTRAINT `receipt_line_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `registration` ADD CONSTRAINT `registration_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `registration` ADD CONSTRAINT `registration_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `registration` ADD CONSTRAINT `registration_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seat_offer` ADD CONSTRAINT `seat_offer_waitlist_place_id_waitlist_place_id_fk` FOREIGN KEY (`waitlist_place_id`) REFERENCES `waitlist_place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `waitlist_place` ADD CONSTRAINT `waitlist_place_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `waitlist_place` ADD CONSTRAINT `waitlist_place_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `draft_week` ADD CONSTRAINT `draft_week_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `draft_week` ADD CONSTRAINT `draft_week_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_author_id_account_id_fk` FOREIGN KEY (`author_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_route_id_route_id_fk` FOREIGN KEY (`route_id`) REFERENCES `route`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `note` ADD CONSTRAINT `note_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `picked_section` ADD CONSTRAINT `picked_section_draft_week_id_draft_week_id_fk` FOREIGN KEY (`draft_week_id`) REFERENCES `draft_week`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `picked_section` ADD CONSTRAINT `picked_section_section_id_section_id_fk` FOREIGN KEY (`section_id`) REFERENCES `section`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `planned_course` ADD CONSTRAINT `planned_course_route_id_route_id_fk` FOREIGN KEY (`route_id`) REFERENCES `route`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `planned_course` ADD CONSTRAINT `planned_course_course_id_course_id_fk` FOREIGN KEY (`course_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `planned_course` ADD CONSTRAINT `planned_course_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `route` ADD CONSTRAINT `route_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `route` ADD CONSTRAINT `route_changed_by_account_id_fk` FOREIGN KEY (`changed_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `exception_student` ON `exception` (`student_id`);--> statement-breakpoint
CREATE INDEX `message_student` ON `message` (`student_id`,`at`);--> statement-breakpoint
CREATE INDEX `permission_student` ON `permission` (`student_id`,`section_id`);--> statement-breakpoint
CREATE INDEX `sign_off_student` ON `sign_off` (`student_id`,`term_id`);--> statement-breakpoint
CREATE INDEX `room_building` ON `room` (`building_id`);--> statement-breakpoint
CREATE INDEX `charge_student` ON `charge` (`student_id`);--> statement-breakpoint
CREATE INDEX `event_student` ON `event_log` (`student_id`,`id`);--> statement-breakpoint
CREATE INDEX `payment_student` ON `payment` (`student_id`);--> statement-breakpoint
CREATE INDEX `meeting_section` ON `meeting` (`section_id`);--> statement-breakpoint
CREATE INDEX `section_parent` ON `section` (`parent_id`);--> statement-breakpoint
CREATE INDEX `advising_student` ON `advising` (`student_id`);--> statement-breakpoint
CREATE INDEX `hold_student` ON `hold` (`student_id`);--> statement-breakpoint
CREATE INDEX `test_score_student` ON `test_score` (`student_id`);--> statement-breakpoint
CREATE INDEX `opening_term` ON `opening` (`term_id`);--> statement-breakpoint
CREATE INDEX `receipt_student` ON `receipt` (`student_id`,`at`);--> statement-breakpoint
CREATE INDEX `registration_section` ON `registration` (`section_id`);--> statement-breakpoint
CREATE INDEX `waitlist_line` ON `waitlist_place` (`section_id`,`joined_at`);--> statement-breakpoint
CREATE INDEX `note_student` ON `note` (`student_id`);