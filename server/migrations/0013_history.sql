ALTER TABLE `history` ADD `data` text;
