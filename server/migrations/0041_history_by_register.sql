CREATE INDEX `ground_history_register` ON `ground_history` (json_extract(`change`, '$.register')) WHERE json_extract(`change`, '$.register') is not null;
