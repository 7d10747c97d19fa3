ALTER TABLE `fallback` ADD `only_with_id` int;--> statement-breakpoint
ALTER TABLE `receipt` ADD `whole` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `fallback` ADD CONSTRAINT `fallback_only_with_id_course_id_fk` FOREIGN KEY (`only_with_id`) REFERENCES `course`(`id`) ON DELETE no action ON UPDATE no action;