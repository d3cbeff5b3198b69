import { causeChances } from '../examine/diagnosis/diagnose';
import { rootShares } from '../roots/map/shares';
import type { Values } from '../values/values';
import { contextFor } from './carried';
import type { TreeRecords } from './case';
import { lastRootWork, rootsGone } from './losses';

/** How likely rot is by what was seen of it. */
export interface RotKnown {
	/** Day on which it was seen. */
	on: string;
	by: 'look' | 'map';
	chance: number;
}

/**
 * Chance of root or stem rot by all that was seen up to a day: as the last look gives it, and as roots that were laid open show it.
 * The worse of both counts: a clean map takes nothing from a look, nor a look from dead roots that were found.
 * @param on calendar date
 * @returns null where nobody looked at it and no root was laid open: not known is not none
 */
export function rotKnown(records: TreeRecords, on: string, values: Values): RotKnown | null {
	const look = records.examinations.findLast((examination) => examination.examinedOn <= on);
	const map = records.rootMap && records.rootMap.mappedOn <= on ? records.rootMap : null;
	const seen: RotKnown[] = [];
	if (look) {
		const { context } = contextFor(records, look.examinedOn, look.events, look.id, values);
		const rot = causeChances(context, look.findings, values).filter(
			({ conditionId }) => conditionId === 'root-rot' || conditionId === 'stem-rot'
		);
		seen.push({ on: look.examinedOn, by: 'look', chance: Math.max(0, ...rot.map(({ chance }) => chance)) });
	}
	if (map?.segments.some((segment) => segment.seenToMm !== 0)) {
		const dead = rootShares(map.segments, values).deadShare > 0;
		seen.push({ on: map.mappedOn, by: 'map', chance: dead ? values['forecast.rotChance'] : 0 });
	}
	return seen.reduce<RotKnown | null>(
		(worst, one) => (worst === null || one.chance > worst.chance ? one : worst),
		null
	);
}

/** How likely rot is by what is left of the roots. */
export type RotLeft = RotKnown | { on: string; by: 'cut-out'; chance: null };

/**
 * The same before the next work: dead roots that were all cut out since speak of rot no more. Nobody has seen what became of it then,
 * so that it is not known; it is not none.
 * @param on calendar date
 */
export function rotLeft(records: TreeRecords, on: string, values: Values): RotLeft | null {
	const found = rotKnown(records, on, values);
	if (found?.by !== 'map' || found.chance === 0) return found;
	const { rootMap, plan } = records;
	const cuts = plan?.cuts.filter((cut) => cut.doneOn !== null && cut.doneOn <= on) ?? [];
	const gone = new Set(rootsGone({ rootMap, plan: plan && { ...plan, cuts } }, values));
	const dead = rootMap?.segments.filter(({ condition }) => condition === 'dead') ?? [];
	const left = dead.some(
		({ id, deadFromMm }) =>
			!gone.has(id) && !cuts.some((cut) => cut.segmentId === id && cut.atMm <= (deadFromMm ?? 0))
	);
	const last = cuts
		.map((cut) => cut.doneOn ?? '')
		.sort()
		.at(-1);
	if (left || last === undefined) return found;
	return rotKnown({ ...records, rootMap: null }, on, values) ?? { on: last, by: 'cut-out', chance: null };
}

/**
 * Chance of rot today: as it was seen, and where rot was cut out since, what such work usually leaves of it; nobody has seen then that
 * it is gone.
 * @param today calendar date
 * @returns 0 … 1; null where nobody looked
 */
export function rotToday(records: TreeRecords, today: string, values: Values): number | null {
	const seen = rotLeft(records, today, values);
	if (!seen || seen.chance === null) return null;
	const last = lastRootWork(records, values);
	const cutOut = last !== null && last.rotWasCut && last.on >= seen.on;
	return cutOut ? seen.chance * (1 - values['rehearse.treatClears']) : seen.chance;
}
