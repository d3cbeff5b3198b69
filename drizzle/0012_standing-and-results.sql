PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_tree_water` (
	`treeId` text PRIMARY KEY NOT NULL,
	`basis` text NOT NULL,
	`state` text,
	`standing` text,
	`functionLow` text DEFAULT '[]' NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
DROP TABLE `tree_water`;--> statement-breakpoint
ALTER TABLE `__new_tree_water` RENAME TO `tree_water`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
ALTER TABLE `task` ADD `result` text DEFAULT '' NOT NULL;