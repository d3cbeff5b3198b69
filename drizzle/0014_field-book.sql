CREATE TABLE `book_entry` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`kind` text NOT NULL,
	`on_day` text NOT NULL,
	`details` text NOT NULL,
	`note` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `book_entry_tree` ON `book_entry` (`treeId`,`on_day`);