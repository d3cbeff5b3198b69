ALTER TABLE `planting` ADD `coarseId` text DEFAULT 'grit-coarse' NOT NULL;--> statement-breakpoint
ALTER TABLE `planting` ADD `topId` text;--> statement-breakpoint
UPDATE `replant_plan` SET `planting` = json_set(`planting`, '$.coarseId', `coarseId`);--> statement-breakpoint
ALTER TABLE `replant_plan` DROP COLUMN `coarseId`;