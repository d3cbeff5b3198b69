ALTER TABLE `task` ADD `everyDays` integer;--> statement-breakpoint
ALTER TABLE `tree_water` ADD `functionLow` text DEFAULT '[]' NOT NULL;