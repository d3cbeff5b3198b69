CREATE TABLE `device` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`onTreeId` text,
	`placeId` text,
	`tokenHash` text NOT NULL,
	`simulated` integer NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`onTreeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE set null,
	FOREIGN KEY (`placeId`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE UNIQUE INDEX `device_token` ON `device` (`tokenHash`);--> statement-breakpoint
CREATE TABLE `reading` (
	`deviceId` text NOT NULL,
	`at_instant` text NOT NULL,
	`weightKg` real,
	`moisture` real,
	`temperatureC` real,
	`humidityPercent` real,
	`battery` real,
	PRIMARY KEY(`deviceId`, `at_instant`),
	FOREIGN KEY (`deviceId`) REFERENCES `device`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `tree_water` (
	`treeId` text PRIMARY KEY NOT NULL,
	`basis` text NOT NULL,
	`state` text NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `watering` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`wateredOn` text NOT NULL,
	`litres` real,
	`ranOutL` real,
	`beforeKg` real,
	`afterKg` real,
	`way` text NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `watering_tree` ON `watering` (`treeId`,`wateredOn`);--> statement-breakpoint
CREATE TABLE `weather_day` (
	`id` text PRIMARY KEY NOT NULL,
	`placeId` text NOT NULL,
	`on_day` text NOT NULL,
	`source` text NOT NULL,
	`from_what` text NOT NULL,
	`minC` real NOT NULL,
	`maxC` real NOT NULL,
	`humidityPercent` real,
	`windMs` real,
	`gustMs` real,
	`sunMj` real,
	`rainMm` real,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`placeId`) REFERENCES `place`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `weather_day_of` ON `weather_day` (`placeId`,`on_day`,`source`);--> statement-breakpoint
ALTER TABLE `task` ADD `release` text;