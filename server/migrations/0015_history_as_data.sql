UPDATE `history` SET `data` = NULL WHERE `data` = '';
