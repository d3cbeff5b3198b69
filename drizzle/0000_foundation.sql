CREATE TABLE `cut` (
	`ownerId` text NOT NULL,
	`position` integer NOT NULL,
	`id` text NOT NULL,
	`segmentId` text NOT NULL,
	`atMm` real NOT NULL,
	`stage` integer NOT NULL,
	`reason` text NOT NULL,
	`state` text NOT NULL,
	`doneOn` text,
	`note` text NOT NULL,
	PRIMARY KEY(`ownerId`, `id`),
	FOREIGN KEY (`ownerId`) REFERENCES `reduction_plan`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `examination` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`examinedOn` text NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `examination_tree` ON `examination` (`treeId`,`examinedOn`);--> statement-breakpoint
CREATE TABLE `finding` (
	`ownerId` text NOT NULL,
	`position` integer NOT NULL,
	`signId` text NOT NULL,
	`state` text NOT NULL,
	PRIMARY KEY(`ownerId`, `position`),
	FOREIGN KEY (`ownerId`) REFERENCES `examination`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `journal` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text,
	`at_instant` text NOT NULL,
	`on_day` text NOT NULL,
	`stage` text NOT NULL,
	`what` text NOT NULL,
	`changes` text,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `journal_tree` ON `journal` (`treeId`,`at_instant`);--> statement-breakpoint
CREATE INDEX `journal_at` ON `journal` (`at_instant`);--> statement-breakpoint
CREATE TABLE `kind` (
	`id` text PRIMARY KEY NOT NULL,
	`genus` text NOT NULL,
	`commonName` text NOT NULL,
	`group_name` text NOT NULL,
	`coldestC` real NOT NULL,
	`wetnessTrigger` real NOT NULL,
	`liftingWindow` text NOT NULL,
	`sap` text NOT NULL,
	`caution` text NOT NULL,
	`origin` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE `observation` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`observedOn` text NOT NULL,
	`buds` text,
	`leafCover` real,
	`leafState` text,
	`shootExtensionMm` real,
	`diebackLimitMm` real,
	`weightKg` real,
	`firmness` text,
	`whiteTips` integer,
	`rootsAtEdge` integer,
	`lostCount` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `observation_tree` ON `observation` (`treeId`,`observedOn`);--> statement-breakpoint
CREATE TABLE `place` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`latitudeDeg` real NOT NULL,
	`longitudeDeg` real,
	`elevationM` real NOT NULL,
	`heldMinimumC` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE `planting` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`plantedOn` text NOT NULL,
	`pot` text NOT NULL,
	`sizeRule` text NOT NULL,
	`ballDiameterMm` real NOT NULL,
	`ballDepthMm` real NOT NULL,
	`mixId` text NOT NULL,
	`coarseLayerMm` real NOT NULL,
	`topLayerMm` real NOT NULL,
	`headspaceMm` real NOT NULL,
	`plantCount` integer NOT NULL,
	`placeId` text,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`placeId`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `planting_tree` ON `planting` (`treeId`,`plantedOn`);--> statement-breakpoint
CREATE TABLE `reduction_plan` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`temper` text NOT NULL,
	`vigour` text NOT NULL,
	`reserves` text NOT NULL,
	`stageDates` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `reduction_plan_tree` ON `reduction_plan` (`treeId`);--> statement-breakpoint
CREATE TABLE `root_map` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`mappedOn` text NOT NULL,
	`frame` text NOT NULL,
	`trunkDiameterMm` real NOT NULL,
	`ballRadiusMm` real NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `root_map_tree` ON `root_map` (`treeId`);--> statement-breakpoint
CREATE TABLE `root_segment` (
	`ownerId` text NOT NULL,
	`position` integer NOT NULL,
	`id` text NOT NULL,
	`parentId` text,
	`attachMm` real NOT NULL,
	`rootClass` text NOT NULL,
	`tissue_condition` text NOT NULL,
	`deadFromMm` real,
	`diameterStartMm` real NOT NULL,
	`diameterEndMm` real NOT NULL,
	`fineScore` integer NOT NULL,
	`flaws` text NOT NULL,
	`sourceKnown` integer NOT NULL,
	`keep_root` integer NOT NULL,
	`course` text NOT NULL,
	`note` text NOT NULL,
	PRIMARY KEY(`ownerId`, `id`),
	FOREIGN KEY (`ownerId`) REFERENCES `root_map`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `setting` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `task` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`kind` text NOT NULL,
	`title` text NOT NULL,
	`reason` text NOT NULL,
	`mark` text NOT NULL,
	`stage` text NOT NULL,
	`fromOn` text NOT NULL,
	`toOn` text NOT NULL,
	`minutes` integer NOT NULL,
	`state` text NOT NULL,
	`closedOn` text,
	`skipReason` text NOT NULL,
	`source` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `task_next` ON `task` (`treeId`,`state`,`toOn`);--> statement-breakpoint
CREATE INDEX `task_open` ON `task` (`state`,`fromOn`);--> statement-breakpoint
CREATE TABLE `tree` (
	`id` text PRIMARY KEY NOT NULL,
	`tag` text NOT NULL,
	`name` text NOT NULL,
	`kindId` text NOT NULL,
	`placeId` text NOT NULL,
	`situation` text NOT NULL,
	`trunkDiameterMm` real NOT NULL,
	`heightM` real,
	`plantCount` integer NOT NULL,
	`origin` text NOT NULL,
	`permission` text NOT NULL,
	`vigour` text NOT NULL,
	`reserves` text NOT NULL,
	`batch` text NOT NULL,
	`takenInOn` text NOT NULL,
	`referenceTreeId` text,
	`note` text NOT NULL,
	`state` text NOT NULL,
	`closedOn` text,
	`closingNote` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`kindId`) REFERENCES `kind`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`placeId`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tree_tag` ON `tree` (lower("tag"));--> statement-breakpoint
CREATE INDEX `tree_place` ON `tree` (`placeId`);--> statement-breakpoint
CREATE INDEX `tree_state` ON `tree` (`state`);--> statement-breakpoint
CREATE TABLE `value_override` (
	`key` text PRIMARY KEY NOT NULL,
	`value` real NOT NULL
);
