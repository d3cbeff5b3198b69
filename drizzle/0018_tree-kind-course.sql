DROP INDEX `tree_kind`;--> statement-breakpoint
CREATE INDEX `tree_kind` ON `tree` (`kindId`,`takenInOn`,`state`);