DROP TABLE `seat_offer`;--> statement-breakpoint
ALTER TABLE `section` DROP CONSTRAINT `section_taken`;--> statement-breakpoint
ALTER TABLE `receipt_line` MODIFY COLUMN `outcome` enum('waiting','registered','exchanged','inLine','dropped','left','declined','refused','unsettled','notTried') NOT NULL;--> statement-breakpoint
ALTER TABLE `term` ADD `drop_free_ends_at` datetime(3);--> statement-breakpoint
UPDATE `term` SET `drop_free_ends_at` = `add_ends_at`;--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `drop_free_ends_at` datetime(3) NOT NULL;--> statement-breakpoint
ALTER TABLE `term` ADD `lines_close_at` datetime(3);--> statement-breakpoint
UPDATE `term` SET `lines_close_at` = `add_ends_at`;--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `lines_close_at` datetime(3) NOT NULL;--> statement-breakpoint
ALTER TABLE `term` ADD `offer_hours` smallint;--> statement-breakpoint
UPDATE `term` SET `offer_hours` = 48;--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `offer_hours` smallint NOT NULL;--> statement-breakpoint
ALTER TABLE `term` ADD `offer_hours_near` smallint;--> statement-breakpoint
UPDATE `term` SET `offer_hours_near` = 12;--> statement-breakpoint
ALTER TABLE `term` MODIFY COLUMN `offer_hours_near` smallint NOT NULL;--> statement-breakpoint
ALTER TABLE `section` ADD `offered` smallint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `action` enum('register','drop','leave','offer') DEFAULT 'register' NOT NULL;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `place` smallint;--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `mark` varchar(2);--> statement-breakpoint
ALTER TABLE `waitlist_place` ADD `sections` json;--> statement-breakpoint
UPDATE `waitlist_place` `w` JOIN `section` `s` ON `s`.`id` = `w`.`section_id` SET `w`.`sections` = json_array(`s`.`code`);--> statement-breakpoint
ALTER TABLE `waitlist_place` MODIFY COLUMN `sections` json NOT NULL;--> statement-breakpoint
ALTER TABLE `section` ADD CONSTRAINT `section_taken` CHECK (`section`.`taken` >= 0 and `section`.`offered` >= 0 and `section`.`taken` + `section`.`offered` <= `section`.`capacity`);--> statement-breakpoint
CREATE INDEX `section_offered` ON `section` (`offered`);