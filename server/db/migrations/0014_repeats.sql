ALTER TABLE `term` ADD `repeat_below` varchar(2);
