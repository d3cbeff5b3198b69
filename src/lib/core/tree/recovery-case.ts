import { rotKnown } from './rot-known';
import { logOdds } from '../maths/odds';
import type { TreeRecords } from './case';
import { daysBetween } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import { crownLeft } from '../aftercare/book/effects';
import { seasonFit } from '../climate/windows';
import { bearsAlways, isTender } from '../vocabulary/kind';
import { liftsDone, rootLosses, type LossRecords } from './losses';
import { looksSeen } from './looks';
import { survival } from '../examine/triage/triage';
import type { Values } from '../values/values';
import type { FunctionEstimate } from '../aftercare/water/root-function';
import { leafCalendar } from './tree-demand';
import type { SeriesDay } from '../climate/series';
import { expectedOn, expectedRootFunction } from '../recovery/expected';
import type { RecoveryCase } from '../recovery/forecast';
import { readingsOf, type Observation } from '../examine/looks/observation';
import { seasonPoint, seasonsOf, type SeasonPoint } from '../recovery/season';

/** Day from which recovery is counted, and what happened on it. */
export function recoverySince(
	records: LossRecords,
	values: Values
): { on: string; what: 'root-work' | 'lift' | 'planting' | 'taking-in' } {
	const last = rootLosses(records, values).done.at(-1);
	const cutOn = last?.on ?? '';
	const plantedOn = records.plantings.at(-1)?.plantedOn ?? '';
	if (cutOn === '' && plantedOn === '') return { on: records.tree.takenInOn, what: 'taking-in' };
	return cutOn >= plantedOn
		? { on: cutOn, what: last?.by === 'lift' ? 'lift' : 'root-work' }
		: { on: plantedOn, what: 'planting' };
}

/** The look before the work that the chance is judged by: the last decision near it, else what was written at taking in. */
function lookBefore(records: TreeRecords, sinceOn: string, values: Values): Parameters<typeof survival>[0] {
	const before = records.triages.findLast(
		(one) =>
			one.decidedOn <= sinceOn && daysBetween(one.decidedOn, sinceOn) <= values['forecast.decisionDays']
	) ?? {
		purpose: 'treat' as const,
		vitality: records.tree.vigour,
		scratchAlive: null,
		pests: 'unknown' as const,
		rootsKept: null
	};
	// What its log says of a lift outranks what was thought before it.
	const lift = liftsDone(records, values).findLast(
		(one) => one.on <= sinceOn && daysBetween(one.on, sinceOn) <= values['work.liftCountsDays']
	);
	return lift ? { ...before, purpose: 'lift', rootsKept: lift.kept.share } : before;
}

/**
 * Share of a whole crown that it began with, as it was last seen in leaf on or before the day: what was cut, burnt or dropped until
 * then is allowed for, and what follows is read as its progress. 1 where nobody looked.
 */
function crownAtStart(
	kind: TreeRecords['kind'],
	looks: readonly Observation[],
	book: TreeRecords['book'],
	place: Place,
	on: string,
	values: Values
): number {
	const evergreen = bearsAlways(kind);
	const inLeaf = leafCalendar(kind, place, values);
	const seen = looks.findLast(
		(look) =>
			look.leafCover !== null &&
			look.observedOn <= on &&
			daysBetween(look.observedOn, on) <= values['forecast.coverDays'] &&
			(evergreen || inLeaf(look.observedOn))
	);
	// What was cut or burnt between that look and the start is missing from it then.
	return (seen?.leafCover ?? 1) * crownLeft(book, seen?.observedOn ?? '', on);
}

/**
 * A tree as the forecast of its recovery takes it.
 * @param series weather of its place, as far as it is known
 * @param course root function by its weighings; empty where there are none
 */
export function recoveryCase(
	records: TreeRecords,
	place: Place,
	series: readonly SeriesDay[],
	course: readonly FunctionEstimate[],
	referenceShootMm: number | null,
	today: string,
	values: Values
): RecoveryCase {
	const { tree, kind } = records;
	const seen = looksSeen(records, values);
	const since = recoverySince(records, values);
	const { found, done, planned } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0);
	const tender = isTender(kind);
	const first = losses.map((loss) => loss.on).sort()[0];
	const before = losses.filter((loss) => loss.on <= since.on);
	const begin =
		first && first <= since.on
			? (expectedOn(expectedRootFunction(before, place, first, since.on, values, 1), since.on)?.expected ?? 1)
			: 1;
	const chance = survival(
		lookBefore(records, since.on, values),
		{
			group: kind.group,
			reserves: tree.reserves,
			trunkDiameterMm: tree.trunkDiameterMm,
			seasonFit: seasonFit(kind, place, since.on, values),
			windowOn: null,
			rotChance: rotKnown(records, today, values)?.chance ?? null
		},
		values
	);
	const taken = done
		.filter((loss) => loss.by !== 'lift' && loss.on === since.on)
		.reduce((sum, loss) => sum + loss.share, 0);
	const spread = (logOdds(chance.high) - logOdds(chance.low)) / 2 / 1.2816;
	const seasons = seasonsOf(place, tender, since.on, today, values);
	const progress = new Map<string, SeasonPoint>();
	const progressOn = (on: string): number => {
		const known = progress.get(on);
		if (known) return known.progress;
		const point = seasonPoint(seasons, on, since.on, series, values);
		progress.set(on, point);
		return point.progress;
	};
	let lastSeen = '';
	// What was cut off it is allowed for in its leaves; what burnt or broke since is read as seen.
	const cutSince = records.book.filter((entry) => entry.kind === 'crown-cut');
	const functionSeen = course.flatMap(({ on, phi, low, high, seen }) => {
		if (
			seen === null ||
			on <= since.on ||
			(lastSeen !== '' && daysBetween(lastSeen, on) < values['forecast.weighApartDays'])
		)
			return [];
		lastSeen = on;
		return [{ on, phi, sd: (high - low) / 2 / 1.645 }];
	});
	const own = Math.max(
		0,
		...readingsOf(
			seen.filter((look) => look.observedOn <= since.on),
			'shootExtensionMm'
		).map((reading) => reading.value)
	);
	return {
		sinceOn: since.on,
		today,
		odds: logOdds(chance.chance) + values['forecast.lossOdds'] * Math.min(1, taken),
		oddsSpread: spread,
		begin,
		losses: [...losses.filter((loss) => loss.on > since.on), ...planned.filter((loss) => loss.on > today)],
		place: {
			kind: place.kind,
			latitudeDeg: place.latitudeDeg,
			elevationM: place.elevationM,
			heldMinimumC: place.heldMinimumC
		},
		tender,
		evergreen: bearsAlways(kind),
		looks: seen
			.filter((look) => look.observedOn > since.on && look.observedOn <= today)
			.map((look) => ({
				observedOn: look.observedOn,
				buds: look.buds,
				leafCover:
					look.leafCover === null
						? null
						: Math.min(1, look.leafCover / Math.max(0.05, crownLeft(cutSince, since.on, look.observedOn))),
				leafState: look.leafState,
				shootExtensionMm: look.shootExtensionMm,
				diebackLimitMm: look.diebackLimitMm,
				firmness: look.firmness,
				whiteTips: look.whiteTips,
				smell: look.smell,
				progress: progressOn(look.observedOn)
			})),
		functionSeen,
		healthyShootMm: referenceShootMm ?? (own > 0 ? own : null),
		crownAtStart: crownAtStart(kind, seen, records.book, place, since.on, values),
		heightMm: tree.heightM === null ? null : tree.heightM * 1000
	};
}
