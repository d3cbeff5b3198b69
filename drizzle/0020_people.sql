CREATE TABLE `invitation` (
	`id` text PRIMARY KEY NOT NULL,
	`keyHash` text NOT NULL,
	`role` text NOT NULL,
	`untilAt` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `invitation_key` ON `invitation` (`keyHash`);--> statement-breakpoint
CREATE TABLE `person` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`nameKey` text NOT NULL,
	`role` text NOT NULL,
	`passHash` text NOT NULL,
	`madeAt` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `person_name` ON `person` (`nameKey`);--> statement-breakpoint
CREATE TABLE `session` (
	`id` text PRIMARY KEY NOT NULL,
	`personId` text NOT NULL,
	`keyHash` text NOT NULL,
	`device` text NOT NULL,
	`madeAt` text NOT NULL,
	`lastAt` text NOT NULL,
	FOREIGN KEY (`personId`) REFERENCES `person`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `session_key` ON `session` (`keyHash`);--> statement-breakpoint
CREATE INDEX `session_person` ON `session` (`personId`);--> statement-breakpoint
CREATE TABLE `shared_link` (
	`id` text PRIMARY KEY NOT NULL,
	`keyHash` text NOT NULL,
	`treeId` text NOT NULL,
	`page` text NOT NULL,
	`untilOn` text NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `shared_link_key` ON `shared_link` (`keyHash`);--> statement-breakpoint
ALTER TABLE `journal` ADD `byId` text;--> statement-breakpoint
ALTER TABLE `journal` ADD `by` text;