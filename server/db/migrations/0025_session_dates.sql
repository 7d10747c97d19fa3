ALTER TABLE `session` ADD `add_ends_at` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `drop_free_ends_at` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `drop_ends_at` datetime(3);