ALTER TABLE `cut` ADD `byOwner` integer DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `cut` ADD `whyThen` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `reduction_plan` ADD `notBefore` text DEFAULT '[]' NOT NULL;