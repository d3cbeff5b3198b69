ALTER TABLE `picture` ADD `focalShare` real;--> statement-breakpoint
ALTER TABLE `root_segment` ADD `depthIn` text;