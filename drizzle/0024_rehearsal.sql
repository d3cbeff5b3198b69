CREATE TABLE `rehearsal` (
	`id` text PRIMARY KEY NOT NULL,
	`treeId` text NOT NULL,
	`rehearsedOn` text NOT NULL,
	`futures` integer NOT NULL,
	`seed` integer NOT NULL,
	`outcomes` text NOT NULL,
	`taken` integer NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	FOREIGN KEY (`treeId`) REFERENCES `tree`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `rehearsal_tree` ON `rehearsal` (`treeId`,`rehearsedOn`);