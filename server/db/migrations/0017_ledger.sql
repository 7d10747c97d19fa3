CREATE TABLE `ledger_entry` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`kind` enum('charge','refund','release','payment') NOT NULL,
	`item` varchar(120) NOT NULL,
	`assessed` int NOT NULL,
	`amount` int NOT NULL,
	`debit` enum('student','tuition','fees','cashier') NOT NULL,
	`credit` enum('student','tuition','fees','cashier') NOT NULL,
	`payment_id` int,
	`by_id` int,
	CONSTRAINT `ledger_entry_id` PRIMARY KEY(`id`),
	CONSTRAINT `ledger_entry_payment` UNIQUE(`payment_id`),
	CONSTRAINT `ledger_entry_amount` CHECK(`ledger_entry`.`amount` >= 0 and `ledger_entry`.`debit` <> `ledger_entry`.`credit`),
	CONSTRAINT `ledger_entry_kind` CHECK(case `ledger_entry`.`kind`
        when 'payment' then `ledger_entry`.`payment_id` is not null and `ledger_entry`.`assessed` = 0 and `ledger_entry`.`credit` = 'student'
        when 'charge' then `ledger_entry`.`assessed` = `ledger_entry`.`amount` and `ledger_entry`.`debit` = 'student'
        else `ledger_entry`.`assessed` < 0 and `ledger_entry`.`amount` <= -`ledger_entry`.`assessed` and `ledger_entry`.`credit` = 'student' end)
);
--> statement-breakpoint
CREATE TABLE `payment_notice` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`term_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`settled_at` datetime(3),
	CONSTRAINT `payment_notice_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `ledger_entry` ADD CONSTRAINT `ledger_entry_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ledger_entry` ADD CONSTRAINT `ledger_entry_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ledger_entry` ADD CONSTRAINT `ledger_entry_payment_id_payment_id_fk` FOREIGN KEY (`payment_id`) REFERENCES `payment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ledger_entry` ADD CONSTRAINT `ledger_entry_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payment_notice` ADD CONSTRAINT `payment_notice_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payment_notice` ADD CONSTRAINT `payment_notice_term_id_term_id_fk` FOREIGN KEY (`term_id`) REFERENCES `term`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `ledger_entry_term` ON `ledger_entry` (`student_id`,`term_id`,`item`);--> statement-breakpoint
CREATE INDEX `payment_notice_student` ON `payment_notice` (`student_id`,`term_id`,`settled_at`);--> statement-breakpoint
CREATE TRIGGER `ledger_entry_no_update` BEFORE UPDATE ON `ledger_entry` FOR EACH ROW
SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'ledger_entry is append only';
--> statement-breakpoint
CREATE TRIGGER `ledger_entry_no_delete` BEFORE DELETE ON `ledger_entry` FOR EACH ROW
SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'ledger_entry is append only';
