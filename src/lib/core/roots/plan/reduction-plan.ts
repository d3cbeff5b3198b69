import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import { z } from 'zod';
import { turnDeg } from '../../maths/circular';
import { count, id, measure, share } from '../../vocabulary/fields';
import type { Values } from '../../values/values';
import { checkPlan } from './check-plan';
import { claimOf, type Claim } from './claims';
import { ledger, type LedgerCut, type LedgerMap } from './ledger';
import { roman, STAGE_LIMIT } from './plan';
import { courseLengthMm } from '../map/geometry';
import { rootMapInput, startAzimuth, type Segment } from '../map/root-map';
import { beyondShare, removedBy, rootShares, tornOnly, usualCutPlace, type RootShares } from '../map/shares';
import type { Solve } from './solver';

const place = z.strictObject({
	segmentId: id(),
	atMm: measure(0, 20_000, 'mm').default(0),
	stage: count(0, STAGE_LIMIT - 1)
});

export const reductionPlanInput = z.strictObject({
	map: rootMapInput,
	allowances: z
		.array(share())
		.min(1, { error: 'must hold at least one stage' })
		.max(STAGE_LIMIT)
		.describe('Living share that each stage may remove'),
	done: z.array(place).max(400).default([]).describe('Cuts that were made'),
	wanted: z.array(place).max(400).default([]).describe('Cuts the owner wants, in just this stage'),
	notBefore: z
		.array(z.strictObject({ segmentId: id(), stage: count(0, STAGE_LIMIT) }))
		.max(400)
		.default([])
		.describe('Roots that are not to be cut before a stage'),
	keptBecause: z
		.array(z.strictObject({ segmentId: id(), because: z.string().min(1).max(200) }))
		.max(400)
		.default([])
		.describe('Why roots are kept, where it was not the person at the map who locked them'),
	seconds: measure(0.05, 60, 's').default(3).describe('Time to look for the best plan')
});
export type ReductionPlanInput = z.infer<typeof reductionPlanInput>;

/** The same as asked from outside: unknown roots, side roots beyond their parent, and wishes that contradict are refused by their field. */
export const reductionPlanQuestion = reductionPlanInput.superRefine((input, context) => {
	const { segments } = input.map;
	const byId = new Map(segments.map((segment) => [segment.id, segment]));
	const refuse = (path: (string | number)[], message: string): void =>
		context.addIssue({ code: 'custom', path, message });
	for (const [at, segment] of segments.entries()) {
		const parent = segment.parentId === null ? undefined : byId.get(segment.parentId);
		const lengthMm = parent ? courseLengthMm(parent.course) : Infinity;
		if (segment.attachMm > lengthMm + 1)
			refuse(
				['map', 'segments', at, 'attachMm'],
				`must be at most ${measured(Math.floor(lengthMm), 'mm')}, as long as the root it leaves`
			);
	}
	for (const list of ['done', 'wanted', 'notBefore'] as const)
		for (const [at, { segmentId }] of input[list].entries())
			if (!byId.has(segmentId)) refuse([list, at, 'segmentId'], 'must be a root of the map');
	const made = new Set(input.done.map((cut) => cut.segmentId));
	const earliest = new Map(input.notBefore.map((entry) => [entry.segmentId, entry.stage]));
	const stageOf = new Map<string, number>();
	for (const [at, { segmentId, atMm, stage }] of input.wanted.entries()) {
		const segment = byId.get(segmentId);
		if (!segment) continue;
		const field = (name: string): (string | number)[] => ['wanted', at, name];
		if (segment.keep) refuse(field('segmentId'), 'must not be a root that is locked to be kept');
		else if (!segment.sourceKnown)
			refuse(field('segmentId'), 'must not be a root whose source is unknown: trace it first');
		else if (segment.seenToMm === 0 || atMm > (segment.seenToMm ?? Infinity))
			refuse(field('atMm'), 'must not lie where the root is in soil still');
		if (made.has(segmentId)) refuse(field('segmentId'), 'must not be a root that was cut already');
		if (stage >= input.allowances.length)
			refuse(field('stage'), `must be under ${input.allowances.length}, the number of stages`);
		if (stage < (earliest.get(segmentId) ?? 0))
			refuse(
				field('stage'),
				`must not be before stage ${earliest.get(segmentId) ?? 0}, which notBefore says`
			);
		const other = stageOf.get(segmentId);
		if (other !== undefined && other !== stage) refuse(field('stage'), 'must be one stage for one root');
		stageOf.set(segmentId, stage);
	}
});

const plannedCut = z.object({
	segmentId: z.string(),
	atMm: z.number(),
	stage: z.number(),
	reason: z.string(),
	whyThen: z.string().describe('Why in this stage and no earlier'),
	livingShare: z.number()
});
const leftRoot = z.object({ segmentId: z.string(), reason: z.string(), because: z.string() });

export const reductionPlanOutput = z.object({
	cuts: z.array(plannedCut),
	left: z.array(leftRoot),
	unmet: z.array(z.string()).describe('What must be cut by a stage and cannot be'),
	give: z.array(z.string()).describe('What would have to give for it'),
	worth: z.number().describe('Points of the plan'),
	gap: z
		.number()
		.nullable()
		.describe('Proven: no plan is worth more by a larger share; 0 is optimal, null: nothing was proven'),
	how: z
		.enum(['best', 'near', 'greedy'])
		.describe(
			'best: proven optimal · near: proven within the gap · greedy: the time did not do for the solver; claim by claim in their order, checked but not optimised'
		)
});
export type ReductionPlan = z.infer<typeof reductionPlanOutput>;

