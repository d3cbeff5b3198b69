ALTER TABLE `place` ADD `coldestMonthC` real;--> statement-breakpoint
ALTER TABLE `place` ADD `warmestMonthC` real;