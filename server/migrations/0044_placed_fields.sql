-- Fields have their place in the access plan of their register from now on: those that stand in it, and those that drafts of its forms ask for.
CREATE TABLE `placed_now` (`design_id` text PRIMARY KEY NOT NULL, `placed` text NOT NULL);--> statement-breakpoint
INSERT INTO `placed_now` (`design_id`, `placed`)
SELECT `r`.`id`, (
  SELECT json_group_array(`key`) FROM (
    SELECT json_extract(`f`.`value`, '$.key') AS `key` FROM `design_states` `s`, json_each(`s`.`content`, '$.fields') `f` WHERE `s`.`design_id` = `r`.`id` AND `s`.`number` = `r`.`number`
    UNION SELECT `f`.`value` FROM `design_states` `s`, json_each(`s`.`content`, '$.left') `f` WHERE `s`.`design_id` = `r`.`id` AND `s`.`number` = `r`.`number`
    UNION SELECT json_extract(`f`.`value`, '$.key') FROM json_each(`r`.`draft`, '$.fields') `f`
    UNION SELECT json_extract(`f`.`value`, '$.key') FROM `forms` `o` JOIN `designs` `d` ON `d`.`id` = `o`.`id`, json_each(`d`.`draft`, '$.fields') `f` WHERE `o`.`register_id` = `r`.`id`
  ) WHERE `key` IS NOT NULL
)
FROM `designs` `r` WHERE `r`.`kind` = 'register';--> statement-breakpoint
UPDATE `designs` SET `draft` = json_set(`draft`, '$.access.placed', json((SELECT `placed` FROM `placed_now` WHERE `design_id` = `designs`.`id`))) WHERE `kind` = 'register';--> statement-breakpoint
UPDATE `design_states` SET `content` = json_set(`content`, '$.access.placed', json((SELECT `placed` FROM `placed_now` WHERE `design_id` = `design_states`.`design_id`))) WHERE EXISTS (SELECT 1 FROM `designs` WHERE `designs`.`id` = `design_states`.`design_id` AND `designs`.`kind` = 'register' AND `designs`.`number` = `design_states`.`number`);--> statement-breakpoint
DROP TABLE `placed_now`;