/** A place where a root may be cut, and what that takes. */
export interface Candidate {
	segmentId: string;
	atMm: number;
	/** Roots that go whole by it. */
	removes: readonly string[];
	/** Part of what its own root absorbs that goes, where the root itself stays; else 0. */
	shortens: number;
	/** Share of the benefit of its claim. */
	worth: number;
}

/** A must that no cut may answer, and what bars it. */
interface Barred {
	segmentId: string;
	name: string;
	because: string;
}

interface Must {
	segmentId: string;
	byStage: number;
	/** Candidates that answer it, in the stages up to `byStage`, or in just one. */
	only: number | null;
	name: string;
}

/** Everything the model is made of, before it is written for the solver. */
interface Problem {
	map: LedgerMap;
	byId: ReadonlyMap<string, Segment>;
	shares: RootShares;
	claims: ReadonlyMap<string, Claim>;
	candidates: Candidate[];
	allowances: readonly number[];
	firstStage: number;
	lostDone: number[];
	gone: ReadonlySet<string>;
	earliest: ReadonlyMap<string, number>;
	musts: Must[];
	/** What must go and may not be cut at all. */
	barred: Barred[];
	keptBecause: KeptBecause;
	values: Values;
}

/** Why roots are kept, by id, where it was not the person at the map who locked them. */
type KeptBecause = ReadonlyMap<string, string>;

/** Why a root may not be cut at all; null where it may. */
const barred = (segment: Segment, claim: Claim, keptBecause: KeptBecause): string | null =>
	segment.keep
		? (keptBecause.get(segment.id) ?? 'you locked it to be kept')
		: !segment.sourceKnown
			? 'its source is not known: trace it further'
			: segment.seenToMm === 0
				? 'it lies in soil still: lay it open first'
				: // Of a torn anchor only the tear comes off.
					segment.rootClass === 'anchor' &&
					  claim.kind !== 'rot' &&
					  claim.kind !== 'girdling' &&
					  !tornOnly(segment)
					? 'anchors are kept unless rotten or girdling'
					: null;

/** Why a cut that the owner wants is not planned. */
const barredWish = (segment: Segment, keptBecause: KeptBecause): string =>
	segment.keep
		? (keptBecause.get(segment.id) ?? 'you locked it to be kept: lift one of the two')
		: !segment.sourceKnown
			? 'its source is not known: trace it further'
			: 'the place to cut lies in soil still: lay it open first';

/** What a cut at a place takes. */
function takenAt(
	segment: Segment,
	atMm: number,
	byId: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): Omit<Candidate, 'worth'> {
	const removes = removedBy({ segmentId: segment.id, atMm }, byId, shares, values);
	return {
		segmentId: segment.id,
		atMm,
		removes,
		shortens: removes.includes(segment.id) ? 0 : beyondShare(segment, atMm, values)
	};
}

/** Places to cut a claimed root: at its base or the edge of rot, and back to each living side root before the trouble. */
export function candidatesOf(
	segment: Segment,
	claim: Claim,
	byId: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): Candidate[] {
	const at = (atMm: number, worth: number): Candidate => ({
		...takenAt(segment, atMm, byId, shares, values),
		worth
	});
	const seenToMm = segment.seenToMm ?? Infinity;
	if (claim.kind === 'rot' || tornOnly(segment)) {
		const place = usualCutPlace(segment, values);
		return place <= seenToMm ? [at(place, 1)] : [];
	}
	const backTo = (shares.children.get(segment.id) ?? [])
		.filter((side) => (shares.absorbing.get(side.id) ?? 0) > 0)
		.map((side) => Math.round(side.attachMm + side.diameterStartMm / 2 + 2))
		.filter((mm) => mm <= claim.fromMm && mm <= seenToMm);
	return [at(0, 1), ...[...new Set(backTo)].map((mm) => at(mm, values['plan.stubShare']))];
}

/** Why a claimed root has no place where it may be cut. */
const noPlace = (segment: Segment, values: Values): string =>
	usualCutPlace(segment, values) > (segment.seenToMm ?? Infinity)
		? 'the place to cut lies in soil still: lay it open first'
		: 'a root that you keep would go with it';

const keptByOwner = (removes: readonly string[], byId: ReadonlyMap<string, Segment>): boolean =>
	removes.some((removed) => byId.get(removed)?.keep);

