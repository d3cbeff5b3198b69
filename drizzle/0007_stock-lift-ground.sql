CREATE TABLE `ground_plan` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`plannedOn` text NOT NULL,
	`placeId` text,
	`hole` text,
	`collar` text,
	`loosening` text,
	`mulch` text,
	`sulphur` text,
	`doneOn` text,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`placeId`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `ground_plan_tree` ON `ground_plan` (`treeId`,`plannedOn`);--> statement-breakpoint
CREATE TABLE `lift` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`plannedOn` text NOT NULL,
	`school` text NOT NULL,
	`reading` text NOT NULL,
	`ballDiameterMm` real NOT NULL,
	`ballDepthMm` real NOT NULL,
	`people` integer NOT NULL,
	`route` text NOT NULL,
	`ticks` text NOT NULL,
	`lift_log` text,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `lift_tree` ON `lift` (`treeId`,`plannedOn`);--> statement-breakpoint
CREATE TABLE `own_mix` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`parts` text NOT NULL,
	`measured` text,
	`afterRot` integer NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE `stock_item` (
	`id` text PRIMARY KEY NOT NULL,
	`item` text NOT NULL,
	`packSize` real NOT NULL,
	`packs` integer NOT NULL,
	`opened` real NOT NULL,
	`price` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stock_item_item` ON `stock_item` (`item`);--> statement-breakpoint
CREATE TABLE `stock_pot` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`pot` text NOT NULL,
	`holes` integer NOT NULL,
	`holeMm` real NOT NULL,
	`massKg` real,
	`material` text NOT NULL,
	`pot_count` integer NOT NULL,
	`price` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE `planting` ADD `mix` text DEFAULT '{"name":"","parts":[],"measured":null}' NOT NULL;--> statement-breakpoint
ALTER TABLE `planting` ADD `reuse` text DEFAULT '{"history":"new","because":""}' NOT NULL;--> statement-breakpoint
ALTER TABLE `planting` ADD `seat` text;--> statement-breakpoint
ALTER TABLE `planting` ADD `crownWidthMm` real;--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Pumice alone","parts":[{"componentId":"pumice-coarse","parts":1}],"measured":null}' WHERE `mixId` = 'pumice';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Pumice and bark, 3 : 1","parts":[{"componentId":"pumice-medium","parts":3},{"componentId":"bark-fine","parts":1}],"measured":null}' WHERE `mixId` = 'pumice-bark';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Compost with grit, 1 : 1","parts":[{"componentId":"compost","parts":1},{"componentId":"grit-fine","parts":1}],"measured":null}' WHERE `mixId` = 'compost-grit';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Compost, perlite and a little loam, 4 : 5 : 1","parts":[{"componentId":"compost","parts":4},{"componentId":"perlite","parts":5},{"componentId":"loam","parts":1}],"measured":null}' WHERE `mixId` = 'compost-perlite-loam';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Perlite, vermiculite and pumice, equal","parts":[{"componentId":"perlite","parts":1},{"componentId":"vermiculite","parts":1},{"componentId":"pumice-medium","parts":1}],"measured":null}' WHERE `mixId` = 'equal-mineral';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Coir with coarse mineral grit, 1 : 2","parts":[{"componentId":"coir","parts":1},{"componentId":"grit-coarse","parts":2}],"measured":null}' WHERE `mixId` = 'coir-grit';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"Bark, peat-free ericaceous and perlite, 3 : 2 : 1","parts":[{"componentId":"bark-fine","parts":3},{"componentId":"ericaceous-compost","parts":2},{"componentId":"perlite","parts":1}],"measured":null}' WHERE `mixId` = 'bark';--> statement-breakpoint
UPDATE `planting` SET `mix` = '{"name":"The soil of the site","parts":[{"componentId":"site-soil","parts":1}],"measured":null}' WHERE `mixId` = 'site-soil';--> statement-breakpoint
ALTER TABLE `planting` DROP COLUMN `mixId`;--> statement-breakpoint
ALTER TABLE `place` ADD `light` text;--> statement-breakpoint
ALTER TABLE `place` ADD `wind` text;--> statement-breakpoint
ALTER TABLE `place` ADD `waterM` real;--> statement-breakpoint
CREATE TABLE `replant_plan` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`planting` text NOT NULL,
	`stockPotId` text,
	`coarseId` text NOT NULL,
	`waterSchool` text NOT NULL,
	`takeFromStock` integer NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `replant_plan_tree` ON `replant_plan` (`treeId`);