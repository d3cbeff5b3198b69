ALTER TABLE `cut` ADD `ofPlanned` text;--> statement-breakpoint
ALTER TABLE `cut` ADD `because` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `planting` ADD `coarseId` text DEFAULT 'grit-coarse' NOT NULL;--> statement-breakpoint
ALTER TABLE `planting` ADD `topId` text;--> statement-breakpoint
ALTER TABLE `planting` ADD `assumed` text;--> statement-breakpoint
ALTER TABLE `root_segment` ADD `guessed` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
UPDATE `replant_plan` SET `planting` = json_set(`planting`, '$.coarseId', `coarseId`);--> statement-breakpoint
ALTER TABLE `replant_plan` DROP COLUMN `coarseId`;