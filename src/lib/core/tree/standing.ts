import type { BookDetails, BookKind } from '../aftercare/book/book';
import type { TreeRecords } from './case';
import { addDays, daysBetween } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import type { SignId } from '../vocabulary/signs';
import { liftAfters } from '../replant/lifting/lift';
import { diebackLimit } from '../examine/measuring/dieback';
import type { PottingMix } from '../replant/mixes/bench-test';
import type { Pot } from '../replant/pots/volume';
import { expectedOn, expectedRootFunction } from '../recovery/expected';
import type { Observation } from '../examine/looks/observation';
import type { Permission } from '../vocabulary/words';
import type { Values } from '../values/values';
import { usualCrownWidthMm } from '../replant/pots/demand';
import { ballOf } from './ball';
import { inOrder, latest, unknownFact, within, type Fact, type RecordRef, type Said } from './fact';
import { liftsDone, rootLosses } from './losses';
import { ofThePot } from './shared-pot';

type LiftAfter = (typeof liftAfters)[number];
/** Where its roots are: in a pot, in the ground, or out of it since a lift. */
export type Stands = 'potted' | 'in-ground' | LiftAfter;
export type PestsSeen = 'none' | 'leaf' | 'root';

/**
 * How a tree stands on a day: every fact once, with its day, the record it comes from and how it is known. Whatever shows, judges
 * or reckons something of a tree reads it here.
 */
export interface Standing {
	on: string;
	trunkMm: Fact<number>;
	heightMm: Fact<number>;
	crownWidthMm: Fact<number>;
	/** Share of the crown in leaf. */
	leafCover: Fact<number>;
	/** Share of the leaf area that was last cut or burnt off. */
	crownTaken: Fact<number>;
	lean: Fact<{ towardDeg: number; deg: number }>;
	/** How far it was tilted when it was last set, as somebody saw it. */
	tiltDeg: Fact<number>;
	/** Side that the light comes from. */
	lightDeg: Fact<number>;
	leafState: Fact<NonNullable<Observation['leafState']>>;
	buds: Fact<NonNullable<Observation['buds']>>;
	/** A scratched twig is green or moist white. */
	twigAlive: Fact<boolean>;
	/** Height to which wood lives. */
	livingLimitMm: Fact<number>;
	firmness: Fact<NonNullable<Observation['firmness']>>;
	pests: Fact<PestsSeen>;
	/** Living absorbing roots, of what it had before anything was lost. */
	rootsLiving: Fact<number>;
	/** Roots on the map, in number. */
	rootsMapped: Fact<number>;
	ballWidthMm: Fact<number>;
	ballDepthMm: Fact<number>;
	ballKg: Fact<number>;
	stands: Fact<Stands>;
	pot: Fact<Pot>;
	mix: Fact<PottingMix>;
	place: Fact<string>;
	ph: Fact<number>;
	/** Day its water was last poured, weighed, felt or probed, as the value. */
	waterSeen: Fact<string>;
	permission: Fact<Permission>;
	protectedSpecies: Fact<boolean>;
	servicesLocated: Fact<boolean>;
}

const ref = (record: RecordRef['record'], { id }: { id: string }): RecordRef => ({ record, id });

const LEAF_PESTS: readonly SignId[] = ['insects-seen', 'sticky-leaves', 'holes-sawdust'];
const ROOT_PESTS: readonly SignId[] = ['galls-wool', 'root-grubs'];

/**
 * Folds the records of a tree into how it stands on a day. Pure; a record of a later day says nothing.
 * @param on day, `YYYY-MM-DD`
 */
