CREATE TABLE `guidance` (
	`id` int AUTO_INCREMENT NOT NULL,
	`about` enum('everybody','program','term','course','finding') NOT NULL,
	`key` varchar(16) NOT NULL,
	`title` varchar(80) NOT NULL,
	`text` varchar(600) NOT NULL,
	`link` varchar(300),
	CONSTRAINT `guidance_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `guidance_about` ON `guidance` (`about`,`key`);