function problemOf(input: ReductionPlanInput, values: Values): Problem {
	const { map, allowances, done, wanted, notBefore } = input;
	const byId = new Map(map.segments.map((segment) => [segment.id, segment]));
	const whole = rootShares(map.segments, values);
	const gone = new Set<string>();
	const lostDone = allowances.map(() => 0);
	// What a cut that was made took of a root can be lost only once.
	const absorbing = new Map(whole.absorbing);
	for (const cut of [...done].sort((a, b) => a.stage - b.stage)) {
		const segment = byId.get(cut.segmentId);
		if (!segment) continue;
		const { removes, shortens } = takenAt(segment, cut.atMm, byId, whole, values);
		const take = (id: string, part: number): void => {
			const left = Math.min(absorbing.get(id) ?? 0, (1 - part) * (whole.absorbing.get(id) ?? 0));
			if (cut.stage < lostDone.length)
				lostDone[cut.stage] = (lostDone[cut.stage] ?? 0) + (absorbing.get(id) ?? 0) - left;
			absorbing.set(id, left);
		};
		for (const removed of removes) {
			gone.add(removed);
			take(removed, 1);
		}
		if (shortens > 0) take(segment.id, shortens);
	}
	const shares: RootShares = { ...whole, absorbing };
	const firstStage =
		done.length > 0 ? Math.min(allowances.length - 1, Math.max(...done.map((cut) => cut.stage)) + 1) : 0;
	const treated = new Set(done.map((cut) => cut.segmentId));
	const claims = new Map<string, Claim>();
	const candidates: Candidate[] = [];
	const musts: Must[] = [];
	const cannot: Barred[] = [];
	const earliest = new Map(notBefore.map((entry) => [entry.segmentId, entry.stage]));
	const keptBecause = new Map(input.keptBecause.map((one) => [one.segmentId, one.because]));
	const wantedOf = new Map(wanted.map((cut) => [cut.segmentId, cut]));
	for (const segment of map.segments) {
		if (treated.has(segment.id) || gone.has(segment.id)) continue;
		const claim = claimOf(segment, map, values);
		if (claim) claims.set(segment.id, claim);
		const own = wantedOf.get(segment.id);
		if (
			own &&
			!segment.keep &&
			segment.sourceKnown &&
			own.atMm <= (segment.seenToMm ?? Infinity) &&
			segment.seenToMm !== 0
		) {
			const taken = takenAt(segment, own.atMm, byId, shares, values);
			candidates.push({
				...taken,
				removes: taken.removes.filter((removed) => !gone.has(removed)),
				worth: 1
			});
			musts.push({ segmentId: segment.id, byStage: own.stage, only: own.stage, name: 'what you want cut' });
			continue;
		}
		if (own)
			cannot.push({
				segmentId: segment.id,
				name: 'what you want cut',
				because: barredWish(segment, keptBecause)
			});
		if (!claim) continue;
		const bar = barred(segment, claim, keptBecause);
		const deny = (because: string): void => {
			if (claim.byStage !== null) cannot.push({ segmentId: segment.id, name: claim.reason, because });
		};
		if (bar) {
			deny(bar);
			continue;
		}
		const places = candidatesOf(segment, claim, byId, shares, values)
			.map((candidate) => ({
				...candidate,
				removes: candidate.removes.filter((removed) => !gone.has(removed))
			}))
			.filter((candidate) => !keptByOwner(candidate.removes, byId));
		if (places.length === 0) deny(noPlace(segment, values));
		candidates.push(...places);
		const by = claim.byStage === null ? null : Math.max(claim.byStage, firstStage);
		if (by === null || places.length === 0) continue;
		if ((earliest.get(segment.id) ?? 0) > by)
			deny(
				`it has to go by stage ${roman(by)}, and you do not want it before stage ${roman(earliest.get(segment.id) ?? 0)}`
			);
		else musts.push({ segmentId: segment.id, byStage: by, only: null, name: claim.reason });
	}
	return {
		map,
		byId,
		shares,
		claims,
		candidates,
		allowances,
		firstStage,
		lostDone,
		gone,
		earliest,
		musts,
		barred: cannot,
		keptBecause,
		values
	};
}

/** A linear expression: coefficients by variable, and a constant. */
type Linear = Map<string, number>;

const add = (into: Linear, name: string, factor: number): void => {
	if (factor !== 0) into.set(name, (into.get(name) ?? 0) + factor);
};
const addAll = (into: Linear, from: Linear, factor: number): void => {
	for (const [name, value] of from) add(into, name, value * factor);
};
const written = (linear: Linear): string =>
	[...linear]
		.filter(([, value]) => Math.abs(value) > 1e-12)
		.map(([name, value]) => `${value < 0 ? '-' : '+'} ${Math.abs(value).toFixed(10)} ${name}`)
		.join(' ') || '0 zero';

interface Model {
	text: string;
	/** Name of the variable of a cut in a stage. */
	cutName: (candidate: number, stage: number) => string;
}

/**
 * none: as it is · musts: musts may be given up, at a price, to find how few · some: at most so many are given up, for the best
 * plan · limits: allowances and anchorage may be broken, at a price, to find what would have to give.
 */
type Relax = 'none' | 'musts' | 'limits' | { giveUp: number };

/** One limit that is lifted, to prove that it is what holds a root. */
type Lift = { stage: number } | { window: number };

/**
 * The mixed-integer model. `x[k,t]`: cut k in stage t. `y`: a root is gone by a stage, exactly the largest of the cuts
 * that take it. Living loss of every stage stays within its allowance, which shrinks by what was lost before and not
 * grown back; every anchorage window keeps what is wanted, or what it has left.
 * @param relax what may be broken, to find what cannot be met, or what would have to give
 * @param lift limits that are left out altogether
 */
