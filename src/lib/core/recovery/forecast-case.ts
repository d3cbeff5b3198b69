import type { PlaceClimate } from '../climate/normals';
import type { LookSeen } from './evidence';
import type { RootLoss } from './expected';

/** What the forecast is given of a tree. */
export interface RecoveryCase {
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	today: string;
	/** Log-odds of living through it, as judged at the work, and how unsure that is. */
	odds: number;
	oddsSpread: number;
	/** Root function expected on the day of the work, its loss counted. */
	begin: number;
	/** Losses after it, done and planned. */
	losses: readonly RootLoss[];
	place: PlaceClimate;
	tender: boolean;
	evergreen: boolean;
	looks: readonly LookSeen[];
	/** Root function by weighings, thinned so that they are apart. */
	functionSeen: readonly { on: string; phi: number; sd: number }[];
	/** Shoots of a healthy reference over a season, mm; null where there is none. */
	healthyShootMm: number | null;
	/** Share of a whole crown that was in leaf, or would have been in its season, when it began: what was cut, burnt or dropped before is allowed for. Default 1. */
	crownAtStart?: number;
	/** Height of the living wood at the start, mm; null or left out where it is not known. */
	heightMm?: number | null;
}