export function standingOf(records: TreeRecords, on: string, values: Values): Standing {
	const { tree, rootMap } = records;
	const pot = ofThePot(records);
	const ofTree = ref('tree', tree);
	const place = records.places.find((candidate) => candidate.id === tree.placeId) ?? null;
	const grade = (signId: SignId): Said<number>[] =>
		records.examinations.flatMap((look) => {
			const found = look.findings.find((finding) => finding.signId === signId);
			return found
				? [
						{
							value: found.grade,
							on: look.examinedOn,
							known: found.measuredBy ? ('measured' as const) : ('seen' as const),
							from: ref('examination', look),
							by: 'examination'
						}
					]
				: [];
		});
	const looked = <T>(read: (look: Observation) => T | null): Said<T>[] =>
		records.observations.flatMap((look) => {
			const value = read(look);
			return value === null
				? []
				: [{ value, on: look.observedOn, known: 'seen' as const, from: ref('look', look), by: 'look' }];
		});
	const map = <A, B>(said: readonly Said<A>[], turn: (value: A) => B | null): Said<B>[] =>
		said.flatMap(({ low: _low, high: _high, ...one }) => {
			const value = turn(one.value);
			return value === null ? [] : [{ ...one, value }];
		});
	const fact = <T>(said: readonly Said<T>[], same?: (a: T, b: T) => boolean): Fact<T> =>
		latest(inOrder(said), on, same);

	const lifts = records.lifts.flatMap((lift) => (lift.log ? [{ id: lift.id, log: lift.log }] : []));
	const decided = records.triages.filter((one) => one.decidedOn <= on);
	const booked = <T>(kind: BookKind, read: (details: BookDetails) => T | null): Said<T>[] =>
		records.book.flatMap((one) => {
			const value = one.kind === kind ? read(one.details) : null;
			return value === null
				? []
				: [{ value, on: one.on, known: 'seen' as const, from: ref('book', one), by: 'field book' }];
		});
	const taps = records.measurements.flatMap((one) =>
		one.raw.tool === 'scratch-tap' ? [{ id: one.id, on: one.measuredOn, raw: one.raw }] : []
	);
	const widths = records.plantings.flatMap((one): Said<number>[] =>
		one.crownWidthMm === null
			? []
			: [
					{
						value: one.crownWidthMm,
						on: one.plantedOn,
						// As the form suggested it, nobody measured it.
						known: (
							one.assumed
								? one.assumed.includes('crownWidthMm')
								: one.crownWidthMm === Math.round(usualCrownWidthMm(tree, values))
						)
							? 'assumed'
							: 'seen',
						from: ref('planting', one),
						by: 'planting'
					}
				]
	);
	const planted = records.groundPlans.flatMap((one) =>
		one.doneOn && one.hole ? [{ id: one.id, on: one.doneOn, hole: one.hole }] : []
	);

	return {
		on,
		trunkMm: fact<number>(
			[
				{ value: tree.trunkDiameterMm, on: tree.takenInOn, known: 'measured', from: ofTree, by: 'taking in' },
				...(rootMap && rootMap.segments.length > 0
					? [
							{
								value: rootMap.trunkDiameterMm,
								on: rootMap.mappedOn,
								known: 'measured' as const,
								from: ref('root-map', rootMap),
								by: 'root map'
							}
						]
					: [])
			],
			within(0.1)
		),
		heightMm: fact<number>(
			[
				...(tree.heightM === null
					? []
					: [
							{
								value: tree.heightM * 1000,
								on: tree.takenInOn,
								known: 'seen' as const,
								from: ofTree,
								by: 'taking in'
							}
						]),
				...booked('crown-cut', ({ heightMm }) => heightMm),
				...booked('stem-sawn', ({ heightMm }) => heightMm),
				...taps.map((one) => ({
					value: one.raw.heightMm,
					on: one.on,
					known: 'measured' as const,
					from: ref('measurement', one),
					by: 'scratch and tap'
				}))
			],
			within(0.15)
		),
		crownWidthMm: fact<number>([
			...widths,
			{
				value: usualCrownWidthMm(tree, values),
				on: tree.takenInOn,
				known: 'assumed',
				from: ofTree,
				by: tree.heightM === null ? 'from its trunk' : 'from its height'
			}
		]),
		leafCover: fact(
			looked((look) => look.leafCover),
			(a, b) => Math.abs(a - b) <= 0.15
		),
		crownTaken: fact<number>(
			[
				...booked('crown-cut', ({ share, choice }) => (choice === 'dead' ? null : share)),
				...booked('crown-burnt', ({ share }) => share)
			],
			() => true
		),
		lean: fact<{ towardDeg: number; deg: number }>(
			[
				...(rootMap?.lean
					? [
							{
								value: rootMap.lean,
								on: rootMap.mappedOn,
								known: 'measured' as const,
								from: ref('root-map', rootMap),
								by: 'root map'
							}
						]
					: []),
				...booked('leans', ({ bearingDeg, leanDeg }) =>
					bearingDeg === null || leanDeg === null ? null : { towardDeg: bearingDeg, deg: leanDeg }
				)
			],
			(a, b) => Math.abs(a.deg - b.deg) <= 3
		),
		tiltDeg: fact<number>(
			records.plantings.flatMap((one): Said<number>[] =>
				one.seat?.tiltDeg === null || one.seat?.tiltDeg === undefined
					? []
					: [
							{
								value: one.seat.tiltDeg,
								on: one.plantedOn,
								known: 'measured',
								from: ref('planting', one),
								by: 'planting'
							}
						]
			),
			() => true
		),
		lightDeg: fact<number>(
			[
				...booked('light-from', ({ bearingDeg }) => bearingDeg),
				...booked('turned', ({ bearingDeg }) => bearingDeg)
			],
			() => true
		),
		leafState: fact(looked((look) => look.leafState)),
		buds: fact<NonNullable<Observation['buds']>>([
			...looked((look) => look.buds),
			...map(grade('buds-late'), (found) => (found > 0 ? ('none' as const) : null))
		]),
		twigAlive: fact<boolean>([
			...map(grade('no-green-bark'), (found) => found === 0),
			...taps.map((one) => ({
				value: one.raw.points.some((point) => point.reading === 'alive'),
				on: one.on,
				known: 'measured' as const,
				from: ref('measurement', one),
				by: 'scratch and tap'
			})),
			...looked((look) => (look.diebackLimitMm === null ? null : look.diebackLimitMm > 0)),
			...records.triages.flatMap((one): Said<boolean>[] =>
				one.scratchAlive === null
					? []
					: [
							{
								value: one.scratchAlive,
								on: one.decidedOn,
								known: 'seen',
								from: ref('decision', one),
								by: 'before the work'
							}
						]
			)
		]),
		livingLimitMm: fact<number>(
			[
				...looked((look) => look.diebackLimitMm),
				...taps.map((one) => {
					const { limitMm, lowMm, highMm } = diebackLimit(one.raw, values);
					return {
						value: limitMm,
						low: lowMm,
						high: highMm,
						on: one.on,
						known: 'measured' as const,
						from: ref('measurement', one),
						by: 'scratch and tap'
					};
				})
			],
			within(0.15)
		),
		firmness: fact<NonNullable<Observation['firmness']>>([
			...looked((look) => look.firmness),
			...map(grade('leans-rocks'), (found) => (['firm', 'moves', 'loose'] as const)[found] ?? null)
		]),
		pests: pestsOf(records, grade, looked, on),
		rootsLiving: livingRoots(records, place, on, values),
		rootsMapped:
			rootMap && rootMap.segments.length > 0 && rootMap.mappedOn <= on
				? {
						...unknownFact<number>(),
						value: rootMap.segments.length,
						on: rootMap.mappedOn,
						known: 'measured',
						from: ref('root-map', rootMap),
						by: 'root map'
					}
				: unknownFact(),
		...ballOf(records, on, values),
		ballKg: fact(
			lifts.flatMap(({ id, log }): Said<number>[] =>
				log.massKg === null
					? []
					: [
							{
								value: log.massKg,
								on: log.liftedOn,
								known: 'measured',
								from: { record: 'lift', id },
								by: 'scale'
							}
						]
			)
		),
		stands: standsOf(records, lifts, planted, on),
		...potOf(pot, on),
		place: place
			? {
					...unknownFact<string>(),
					value: place.name,
					on:
						[...records.plantings, ...planted.map((one) => ({ plantedOn: one.on, placeId: tree.placeId }))]
							.filter((one) => one.placeId === place.id && one.plantedOn <= on)
							.map((one) => one.plantedOn)
							.sort()
							.at(-1) ?? tree.takenInOn,
					known: 'seen',
					from: ofTree,
					by: ''
				}
			: unknownFact(),
		ph: fact(
			records.groundPlans.flatMap((one): Said<number>[] =>
				one.sulphur
					? [
							{
								value: one.sulphur.phNow,
								on: one.plannedOn,
								known: 'measured',
								from: ref('ground-works', one),
								by: 'ground works'
							}
						]
					: []
			),
			(a, b) => Math.abs(a - b) <= 0.5
		),
		waterSeen: fact<string>(
			[
				...pot.waterings.map((one) => ({
					value: one.wateredOn,
					on: one.wateredOn,
					known: 'seen' as const,
					from: ref('watering', one),
					by: 'watered'
				})),
				...pot.measurements.flatMap((one): Said<string>[] => {
					const by = { weighing: 'weighed', moisture: 'felt or probed', outflow: 'watered' }[
						one.raw.tool as 'weighing'
					];
					return by === undefined
						? []
						: [
								{
									value: one.measuredOn,
									on: one.measuredOn,
									known: 'measured',
									from: ref('measurement', one),
									by
								}
							];
				}),
				...records.observations.flatMap((one): Said<string>[] =>
					one.weightKg === null
						? []
						: [
								{
									value: one.observedOn,
									on: one.observedOn,
									known: 'measured',
									from: ref('look', one),
									by: 'weighed'
								}
							]
				)
			],
			() => true
		),
		permission: fact<Permission>(
			[
				{ value: tree.permission, on: tree.takenInOn, known: 'seen', from: ofTree, by: 'taking in' },
				...decided.map((one) => ({
					value: one.permission,
					on: one.decidedOn,
					known: 'seen' as const,
					from: ref('decision', one),
					by: 'before the work'
				}))
			],
			() => true
		),
		protectedSpecies: fact(decided.flatMap((one): Said<boolean>[] => knownHere(one.protectedSpecies, one))),
		servicesLocated: fact(decided.flatMap((one): Said<boolean>[] => knownHere(one.servicesLocated, one)))
	};
}

