CREATE TABLE `backup` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`takenOn` text NOT NULL,
	`kind` text NOT NULL,
	`source` text NOT NULL,
	`lengthMm` real,
	`treatment` text NOT NULL,
	`count` integer NOT NULL,
	`note` text NOT NULL,
	`events` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `backup_tree` ON `backup` (`treeId`,`takenOn`);--> statement-breakpoint
CREATE TABLE `decision` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`decidedOn` text NOT NULL,
	`advised` text NOT NULL,
	`decided` text NOT NULL,
	`because` text NOT NULL,
	`probability` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `decision_tree` ON `decision` (`treeId`,`decidedOn`);--> statement-breakpoint
CREATE TABLE `said_forecast` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`saidOn` text NOT NULL,
	`occasion` text NOT NULL,
	`probability` real NOT NULL,
	`horizonOn` text NOT NULL,
	`context` text,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `said_forecast_tree` ON `said_forecast` (`treeId`,`saidOn`);--> statement-breakpoint
ALTER TABLE `observation` ADD `shootsMm` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `observation` ADD `smell` text;--> statement-breakpoint
ALTER TABLE `observation` ADD `pests` text;--> statement-breakpoint
ALTER TABLE `observation` ADD `suckers` integer;--> statement-breakpoint
ALTER TABLE `observation` ADD `woundwoodMm` real;--> statement-breakpoint
ALTER TABLE `observation` ADD `sample` text;--> statement-breakpoint
ALTER TABLE `tree` ADD `parentTreeId` text;--> statement-breakpoint
ALTER TABLE `tree` ADD `lossCause` text;--> statement-breakpoint
ALTER TABLE `tree` ADD `lossConditions` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `tree` ADD `shownEarlier` text DEFAULT '' NOT NULL;