function modelOf(problem: Problem, relax: Relax, lift: readonly Lift[] = []): Model {
	const liftedStage = (t: number): boolean => lift.some((one) => 'stage' in one && one.stage === t);
	const liftedWindow = (w: number): boolean => lift.some((one) => 'window' in one && one.window === w);
	const { map, shares, candidates, allowances, firstStage, lostDone, gone, earliest, musts, claims, values } =
		problem;
	const stages = allowances.length;
	const cutName = (k: number, t: number): string => `x${k}_${t}`;
	const rows: string[] = [];
	const bounds: string[] = [];
	const binaries: string[] = [];
	const objective: Linear = new Map();
	const row = (linear: Linear, sense: '<=' | '>=' | '=', right: number): void => {
		rows.push(` r${rows.length}: ${written(linear)} ${sense} ${right.toFixed(10)}`);
	};
	const wantedStage = new Map(
		musts.filter((must) => must.only !== null).map((must) => [must.segmentId, must.only])
	);
	const open = (k: number, t: number): boolean => {
		const root = candidates[k]?.segmentId ?? '';
		const only = wantedStage.get(root);
		return (
			t >= firstStage && t >= (earliest.get(root) ?? 0) && (only === undefined || only === null || only === t)
		);
	};
	const bySegment = new Map<string, number[]>();
	for (const [k, candidate] of candidates.entries()) {
		bySegment.set(candidate.segmentId, [...(bySegment.get(candidate.segmentId) ?? []), k]);
		for (let t = firstStage; t < stages; t++) if (open(k, t)) binaries.push(cutName(k, t));
	}
	for (const ks of bySegment.values()) {
		const once: Linear = new Map();
		for (const k of ks) for (let t = firstStage; t < stages; t++) if (open(k, t)) add(once, cutName(k, t), 1);
		if (once.size > 1) row(once, '<=', 1);
	}
	/** Cut k made by stage t. */
	const madeBy = (k: number, t: number): Linear => {
		const made: Linear = new Map();
		for (let s = firstStage; s <= t; s++) if (open(k, s)) add(made, cutName(k, s), 1);
		return made;
	};

	// Roots that the same cuts take are one.
	const groups = new Map<string, { ks: number[]; segments: string[] }>();
	for (const segment of map.segments) {
		if (gone.has(segment.id)) continue;
		const ks = candidates.flatMap((candidate, k) => (candidate.removes.includes(segment.id) ? [k] : []));
		if (ks.length === 0) continue;
		const group = groups.get(ks.join()) ?? { ks, segments: [] };
		group.segments.push(segment.id);
		groups.set(ks.join(), group);
	}
	const goneBy: { segments: string[]; by: Linear[] }[] = [...groups.values()].map(({ ks, segments }, g) => {
		const [only] = ks;
		if (ks.length === 1 && only !== undefined)
			return { segments, by: allowances.map((_, t) => madeBy(only, t)) };
		const by = allowances.map((_, t) => {
			const name = `y${g}_${t}`;
			bounds.push(` 0 <= ${name} <= 1`);
			const any: Linear = new Map([[name, -1]]);
			for (const k of ks) {
				const each = madeBy(k, t);
				addAll(any, each, 1);
				add(each, name, -1);
				row(each, '<=', 0);
			}
			row(any, '>=', 0);
			return new Map([[name, 1]]);
		});
		return { segments, by };
	});
	/** A root is shortened by cut k by a stage, and no other cut took it whole: that is counted there. */
	const shortenedBy = (k: number): Linear[] => {
		const root = candidates[k]?.segmentId ?? '';
		const others = candidates.flatMap((other, j) =>
			other.segmentId !== root && other.removes.includes(root) ? [j] : []
		);
		if (others.length === 0) return allowances.map((_, t) => madeBy(k, t));
		return allowances.map((_, t) => {
			const name = `z${k}_${t}`;
			bounds.push(` 0 <= ${name} <= 1`);
			const most: Linear = new Map([[name, 1]]);
			addAll(most, madeBy(k, t), -1);
			row(most, '<=', 0);
			const least: Linear = new Map([[name, 1]]);
			addAll(least, madeBy(k, t), -1);
			for (const j of others) {
				addAll(least, madeBy(j, t), 1);
				const either: Linear = new Map([[name, 1]]);
				addAll(either, madeBy(j, t), 1);
				row(either, '<=', 1);
			}
			row(least, '>=', 0);
			return new Map([[name, 1]]);
		});
	};
	const sumOf = (list: readonly string[], of: ReadonlyMap<string, number>): number =>
		list.reduce((sum, segment) => sum + (of.get(segment) ?? 0), 0);

	// What each takes of the living root: roots that go whole, and what lies beyond a cut of those that stay.
	const parts: { living: number; by: Linear[] }[] = [
		...goneBy.map(({ segments, by }) => ({ living: sumOf(segments, shares.absorbing), by })),
		...candidates.flatMap((candidate, k) => {
			const living = candidate.shortens * (shares.absorbing.get(candidate.segmentId) ?? 0);
			return living > 0 && !gone.has(candidate.segmentId) ? [{ living, by: shortenedBy(k) }] : [];
		})
	];
	const regrown = values['stages.regrownShare'];
	let doneBefore = 0;
	for (let t = 0; t < stages; t++) {
		const base = allowances[t] ?? 0;
		const already = lostDone[t] ?? 0;
		if (t >= firstStage) {
			const loss: Linear = new Map();
			for (const { living, by } of parts) {
				addAll(loss, by[t] ?? new Map(), living);
				if (t > 0) addAll(loss, by[t - 1] ?? new Map(), -living);
			}
			const room = base * (1 - (1 - regrown) * doneBefore) - already;
			if (room > 0 && t > 0)
				for (const { living, by } of parts)
					addAll(loss, by[t - 1] ?? new Map(), living * base * (1 - regrown));
			if (relax === 'limits') {
				add(loss, `e${t}`, -1);
				add(objective, `e${t}`, -1);
			}
			if (loss.size > 0 && !liftedStage(t)) row(loss, '<=', Math.max(0, room));
		}
		doneBefore += already;
	}

	const totalStructural = sumOf(
		map.segments.map((segment) => segment.id),
		shares.structuralMm2
	);
	const half = values['anchorage.windowDeg'] / 2;
	for (let window = 0; window < 12; window++) {
		const within = map.segments.filter(
			(segment) => Math.abs(turnDeg(window * 30, startAzimuth(segment))) <= half
		);
		const held = sumOf(
			within.map((segment) => segment.id),
			shares.structuralMm2
		);
		if (held <= 0) continue;
		const inside = new Set(within.map((segment) => segment.id));
		const standing = sumOf(
			within.filter((segment) => !gone.has(segment.id)).map((segment) => segment.id),
			shares.structuralMm2
		);
		const taken: Linear = new Map();
		for (const { segments, by } of goneBy)
			addAll(
				taken,
				by[stages - 1] ?? new Map(),
				sumOf(
					segments.filter((segment) => inside.has(segment)),
					shares.structuralMm2
				) / held
			);
		if (relax === 'limits') {
			add(taken, `w${window}`, -1);
			add(objective, `w${window}`, -1);
		}
		const room = standing / held - values['anchorage.wantedShare'];
		if (taken.size > 0 && !liftedWindow(window)) row(taken, '<=', Math.max(0, room));
	}

	const answers = (segmentId: string, t: number): [number, string][] =>
		candidates.flatMap((candidate, k) =>
			(candidate.segmentId === segmentId || candidate.removes.includes(segmentId)) && open(k, t)
				? [[k, cutName(k, t)] as [number, string]]
				: []
		);
	const givenUp: Linear = new Map();
	for (const [m, must] of musts.entries()) {
		const met: Linear = new Map();
		for (let t = firstStage; t <= Math.min(must.byStage, stages - 1); t++)
			if (must.only === null || must.only === t)
				for (const [, name] of answers(must.segmentId, t)) add(met, name, 1);
		if (relax === 'musts' || typeof relax === 'object') {
			add(met, `u${m}`, 1);
			if (relax === 'musts') add(objective, `u${m}`, -1);
			add(givenUp, `u${m}`, 1);
			binaries.push(`u${m}`);
		}
		row(met, '>=', 1);
	}
	if (typeof relax === 'object' && givenUp.size > 0) row(givenUp, '<=', relax.giveUp);

	if (relax === 'none' || typeof relax === 'object') {
		for (const [segmentId, claim] of claims) {
			const own = new Set(bySegment.get(segmentId) ?? []);
			const byOthers = candidates.some(
				(candidate, k) => !own.has(k) && candidate.removes.includes(segmentId)
			);
			const once: Linear = new Map();
			for (let t = firstStage; t < stages; t++) {
				const points = claim.benefit * values['plan.laterStage'] ** t;
				if (!byOthers) {
					for (const [k, name] of answers(segmentId, t))
						add(objective, name, points * (candidates[k]?.worth ?? 1));
					continue;
				}
				// Settled by a cut of its own or by one nearer the trunk, once.
				const settled = `s${[...claims.keys()].indexOf(segmentId)}_${t}`;
				bounds.push(` 0 <= ${settled} <= 1`);
				add(objective, settled, points);
				add(once, settled, 1);
				const link: Linear = new Map([[settled, 1]]);
				for (const [k, name] of answers(segmentId, t))
					add(link, name, own.has(k) ? -(candidates[k]?.worth ?? 1) : -1);
				row(link, '<=', 0);
			}
			if (once.size > 0) row(once, '<=', 1);
		}
		for (const { living, by } of parts)
			addAll(objective, by[stages - 1] ?? new Map(), -values['plan.livingCost'] * living);
		for (const { segments, by } of goneBy) {
			const structural = totalStructural > 0 ? sumOf(segments, shares.structuralMm2) / totalStructural : 0;
			addAll(objective, by[stages - 1] ?? new Map(), -values['plan.structuralCost'] * structural);
		}
	}
	bounds.push(' 0 <= zero <= 0');
	const text = `Maximize\n obj: ${written(objective)}\nSubject To\n${rows.length > 0 ? rows.join('\n') : ' r0: zero <= 0'}\nBounds\n${bounds.join('\n')}\n${binaries.length > 0 ? `Binary\n ${binaries.join(' ')}\n` : ''}End\n`;
	return { text, cutName };
}

