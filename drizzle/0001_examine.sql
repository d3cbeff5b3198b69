CREATE TABLE `factor_change` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`changedOn` text NOT NULL,
	`factors` text NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `factor_change_tree` ON `factor_change` (`treeId`,`changedOn`);--> statement-breakpoint
CREATE TABLE `measurement` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`measuredOn` text NOT NULL,
	`note` text NOT NULL,
	`raw` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `measurement_tree` ON `measurement` (`treeId`,`measuredOn`);--> statement-breakpoint
CREATE TABLE `triage` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`decidedOn` text NOT NULL,
	`purpose` text NOT NULL,
	`vitality` text NOT NULL,
	`scratchAlive` integer,
	`permission` text NOT NULL,
	`protectedSpecies` integer,
	`servicesLocated` integer,
	`pests` text NOT NULL,
	`rootsKept` real,
	`ballDiameterMm` real,
	`ballDepthMm` real,
	`helpers` integer NOT NULL,
	`machine` integer NOT NULL,
	`dyingInPlace` integer NOT NULL,
	`decision` text NOT NULL,
	`secondTreeId` text,
	`backups` integer NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `triage_tree` ON `triage` (`treeId`,`decidedOn`);--> statement-breakpoint
ALTER TABLE `finding` ADD `grade` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `measuredBy` text;--> statement-breakpoint
UPDATE `finding` SET `grade` = CASE WHEN `state` <> 'present' THEN 0 WHEN `signId` IN ('solid-mat', 'probe-stops', 'lump-squeezed', 'water-stands', 'no-flare') THEN 2 ELSE 1 END;--> statement-breakpoint
ALTER TABLE `examination` ADD `events` text DEFAULT '[]' NOT NULL;--> statement-breakpoint
ALTER TABLE `examination` ADD `failingFast` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `tree` ADD `watering` text DEFAULT '' NOT NULL;