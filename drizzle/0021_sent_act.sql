CREATE TABLE `sent_act` (
	`id` text PRIMARY KEY NOT NULL,
	`keptAt` text NOT NULL,
	`byId` text,
	`status` integer,
	`answer` text
);