/** Without its whole numbers: bounds what any plan can be worth. */
function relaxed(text: string): string {
	const names = /Binary\n (.*)\nEnd/s.exec(text)?.[1]?.split(' ') ?? [];
	const bounds = names.map((name) => ` 0 <= ${name} <= 1\n`).join('');
	return text.replace(/Binary\n .*\nEnd/s, 'End').replace('Bounds\n', `Bounds\n${bounds}`);
}

/**
 * The best staged reduction within the limits [our own model, after the trade's order of claims]: as much trouble gone as
 * early as possible, for as little living and structural root as possible. Rot goes first, serious girdlers by the second
 * stage, whatever their class. No stage takes more than its allowance; kept and untraced roots and sound anchors stay; no anchorage window
 * falls below what is wanted. What must be cut and cannot be is said, with what would have to give.
 * Every plan is verified by an independent check before it is returned.
 * @param solve a loaded solver
 * @throws Error when the check finds fault, which would be a fault of ours
 */
export function reductionPlan(input: ReductionPlanInput, solve: Solve, values: Values): ReductionPlan {
	const problem = problemOf(input, values);
	const { candidates, allowances, musts } = problem;
	const timeLimitS = input.seconds;
	let give: string[] = [];
	let model = modelOf(problem, 'none');
	let answer = solve(model.text, { gap: 0, timeLimitS });
	if (answer.status === 'infeasible') {
		// As few as may be are given up; among the plans that do, the best.
		const least = solve(modelOf(problem, 'musts').text, { gap: 0, timeLimitS });
		const fewest = musts.filter((_, m) => (least.values[`u${m}`] ?? 0) > 0.5).length;
		give = whatGives(problem, solve, timeLimitS);
		model = modelOf(problem, { giveUp: Math.max(1, fewest) });
		answer = solve(model.text, { gap: 0, timeLimitS });
	}
	let gap: number | null = answer.status === 'optimal' ? 0 : null;
	if (answer.status === 'limit') {
		const nearly = solve(model.text, { gap: 0.01, timeLimitS });
		if (nearly.status === 'optimal') [answer, gap] = [nearly, 0.01];
		else if (nearly.status === 'limit') {
			answer = nearly;
			const bound = solve(relaxed(model.text), { gap: 0, timeLimitS });
			gap =
				bound.status === 'optimal'
					? Math.max(0, (bound.objective - answer.objective) / Math.max(1e-9, Math.abs(answer.objective)))
					: null;
		}
	}
	const chosen = candidates.flatMap((candidate, k) =>
		allowances.flatMap((_, stage) =>
			(answer.values[model.cutName(k, stage)] ?? 0) > 0.5
				? [{ segmentId: candidate.segmentId, atMm: candidate.atMm, stage }]
				: []
		)
	);
	const faultsOf = (cuts: readonly LedgerCut[]): string[] =>
		checkPlan(input.map, [...input.done, ...cuts], allowances, values, input.done.length);
	let cuts = withoutNeedless(chosen, problem);
	const found =
		answer.status === 'optimal' || (answer.status === 'limit' && Number.isFinite(answer.objective));
	// What a solver that ran out of time holds may be no plan at all.
	const whole = found && (answer.status === 'optimal' || faultsOf(cuts).length === 0);
	const greedy = !whole;
	if (greedy) {
		cuts = withoutNeedless(greedyPlan(problem, input, faultsOf), problem);
		gap = null;
	}
	const faults = faultsOf(cuts);
	if (faults.length > 0) throw new Error(`The plan does not hold: ${faults.join('; ')}`);
	const gone = ledger(problem.map, [...input.done, ...cuts], allowances, values).gone;
	const unmet = musts.filter((must, m) =>
		greedy
			? !gone.has(must.segmentId) && !cuts.some((cut) => cut.segmentId === must.segmentId)
			: (answer.values[`u${m}`] ?? 0) > 0.5
	);
	return {
		...explained(problem, input, cuts, greedy ? null : solve),
		unmet: [
			...unmet.map((must) => `${nameOf(problem, must.segmentId)}: ${must.name}`),
			...problem.barred.map(
				({ segmentId, name, because }) => `${nameOf(problem, segmentId)}: ${name}; ${because}`
			)
		],
		give,
		worth: greedy ? worthOf(problem, cuts) : answer.objective,
		gap,
		how: greedy ? 'greedy' : gap === 0 ? 'best' : 'near'
	};
}

