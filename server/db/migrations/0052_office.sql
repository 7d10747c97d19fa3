ALTER TABLE `account` MODIFY COLUMN `role` enum('student','programAdvisor','supportAdvisor','registrar','instructor','department','office') NOT NULL;--> statement-breakpoint
ALTER TABLE `account` ADD `office` varchar(80);--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_office` CHECK (`account`.`office` is null or `account`.`role` = 'office');