const knownHere = (value: boolean | null, decision: { id: string; decidedOn: string }): Said<boolean>[] =>
	value === null
		? []
		: [
				{
					value,
					on: decision.decidedOn,
					known: 'seen',
					from: ref('decision', decision),
					by: 'before the work'
				}
			];

/**
 * Pests by where they sit: what was seen at the root stands until the root was looked at again, and likewise on the leaf, since "none" on
 * a leaf says nothing of the root.
 */
function pestsOf(
	records: TreeRecords,
	grade: (sign: SignId) => Said<number>[],
	looked: <T>(read: (look: Observation) => T | null) => Said<T>[],
	on: string
): Fact<PestsSeen> {
	const said = (signs: readonly SignId[], where: 'leaf' | 'root'): Said<PestsSeen>[] =>
		signs
			.flatMap(grade)
			.map(({ value, ...one }): Said<PestsSeen> => ({ ...one, value: value > 0 ? where : 'none' }));
	const decided = records.triages.flatMap((one): Said<PestsSeen>[] =>
		one.pests === 'unknown'
			? []
			: [
					{
						value: one.pests,
						on: one.decidedOn,
						known: 'seen',
						from: ref('decision', one),
						by: 'before the work'
					}
				]
	);
	const worstFirst = (list: readonly Said<PestsSeen>[], where: 'leaf' | 'root'): Fact<PestsSeen> => {
		const known = inOrder(list).filter((one) => one.on <= on);
		const day = known.at(-1)?.on;
		// Of one day what was found counts, whatever another line of that day left empty.
		const found = known.filter((one) => one.on === day && one.value === where);
		return latest(found.length > 0 ? found : known, on);
	};
	const root = worstFirst(
		[...said(ROOT_PESTS, 'root'), ...decided.filter((one) => one.value !== 'leaf')],
		'root'
	);
	const leaf = worstFirst(
		[
			...said(LEAF_PESTS, 'leaf'),
			...looked((look) => (look.pests === null ? null : look.pests === 'none' ? 'none' : 'leaf')),
			...decided.filter((one) => one.value !== 'root')
		],
		'leaf'
	);
	if (root.value === 'root') return root;
	return leaf.value === null
		? root
		: leaf.value === 'leaf' || (leaf.on ?? '') >= (root.on ?? '')
			? leaf
			: root;
}

