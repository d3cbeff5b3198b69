ALTER TABLE `cut` ADD `plannedAtMm` real;--> statement-breakpoint
ALTER TABLE `reduction_plan` ADD `setting` text;--> statement-breakpoint
ALTER TABLE `root_map` ADD `stems` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `root_map` ADD `ballDepthMm` real;--> statement-breakpoint
ALTER TABLE `root_map` ADD `lean` text;--> statement-breakpoint
ALTER TABLE `root_map` ADD `inPot` text;--> statement-breakpoint
ALTER TABLE `root_map` ADD `obstacles` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `root_segment` ADD `doubtfulFromMm` real;--> statement-breakpoint
ALTER TABLE `root_segment` ADD `seenToMm` real;--> statement-breakpoint
ALTER TABLE `tree` ADD `sharedPot` text DEFAULT '' NOT NULL;