CREATE TRIGGER `event_log_no_update` BEFORE UPDATE ON `event_log` FOR EACH ROW
SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'event_log is append only';
--> statement-breakpoint
CREATE TRIGGER `event_log_no_delete` BEFORE DELETE ON `event_log` FOR EACH ROW
SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'event_log is append only';
