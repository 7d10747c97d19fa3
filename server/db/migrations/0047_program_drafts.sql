CREATE TABLE `program_draft` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(8) NOT NULL,
	`catalog_year` varchar(9) NOT NULL,
	`title` varchar(160) NOT NULL,
	`from_version_id` int,
	`from_text` mediumtext NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`changed_by` int NOT NULL,
	`changed_at` datetime(3) NOT NULL,
	CONSTRAINT `program_draft_id` PRIMARY KEY(`id`),
	CONSTRAINT `program_draft_year` UNIQUE(`code`,`catalog_year`)
);
--> statement-breakpoint
ALTER TABLE `program_draft` ADD CONSTRAINT `program_draft_from_version_id_program_version_id_fk` FOREIGN KEY (`from_version_id`) REFERENCES `program_version`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `program_draft` ADD CONSTRAINT `program_draft_changed_by_account_id_fk` FOREIGN KEY (`changed_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;