/** What must go first, then what is worth most, each in the first stage that takes it: what a careful hand would do without a solver. */
function greedyPlan(
	{ candidates, claims, allowances, firstStage, earliest, musts }: Problem,
	input: ReductionPlanInput,
	faultsOf: (cuts: readonly LedgerCut[]) => string[]
): LedgerCut[] {
	const must = new Map(musts.map((one) => [one.segmentId, one]));
	const order = [...candidates].sort((a, b) => {
		const [first, second] = [must.has(a.segmentId) ? 1 : 0, must.has(b.segmentId) ? 1 : 0];
		const points = (one: Candidate): number => (claims.get(one.segmentId)?.benefit ?? 0) * one.worth;
		return second - first || points(b) - points(a);
	});
	const cuts: LedgerCut[] = [];
	for (const { segmentId, atMm } of order) {
		if (cuts.some((cut) => cut.segmentId === segmentId)) continue;
		const only = must.get(segmentId)?.only ?? null;
		for (let stage = Math.max(firstStage, earliest.get(segmentId) ?? 0); stage < allowances.length; stage++) {
			if (only !== null && only !== stage) continue;
			const trial = [...cuts, { segmentId, atMm, stage }];
			if (faultsOf(trial).length > 0) continue;
			cuts.push({ segmentId, atMm, stage });
			break;
		}
	}
	return cuts.filter((cut) => input.map.segments.some((segment) => segment.id === cut.segmentId));
}