/** Living absorbing roots as expected from what was lost and what grew since; unknown where nothing was ever counted. */
function livingRoots(records: TreeRecords, place: Place | null, on: string, values: Values): Fact<number> {
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.on <= on);
	const first = losses.map((loss) => loss.on).sort()[0];
	if (!first || !place) return unknownFact();
	// Growth between two days is exact: only the day itself is asked for.
	const span = Math.max(1, daysBetween(first, on));
	const now = (of: readonly { on: string; share: number }[]): number =>
		expectedOn(expectedRootFunction(of, place, first, on, values, span), on)?.expected ?? 1;
	const worst = [...found, ...done.map((loss) => ({ ...loss, share: loss.high }))].filter(
		(loss) => loss.on <= on
	);
	const best = [...found, ...done.map((loss) => ({ ...loss, share: loss.low }))].filter(
		(loss) => loss.on <= on
	);
	const lift = liftsDone(records, values).findLast((one) => one.on <= on);
	const cut = done.some((loss) => loss.by === 'cut' && loss.on <= on);
	const named = [
		...(found.length > 0 ? ['roots found dead'] : []),
		...(lift ? [lift.kept.from === 'map' ? 'the lift, by the map' : 'the lift, by its ball'] : []),
		...(cut ? ['cuts'] : []),
		...(done.some((loss) => loss.by === 'ball' && loss.on <= on) ? ['work on its ball'] : [])
	];
	return {
		...unknownFact<number>(),
		value: now(losses),
		low: now(worst),
		high: now(best),
		on:
			losses
				.map((loss) => loss.on)
				.sort()
				.at(-1) ?? first,
		known: 'worked-out',
		from: lift ? { record: 'lift', id: lift.id } : records.rootMap ? ref('root-map', records.rootMap) : null,
		by: `${named.join(', ')}, and the warmth since`
	};
}

