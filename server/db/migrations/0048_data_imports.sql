CREATE TABLE `data_import` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(120) NOT NULL,
	`state` enum('planned','applied','undone') NOT NULL,
	`counts` json NOT NULL,
	`faults` json NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `data_import_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `data_import_items` (
	`import_id` int NOT NULL,
	`ordinal` int NOT NULL,
	`items` json NOT NULL,
	CONSTRAINT `data_import_items_import_id_ordinal_pk` PRIMARY KEY(`import_id`,`ordinal`)
);
--> statement-breakpoint
CREATE TABLE `data_import_steps` (
	`import_id` int NOT NULL,
	`ordinal` int NOT NULL,
	`steps` json NOT NULL,
	CONSTRAINT `data_import_steps_import_id_ordinal_pk` PRIMARY KEY(`import_id`,`ordinal`)
);
--> statement-breakpoint
ALTER TABLE `data_import` ADD CONSTRAINT `data_import_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `data_import_items` ADD CONSTRAINT `data_import_items_import_id_data_import_id_fk` FOREIGN KEY (`import_id`) REFERENCES `data_import`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `data_import_steps` ADD CONSTRAINT `data_import_steps_import_id_data_import_id_fk` FOREIGN KEY (`import_id`) REFERENCES `data_import`(`id`) ON DELETE no action ON UPDATE no action;