/** Points of a plan by the same rule as the model’s: trouble gone, discounted by its stage, less what it costs. */
function worthOf(
	{ map, claims, candidates, shares, values, gone }: Problem,
	cuts: readonly LedgerCut[]
): number {
	const total = [...shares.structuralMm2.values()].reduce((sum, area) => sum + area, 0);
	const off = new Set<string>();
	const shortened = new Map<string, number>();
	let points = 0;
	for (const cut of cuts) {
		const candidate = candidates.find((one) => one.segmentId === cut.segmentId && one.atMm === cut.atMm);
		points +=
			(claims.get(cut.segmentId)?.benefit ?? 0) *
			(candidate?.worth ?? 1) *
			values['plan.laterStage'] ** cut.stage;
		for (const removed of candidate?.removes ?? []) if (!gone.has(removed)) off.add(removed);
		if (candidate && candidate.shortens > 0) shortened.set(candidate.segmentId, candidate.shortens);
	}
	for (const [id, share] of shortened)
		if (!off.has(id)) points -= values['plan.livingCost'] * share * (shares.absorbing.get(id) ?? 0);
	for (const segment of map.segments)
		if (off.has(segment.id))
			points -=
				values['plan.livingCost'] * (shares.absorbing.get(segment.id) ?? 0) +
				(total > 0
					? (values['plan.structuralCost'] * (shares.structuralMm2.get(segment.id) ?? 0)) / total
					: 0);
	return points;
}

/** A root that an earlier or the same stage takes whole with its parent needs no cut of its own. */
function withoutNeedless(cuts: readonly LedgerCut[], { byId, shares, values }: Problem): LedgerCut[] {
	return cuts.filter(
		(cut) =>
			!cuts.some(
				(other) =>
					other.segmentId !== cut.segmentId &&
					other.stage <= cut.stage &&
					removedBy(other, byId, shares, values).includes(cut.segmentId)
			)
	);
}

const nameOf = ({ map }: Problem, segmentId: string): string =>
	`root ${map.segments.findIndex((segment) => segment.id === segmentId) + 1}`;

function whatGives(problem: Problem, solve: Solve, seconds: number): string[] {
	const { values, allowances } = problem;
	const answer = solve(modelOf(problem, 'limits').text, { gap: 0.001, timeLimitS: seconds });
	if (answer.status === 'infeasible') {
		// With every limit lifted the musts still cannot be met together: the wishes stand against each other.
		const wishes = problem.musts.filter((must) => must.only !== null);
		const late = wishes.filter((must) => (must.only ?? 0) < problem.firstStage);
		if (late.length > 0)
			return late.map(
				(must) =>
					`${nameOf(problem, must.segmentId)} is wanted in stage ${roman(must.only ?? 0)}, which is over: choose a later one.`
			);
		return [
			`The wishes contradict each other: ${wishes.map((must) => `${nameOf(problem, must.segmentId)} in stage ${roman(must.only ?? 0)}`).join(', ')}. One cut takes the other away.`
		];
	}
	const percent = (value: number): number => Math.round(value * 100);
	return [
		...allowances.flatMap((base, t) => {
			const more = answer.values[`e${t}`] ?? 0;
			return more > 5e-4
				? [
						`Stage ${roman(t)} would have to take ${percent(base + more)} % of the living root, ${percent(more)} % more than its allowance.`
					]
				: [];
		}),
		...Array.from({ length: 12 }, (_, window) => {
			const less = answer.values[`w${window}`] ?? 0;
			return less > 5e-4
				? [
						`The anchorage window at ${window * 30}° would fall to ${percent(values['anchorage.wantedShare'] - less)} %.`
					]
				: [];
		}).flat()
	];
}

/** What a cut of its own brings over what it costs, in the first stage. */
function netOf(
	{ map, shares, values, gone }: Problem,
	{ segmentId, removes, shortens, worth }: Candidate,
	claim: Claim
): number {
	const total = map.segments.reduce((sum, segment) => sum + (shares.structuralMm2.get(segment.id) ?? 0), 0);
	return removes
		.filter((removed) => !gone.has(removed))
		.reduce(
			(net, removed) =>
				net -
				values['plan.livingCost'] * (shares.absorbing.get(removed) ?? 0) -
				(total > 0 ? (values['plan.structuralCost'] * (shares.structuralMm2.get(removed) ?? 0)) / total : 0),
			claim.benefit * worth - values['plan.livingCost'] * shortens * (shares.absorbing.get(segmentId) ?? 0)
		);
}

/** Roots of a map up to which every reason is proven by solving it again with just that limit lifted. */
const PROVEN_UP_TO = 40;

/** Whether a root goes once just these limits are lifted: only then are they the reason that it stays. */
function proves(
	problem: Problem,
	solve: Solve | null,
	segmentId: string,
	lift: readonly Lift[],
	seconds: number
): boolean {
	// Of large maps, and of a plan that the solver had no time for, the limits that are broken are named without this proof.
	if (!solve || problem.map.segments.length > PROVEN_UP_TO) return true;
	const model = modelOf(problem, 'none', lift);
	const answer = solve(model.text, { gap: 0, timeLimitS: Math.min(1, seconds) });
	if (answer.status !== 'optimal') return true;
	return problem.candidates.some((candidate, k) =>
		candidate.removes.includes(segmentId) || candidate.segmentId === segmentId
			? problem.allowances.some((_, t) => (answer.values[model.cutName(k, t)] ?? 0) > 0.5)
			: false
	);
}

