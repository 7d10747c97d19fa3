ALTER TABLE `section` ADD `credits_most` decimal(4,1);--> statement-breakpoint
ALTER TABLE `fallback` ADD `credits` decimal(4,1);--> statement-breakpoint
ALTER TABLE `receipt_line` ADD `credits` decimal(4,1);--> statement-breakpoint
ALTER TABLE `registration` ADD `credits` decimal(4,1);