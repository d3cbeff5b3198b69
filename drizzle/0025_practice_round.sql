CREATE TABLE `practice_round` (
	`id` text PRIMARY KEY NOT NULL,
	`byId` text,
	`trainee` text NOT NULL,
	`wish` text NOT NULL,
	`setCase` integer,
	`practice_tree` text NOT NULL,
	`startedAt` text NOT NULL,
	`endedAt` text,
	`day` integer DEFAULT 0 NOT NULL,
	`acts` text NOT NULL,
	`judged` text
);
--> statement-breakpoint
CREATE INDEX `practice_round_by` ON `practice_round` (`byId`,`startedAt`);