/** Why each cut, why then, and why not the others. */
function explained(
	problem: Problem,
	input: ReductionPlanInput,
	cuts: readonly LedgerCut[],
	solve: Solve | null
): Pick<ReductionPlan, 'cuts' | 'left'> {
	const { map, claims, candidates, allowances, firstStage, earliest, byId, values } = problem;
	const all = [...input.done, ...cuts];
	const held = ledger(map, all, allowances, values);
	/** Every limit that a set of cuts breaks, or breaks further, with its words. */
	const broken = (trial: readonly LedgerCut[]): { lift: Lift; words: string }[] => {
		const then = ledger(map, trial, allowances, values);
		const madeOnly = ledger(map, input.done, allowances, values);
		return [
			...then.stages.flatMap((stage, t) => {
				const was = held.stages[t];
				if (stage.fits || (was && !was.fits && stage.loss <= was.loss + 1e-9)) return [];
				return [
					{
						lift: { stage: t },
						words: madeOnly.stages[t]?.fits
							? `stage ${roman(stage.stage)} would remove ${percent(stage.loss)}; the limit is ${percent(stage.allowed)}`
							: `the cuts that were made have used up stage ${roman(stage.stage)}`
					}
				];
			}),
			...then.windows.flatMap((window, w) => {
				const was = held.windows[w];
				if (!window.short || (was?.short && (window.left ?? 0) >= (was.left ?? 0) - 1e-9)) return [];
				const at = Math.round(window.azimuthDeg);
				return [
					{
						lift: { window: Math.round(window.azimuthDeg / 30) % 12 },
						words: madeOnly.windows[w]?.short
							? `the cuts that were made have left too little anchorage at ${at}° already`
							: `anchorage at ${at}° would fall to ${percent(window.left ?? 0)}`
					}
				];
			})
		];
	};
	const breaks = (trial: readonly LedgerCut[]): string | null => broken(trial)[0]?.words ?? null;
	const wanted = new Set(input.wanted.map((cut) => cut.segmentId));
	const explainedCuts = cuts
		.map((cut) => {
			const sooner = Math.max(firstStage, earliest.get(cut.segmentId) ?? 0);
			const others = all.filter((other) => other !== cut);
			const block = cut.stage > sooner ? breaks([...others, { ...cut, stage: cut.stage - 1 }]) : null;
			const whyThen = wanted.has(cut.segmentId)
				? 'you want it in this stage'
				: cut.stage > firstStage && cut.stage === (earliest.get(cut.segmentId) ?? 0)
					? 'you do not want it sooner'
					: cut.stage <= sooner
						? 'as soon as there is work'
						: (block ?? 'what is worth more goes before it');
			const segment = byId.get(cut.segmentId);
			const backTo =
				cut.atMm > 0 && segment && segment.condition !== 'dead'
					? tornOnly(segment)
						? ', clean behind the tear'
						: ', back to a side root'
					: '';
			return {
				...cut,
				reason: `${claims.get(cut.segmentId)?.reason ?? 'your own choice'}${backTo}`,
				whyThen,
				livingShare: held.cutCost.get(cut.segmentId) ?? 0
			};
		})
		.sort((a, b) => a.stage - b.stage || b.livingShare - a.livingShare);
	const left: ReductionPlan['left'] = [];
	for (const [segmentId, claim] of claims) {
		const segment = byId.get(segmentId);
		if (!segment || held.gone.has(segmentId) || cuts.some((cut) => cut.segmentId === segmentId)) continue;
		const leave = (because: string): void => void left.push({ segmentId, reason: claim.reason, because });
		const bar = barred(segment, claim, problem.keptBecause);
		if (bar) {
			leave(bar);
			continue;
		}
		const own = candidates.filter((candidate) => candidate.segmentId === segmentId);
		if (own.length === 0) {
			leave(noPlace(segment, values));
			continue;
		}
		const from = Math.max(firstStage, earliest.get(segmentId) ?? 0);
		const stages = allowances.map((_, t) => t).filter((t) => t >= from);
		if (stages.length === 0) {
			leave('you do not want it within these stages');
			continue;
		}
		const cost = Math.min(
			...own.map((candidate) => ledger(map, [{ ...candidate, stage: 0 }], allowances, values).totalLoss)
		);
		const tooDear = `it carries ${percent(cost)} of the living root, more than taking it off is worth`;
		// What is worth nothing stays whatever the limits are; what is worth something is held by a limit.
		const paying = own.filter((candidate) => netOf(problem, candidate, claim) > 0);
		if (paying.length === 0) {
			leave(tooDear);
			continue;
		}
		const trials = stages
			.flatMap((stage) => paying.map(({ atMm }) => broken([...all, { segmentId, atMm, stage }])))
			.sort((a, b) => a.length - b.length);
		const holding = trials.find(
			(limits) =>
				limits.length > 0 &&
				proves(
					problem,
					solve,
					segmentId,
					limits.map((one) => one.lift),
					input.seconds
				)
		);
		if (holding) leave(holding.map((one) => one.words).join(', and '));
		else if (trials.some((limits) => limits.length === 0)) leave(tooDear);
		else
			leave(
				`no single limit holds it: ${[...new Set(trials.flat().map((one) => one.words))].slice(0, 3).join('; ')}`
			);
	}
	return { cuts: explainedCuts, left };
}
