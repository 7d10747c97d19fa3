ALTER TABLE `request` DROP CONSTRAINT `request_about`;--> statement-breakpoint
ALTER TABLE `request` MODIFY COLUMN `kind` enum('prerequisite','corequisite','clash','full','reserved','restriction','load','consent','late','waiver','need','substitution','program') NOT NULL;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_about` CHECK ((`request`.`section_id` is null) = (`request`.`kind` in ('waiver', 'need', 'substitution', 'program'))
        and (`request`.`course_id` is not null) = (`request`.`kind` in ('waiver', 'substitution'))
        and (`request`.`program_version_id` is not null) = (`request`.`kind` in ('need', 'substitution', 'program'))
        and (`request`.`need_id` is not null) = (`request`.`kind` in ('need', 'substitution')));--> statement-breakpoint
INSERT INTO `request` (`student_id`, `kind`, `program_version_id`, `state`, `reason`, `asked_at`, `waits_for`)
	SELECT `student_id`, 'program', `program_version_id`, 'asked', COALESCE(`said_instead`, 'It is wrong.'), COALESCE(`said_at`, '2000-01-01'), 'registrar'
	FROM `student_program` WHERE `confirmed` = 'wrong';
