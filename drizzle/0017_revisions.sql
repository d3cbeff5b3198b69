CREATE TABLE `revision` (
	`scope` text PRIMARY KEY NOT NULL,
	`count` integer NOT NULL
);
--> statement-breakpoint
CREATE TRIGGER `examination_added` AFTER INSERT ON `examination` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `examination_changed` AFTER UPDATE ON `examination` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `examination_removed` AFTER DELETE ON `examination` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `measurement_added` AFTER INSERT ON `measurement` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `measurement_changed` AFTER UPDATE ON `measurement` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `measurement_removed` AFTER DELETE ON `measurement` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `triage_added` AFTER INSERT ON `triage` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `triage_changed` AFTER UPDATE ON `triage` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `triage_removed` AFTER DELETE ON `triage` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `factor_change_added` AFTER INSERT ON `factor_change` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `factor_change_changed` AFTER UPDATE ON `factor_change` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `factor_change_removed` AFTER DELETE ON `factor_change` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `root_map_added` AFTER INSERT ON `root_map` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `root_map_changed` AFTER UPDATE ON `root_map` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `root_map_removed` AFTER DELETE ON `root_map` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `reduction_plan_added` AFTER INSERT ON `reduction_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `reduction_plan_changed` AFTER UPDATE ON `reduction_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `reduction_plan_removed` AFTER DELETE ON `reduction_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `planting_added` AFTER INSERT ON `planting` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `planting_changed` AFTER UPDATE ON `planting` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `planting_removed` AFTER DELETE ON `planting` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `lift_added` AFTER INSERT ON `lift` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `lift_changed` AFTER UPDATE ON `lift` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `lift_removed` AFTER DELETE ON `lift` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `replant_plan_added` AFTER INSERT ON `replant_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `replant_plan_changed` AFTER UPDATE ON `replant_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `replant_plan_removed` AFTER DELETE ON `replant_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `ground_plan_added` AFTER INSERT ON `ground_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `ground_plan_changed` AFTER UPDATE ON `ground_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `ground_plan_removed` AFTER DELETE ON `ground_plan` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `task_added` AFTER INSERT ON `task` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `task_changed` AFTER UPDATE ON `task` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `task_removed` AFTER DELETE ON `task` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `watering_added` AFTER INSERT ON `watering` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `watering_changed` AFTER UPDATE ON `watering` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `watering_removed` AFTER DELETE ON `watering` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `observation_added` AFTER INSERT ON `observation` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `observation_changed` AFTER UPDATE ON `observation` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `observation_removed` AFTER DELETE ON `observation` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `backup_added` AFTER INSERT ON `backup` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `backup_changed` AFTER UPDATE ON `backup` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `backup_removed` AFTER DELETE ON `backup` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `book_entry_added` AFTER INSERT ON `book_entry` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `book_entry_changed` AFTER UPDATE ON `book_entry` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `book_entry_removed` AFTER DELETE ON `book_entry` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `decision_added` AFTER INSERT ON `decision` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `decision_changed` AFTER UPDATE ON `decision` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `decision_removed` AFTER DELETE ON `decision` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`treeId`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `tree_added` AFTER INSERT ON `tree` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `tree_changed` AFTER UPDATE ON `tree` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `tree_removed` AFTER DELETE ON `tree` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('tree:' || OLD.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `kind_added` AFTER INSERT ON `kind` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('kind:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `kind_changed` AFTER UPDATE ON `kind` WHEN OLD.`genus` IS NOT NEW.`genus` OR OLD.`commonName` IS NOT NEW.`commonName` OR OLD.`group_name` IS NOT NEW.`group_name` OR OLD.`coldestC` IS NOT NEW.`coldestC` OR OLD.`wetnessTrigger` IS NOT NEW.`wetnessTrigger` OR OLD.`liftingWindow` IS NOT NEW.`liftingWindow` OR OLD.`sap` IS NOT NEW.`sap` OR OLD.`caution` IS NOT NEW.`caution` OR OLD.`origin` IS NOT NEW.`origin` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('kind:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `kind_removed` AFTER DELETE ON `kind` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('kind:' || OLD.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `place_added` AFTER INSERT ON `place` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('places', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `place_changed` AFTER UPDATE ON `place` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('places', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `place_removed` AFTER DELETE ON `place` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('places', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `weather_day_added` AFTER INSERT ON `weather_day` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('weather', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `weather_day_changed` AFTER UPDATE ON `weather_day` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('weather', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `weather_day_removed` AFTER DELETE ON `weather_day` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('weather', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `value_override_added` AFTER INSERT ON `value_override` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('values', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `value_override_changed` AFTER UPDATE ON `value_override` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('values', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `value_override_removed` AFTER DELETE ON `value_override` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('values', 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `device_added` AFTER INSERT ON `device` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('device:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `device_changed` AFTER UPDATE ON `device` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('device:' || NEW.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
--> statement-breakpoint
CREATE TRIGGER `device_removed` AFTER DELETE ON `device` BEGIN
	INSERT INTO `revision` (`scope`, `count`) VALUES ('device:' || OLD.`id`, 1) ON CONFLICT (`scope`) DO UPDATE SET `count` = `count` + 1;
END;
