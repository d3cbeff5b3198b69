ALTER TABLE `root_map` ADD `picture` text;--> statement-breakpoint
ALTER TABLE `root_segment` ADD `measuredIn` text;