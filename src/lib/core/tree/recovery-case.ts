import { rotToday } from './rot-known';
import { logOdds } from '../maths/odds';
import type { TreeRecords } from './case';
import { daysBetween } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import { crownLeft } from '../aftercare/book/effects';
import { climateOf } from '../climate/normals';
import { seasonFit } from '../climate/windows';
import { bearsAlways, isTender } from '../vocabulary/kind';
import { liftsDone, rootLosses, type LossRecords } from './losses';
import { looksSeen } from './looks';
import { survival } from '../examine/triage/triage';
import type { Values } from '../values/values';
import type { FunctionEstimate } from '../aftercare/water/root-function';
import { Z80, Z90 } from '../maths/normal';
import { leafCalendar } from './tree-demand';
import type { SeriesDay } from '../climate/series';
import { expectedOn, expectedRootFunction } from '../recovery/expected';
import type { RecoveryCase } from '../recovery/forecast';
import { readingsOf, type Observation } from '../examine/looks/observation';
import { seasonPoint, seasonsOf } from '../recovery/season';

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
	{ kind, book }: TreeRecords,
	looks: readonly Observation[],
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

/** What is known round a tree: where it stands, the weather there, its root function and its twin. */
export interface Around {
	place: Place;
	/** Weather of its place, as far as it is known. */
	series: readonly SeriesDay[];
	/** Root function by its weighings; empty where there are none. */
	course: readonly FunctionEstimate[];
	/** Shoots of a healthy one over a season, mm; null where none is known. */
	referenceShootMm: number | null;
	/** Its healthy twin, where one is named whose shoots nobody measured. */
	referenceUnmeasured?: string | null;
}

/** A tree as the forecast of its recovery takes it. */
export function recoveryCase(
	records: TreeRecords,
	around: Around,
	today: string,
	values: Values
): RecoveryCase {
	const { tree, kind } = records;
	const { place } = around;
	const seen = looksSeen(records, values);
	const sinceOn = recoverySince(records, values).on;
	const { found, done, planned } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0);
	const own = Math.max(
		0,
		...readingsOf(
			seen.filter((look) => look.observedOn <= sinceOn),
			'shootExtensionMm'
		).map((reading) => reading.value)
	);
	return {
		sinceOn,
		today,
		...oddsAtWork(records, place, sinceOn, today, values),
		begin: functionAtWork(losses, place, sinceOn, values),
		losses: [...losses.filter((loss) => loss.on > sinceOn), ...planned.filter((loss) => loss.on > today)],
		place: climateOf(place),
		tender: isTender(kind),
		evergreen: bearsAlways(kind),
		looks: looksForForecast(records, seen, around, today, values),
		functionSeen: weighedApart(around.course, sinceOn, values),
		healthyShootMm: around.referenceShootMm ?? (own > 0 ? own : null),
		referenceShootMm: around.referenceShootMm,
		crownAtStart: crownAtStart(records, seen, place, sinceOn, values),
		heightMm: tree.heightM === null ? null : tree.heightM * 1000
	};
}

/** Root function expected on the day of the work, from what was lost until then. */
function functionAtWork(
	losses: readonly { on: string; share: number }[],
	place: Place,
	sinceOn: string,
	values: Values
): number {
	const [first] = losses.map((loss) => loss.on).sort();
	if (!first || first > sinceOn) return 1;
	const before = losses.filter((loss) => loss.on <= sinceOn);
	return (
		expectedOn(
			expectedRootFunction(before, place, { from: first, to: sinceOn, stepDays: 1 }, values),
			sinceOn
		)?.expected ?? 1
	);
}

/** Log-odds of living through the work, as judged before it and lowered by what was taken then, and how unsure they are. */
function oddsAtWork(
	records: TreeRecords,
	place: Place,
	sinceOn: string,
	today: string,
	values: Values
): Pick<RecoveryCase, 'odds' | 'oddsSpread'> {
	const { tree, kind } = records;
	const chance = survival(
		lookBefore(records, sinceOn, values),
		{
			group: kind.group,
			reserves: tree.reserves,
			trunkDiameterMm: tree.trunkDiameterMm,
			seasonFit: seasonFit(kind, place, sinceOn, values),
			windowOn: null,
			rotChance: rotToday(records, today, values)
		},
		values
	);
	const taken = rootLosses(records, values)
		.done.filter((loss) => loss.by !== 'lift' && loss.on === sinceOn)
		.reduce((sum, loss) => sum + loss.share, 0);
	return {
		odds: logOdds(chance.chance) + values['forecast.lossOdds'] * Math.min(1, taken),
		oddsSpread: (logOdds(chance.high) - logOdds(chance.low)) / 2 / Z80
	};
}

/** Looks since the work, each with where it stood in the season; what was cut off the crown since is allowed for in its leaves. */
function looksForForecast(
	records: TreeRecords,
	seen: readonly Observation[],
	{ place, series }: Around,
	today: string,
	values: Values
): RecoveryCase['looks'] {
	const sinceOn = recoverySince(records, values).on;
	const seasons = seasonsOf(place, isTender(records.kind), sinceOn, today, values);
	// What was cut off it is allowed for in its leaves; what burnt or broke since is read as seen.
	const cutSince = records.book.filter((entry) => entry.kind === 'crown-cut');
	return seen
		.filter((look) => look.observedOn > sinceOn && look.observedOn <= today)
		.map(({ observedOn, leafCover, ...look }) => ({
			observedOn,
			buds: look.buds,
			leafCover:
				leafCover === null
					? null
					: Math.min(
							1,
							leafCover / Math.max(values['forecast.leastCrown'], crownLeft(cutSince, sinceOn, observedOn))
						),
			leafState: look.leafState,
			shootExtensionMm: look.shootExtensionMm,
			diebackLimitMm: look.diebackLimitMm,
			firmness: look.firmness,
			whiteTips: look.whiteTips,
			smell: look.smell,
			progress: seasonPoint(seasons, observedOn, sinceOn, series, values).progress
		}));
}

/** Root function as weighed since the work, thinned so that the points are apart. */
function weighedApart(
	course: readonly FunctionEstimate[],
	sinceOn: string,
	values: Values
): RecoveryCase['functionSeen'] {
	let lastOn = '';
	return course.flatMap(({ on, phi, low, high, seen }) => {
		if (seen === null || on <= sinceOn) return [];
		if (lastOn !== '' && daysBetween(lastOn, on) < values['forecast.weighApartDays']) return [];
		lastOn = on;
		return [{ on, phi, sd: (high - low) / 2 / Z90 }];
	});
}
