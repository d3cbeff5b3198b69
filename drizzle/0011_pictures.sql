CREATE TABLE `picture` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`takenOn` text NOT NULL,
	`view` text NOT NULL,
	`hash` text NOT NULL,
	`widthPx` integer NOT NULL,
	`heightPx` integer NOT NULL,
	`greenness` real,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `picture_tree` ON `picture` (`treeId`,`takenOn`);