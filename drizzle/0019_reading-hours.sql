CREATE TABLE `reading_hour` (
	`deviceId` text NOT NULL,
	`hour` text NOT NULL,
	`firstAt` text NOT NULL,
	`lastAt` text NOT NULL,
	`count` integer NOT NULL,
	`lowestKg` real,
	`weightKg` real,
	`moisture` real,
	`temperatureC` real,
	`humidityPercent` real,
	`battery` real,
	PRIMARY KEY(`deviceId`, `hour`),
	FOREIGN KEY (`deviceId`) REFERENCES `device`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
INSERT INTO `reading_hour` (`deviceId`, `hour`, `firstAt`, `lastAt`, `count`, `lowestKg`, `weightKg`, `moisture`, `temperatureC`, `humidityPercent`, `battery`)
SELECT `deviceId`, substr(`at_instant`, 1, 13), min(`at_instant`), max(`at_instant`), count(*), min(`weightKg`), `weightKg`, `moisture`, `temperatureC`, `humidityPercent`, `battery` FROM `reading` GROUP BY 1, 2;
--> statement-breakpoint
CREATE TRIGGER `reading_counted` AFTER INSERT ON `reading` BEGIN
	INSERT INTO `reading_hour` (`deviceId`, `hour`, `firstAt`, `lastAt`, `count`, `lowestKg`, `weightKg`, `moisture`, `temperatureC`, `humidityPercent`, `battery`)
	VALUES (NEW.`deviceId`, substr(NEW.`at_instant`, 1, 13), NEW.`at_instant`, NEW.`at_instant`, 1, NEW.`weightKg`, NEW.`weightKg`, NEW.`moisture`, NEW.`temperatureC`, NEW.`humidityPercent`, NEW.`battery`)
	ON CONFLICT (`deviceId`, `hour`) DO UPDATE SET
		`weightKg` = CASE WHEN excluded.`lastAt` >= `lastAt` THEN coalesce(excluded.`weightKg`, `weightKg`) ELSE coalesce(`weightKg`, excluded.`weightKg`) END,
		`moisture` = CASE WHEN excluded.`lastAt` >= `lastAt` THEN coalesce(excluded.`moisture`, `moisture`) ELSE coalesce(`moisture`, excluded.`moisture`) END,
		`temperatureC` = CASE WHEN excluded.`lastAt` >= `lastAt` THEN coalesce(excluded.`temperatureC`, `temperatureC`) ELSE coalesce(`temperatureC`, excluded.`temperatureC`) END,
		`humidityPercent` = CASE WHEN excluded.`lastAt` >= `lastAt` THEN coalesce(excluded.`humidityPercent`, `humidityPercent`) ELSE coalesce(`humidityPercent`, excluded.`humidityPercent`) END,
		`battery` = CASE WHEN excluded.`lastAt` >= `lastAt` THEN coalesce(excluded.`battery`, `battery`) ELSE coalesce(`battery`, excluded.`battery`) END,
		`lowestKg` = min(coalesce(`lowestKg`, excluded.`lowestKg`), coalesce(excluded.`lowestKg`, `lowestKg`)),
		`firstAt` = min(`firstAt`, excluded.`firstAt`),
		`lastAt` = max(`lastAt`, excluded.`lastAt`),
		`count` = `count` + 1;
END;
