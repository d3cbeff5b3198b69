import type { TreeRecords } from './case';
import { addDays } from '../maths/calendar';
import type { Values } from '../values/values';
import type { Fact } from './fact';
import { bodyFacts, type BodyFacts } from './facts/body';
import { leaveFacts, type LeaveFacts } from './facts/leave';
import { lifeFacts, type LifeFacts } from './facts/life';
import { pestsOf, type PestsSeen } from './facts/pests';
import { rootFacts, type RootFacts } from './facts/roots';
import { sayingsOf } from './facts/said';
import { whereFacts, type LiftAfter, type WhereFacts } from './facts/where';

export type { PestsSeen } from './facts/pests';
export type { Stands } from './facts/where';

/**
 * How a tree stands on a day: every fact once, with its day, the record it comes from and how it is known. Whatever shows, judges
 * or reckons something of a tree reads it here.
 */
export interface Standing extends BodyFacts, LifeFacts, RootFacts, WhereFacts, LeaveFacts {
	on: string;
	pests: Fact<PestsSeen>;
}

/**
 * Folds the records of a tree into how it stands on a day. Pure; a record of a later day says nothing.
 * @param on day, `YYYY-MM-DD`
 * @returns every fact, unknown ones said to be so
 */
export function standingOf(records: TreeRecords, on: string, values: Values): Standing {
	const sayings = sayingsOf(records, on, values);
	return {
		on,
		...bodyFacts(sayings),
		...lifeFacts(sayings),
		pests: pestsOf(sayings),
		...rootFacts(sayings),
		...whereFacts(sayings),
		...leaveFacts(sayings)
	};
}

/** A tree out of the ground that is neither in a pot nor planted, and since when. */
export const outSince = ({ stands }: Pick<Standing, 'stands'>): { on: string; how: LiftAfter } | null =>
	stands.on !== null && (stands.value === 'out' || stands.value === 'wrapped' || stands.value === 'heeled-in')
		? { on: stands.on, how: stands.value }
		: null;

/** Whether what is known of its water is too old to work by: then it is asked for, never reckoned on as good. */
export const waterKnown = ({ waterSeen, on }: Pick<Standing, 'waterSeen' | 'on'>, values: Values): boolean =>
	waterSeen.on !== null && waterSeen.on >= addDays(on, -values['decision.waterKnownDays']);