type Logged = { id: string; log: NonNullable<TreeRecords['lifts'][number]['log']> };

/** Where its roots are since the last work that moved them. */
function standsOf(
	records: TreeRecords,
	lifts: readonly Logged[],
	planted: readonly { id: string; on: string }[],
	on: string
): Fact<Stands> {
	const { tree } = records;
	const moves: Said<Stands>[] = inOrder<Stands>([
		{
			value: tree.situation === 'just-lifted' ? 'out' : tree.situation,
			on: tree.takenInOn,
			known: 'seen',
			from: ref('tree', tree),
			by: 'taking in'
		},
		...lifts.map(({ id, log }): Said<Stands> => ({
			value: log.after,
			on: log.liftedOn,
			known: 'seen',
			from: { record: 'lift', id },
			by: 'lifted'
		})),
		...records.plantings.map((one): Said<Stands> => ({
			value: 'potted',
			on: one.plantedOn,
			known: 'seen',
			from: ref('planting', one),
			by: 'planted'
		})),
		...planted.map((one): Said<Stands> => ({
			value: 'in-ground',
			on: one.on,
			known: 'seen',
			from: { record: 'ground-works', id: one.id },
			by: 'planted'
		}))
	]);
	// Where it stands was said anew at taking in when that was changed later: the tree itself has the last word on pot or ground.
	const last = latest(moves, on, () => true);
	const out = last.value === 'out' || last.value === 'wrapped' || last.value === 'heeled-in';
	if (out === (tree.situation === 'just-lifted')) return last;
	return {
		...last,
		value: tree.situation === 'just-lifted' ? 'out' : tree.situation,
		from: ref('tree', tree),
		by: 'taking in'
	};
}

/** The pot it stands in and what is in it; neither for a tree that stands in none. */
function potOf(records: TreeRecords, on: string): Pick<Standing, 'pot' | 'mix'> {
	const planting = records.plantings.filter((one) => one.plantedOn <= on).at(-1);
	if (!planting || records.tree.situation !== 'potted') return { pot: unknownFact(), mix: unknownFact() };
	const common = {
		low: null,
		high: null,
		on: planting.plantedOn,
		from: ref('planting', planting),
		against: []
	};
	return {
		pot: {
			...common,
			value: planting.pot,
			known: planting.assumed?.includes('pot') ? 'assumed' : 'measured',
			by: 'planting'
		},
		mix: {
			...common,
			value: planting.mix,
			known: planting.mix.measured ? 'measured' : 'seen',
			by: planting.mix.measured ? 'bench test' : 'planting'
		}
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
