CREATE TABLE `suggestion` (
	`id` int AUTO_INCREMENT NOT NULL,
	`student_id` int NOT NULL,
	`route_id` int NOT NULL,
	`by_id` int NOT NULL,
	`at` datetime(3) NOT NULL,
	`number` int NOT NULL,
	`change` json NOT NULL,
	`before` json NOT NULL,
	`why` varchar(400),
	`state` enum('waiting','accepted','declined','withdrawn') NOT NULL,
	`answered_by_id` int,
	`answered_at` datetime(3),
	`words` varchar(400),
	CONSTRAINT `suggestion_id` PRIMARY KEY(`id`),
	CONSTRAINT `suggestion_answered` CHECK((`suggestion`.`state` in ('accepted', 'declined')) = (`suggestion`.`answered_by_id` is not null)),
	CONSTRAINT `suggestion_at` CHECK((`suggestion`.`answered_by_id` is null) = (`suggestion`.`answered_at` is null))
);
--> statement-breakpoint
ALTER TABLE `thread` ADD `number` int;--> statement-breakpoint
UPDATE `thread` JOIN (
	SELECT `id`, row_number() OVER (PARTITION BY `student_id` ORDER BY `id`) AS `n` FROM `thread` WHERE NOT `advisors_only`
) AS `numbered` ON `numbered`.`id` = `thread`.`id` SET `thread`.`number` = `numbered`.`n`;--> statement-breakpoint
ALTER TABLE `suggestion` ADD CONSTRAINT `suggestion_student_id_student_id_fk` FOREIGN KEY (`student_id`) REFERENCES `student`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `suggestion` ADD CONSTRAINT `suggestion_route_id_route_id_fk` FOREIGN KEY (`route_id`) REFERENCES `route`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `suggestion` ADD CONSTRAINT `suggestion_by_id_account_id_fk` FOREIGN KEY (`by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `suggestion` ADD CONSTRAINT `suggestion_answered_by_id_account_id_fk` FOREIGN KEY (`answered_by_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `suggestion_student` ON `suggestion` (`student_id`);--> statement-breakpoint
ALTER TABLE `thread` ADD CONSTRAINT `thread_number` CHECK ((`thread`.`number` is null) = `thread`.`advisors_only`);