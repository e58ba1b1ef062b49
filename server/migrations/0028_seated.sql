CREATE INDEX `seats_person` ON `seats` (`holder`) WHERE holder >= '@' and holder < 'A';
