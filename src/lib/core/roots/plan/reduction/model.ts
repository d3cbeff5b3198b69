import { turnDeg } from '../../../maths/circular';
import { startAzimuth } from '../../map/root-map';
import type { Problem } from './problem';
import { add, addAll, Program, type Linear } from './program';

interface Model {
	text: string;
	/** Name of the variable of a cut in a stage. */
	cutName: (candidate: number, stage: number) => string;
}

/**
 * none: as it is · musts: musts may be given up, at a price, to find how few · some: at most so many are given up, for the best
 * plan · limits: allowances and anchorage may be broken, at a price, to find what would have to give.
 */
export type Relax = 'none' | 'musts' | 'limits' | { giveUp: number };

/** One limit that is lifted, to prove that it is what holds a root. */
export type Lift = { stage: number } | { window: number };

/** What of the living root, or of the structure, is gone by each stage. */
interface Part {
	living: number;
	by: Linear[];
}
/** Roots that the same cuts take. */
interface Group {
	segments: string[];
	by: Linear[];
}

const cutName = (k: number, t: number): string => `x${k}_${t}`;
const none: Linear = new Map();
const sumOf = (list: readonly string[], of: ReadonlyMap<string, number>): number =>
	list.reduce((sum, segment) => sum + (of.get(segment) ?? 0), 0);

/**
 * The mixed-integer model. `x[k,t]`: cut k in stage t. `y`: a root is gone by a stage, exactly the largest of the cuts
 * that take it. Living loss of every stage stays within its allowance, which shrinks by what was lost before and not
 * grown back; every anchorage window keeps what is wanted, or what it has left.
 * @param relax what may be broken, to find what cannot be met, or what would have to give
 * @param lift limits that are left out altogether
 */
export function modelOf(problem: Problem, relax: Relax, lift: readonly Lift[] = []): Model {
	const program = new Program();
	const cuts = cutsOf(problem, program);
	const groups = groupsOf(problem, cuts, program);
	const parts = partsOf(problem, cuts, groups, program);
	allowancesHold(problem, parts, program, relax, lift);
	anchorageHolds(problem, groups, program, relax, lift);
	mustsAreMet(problem, cuts, program, relax);
	if (relax === 'none' || typeof relax === 'object') {
		claimsAreWorth(problem, cuts, program);
		whatGoesCosts(problem, groups, parts, program);
	}
	return { text: program.text, cutName };
}

/** The cuts among which is chosen: which may be made when, and each root once. */
interface Cuts {
	open: (k: number, t: number) => boolean;
	/** Cut k made by stage t. */
	madeBy: (k: number, t: number) => Linear;
	/** Cuts of each root itself. */
	bySegment: ReadonlyMap<string, readonly number[]>;
	/** Cuts in a stage that settle a root: its own, and those that take it whole. */
	answers: (segmentId: string, t: number) => [number, string][];
}

function cutsOf({ candidates, allowances, firstStage, earliest, musts }: Problem, program: Program): Cuts {
	const stages = allowances.length;
	const wantedStage = new Map(musts.map((must) => [must.segmentId, must.only]));
	const open = (k: number, t: number): boolean => {
		const root = candidates[k]?.segmentId ?? '';
		const only = wantedStage.get(root) ?? null;
		return t >= firstStage && t >= (earliest.get(root) ?? 0) && (only === null || only === t);
	};
	const bySegment = new Map<string, number[]>();
	for (const [k, candidate] of candidates.entries()) {
		bySegment.set(candidate.segmentId, [...(bySegment.get(candidate.segmentId) ?? []), k]);
		for (let t = firstStage; t < stages; t++) if (open(k, t)) program.whole(cutName(k, t));
	}
	for (const ks of bySegment.values()) {
		const once: Linear = new Map();
		for (const k of ks) for (let t = firstStage; t < stages; t++) if (open(k, t)) add(once, cutName(k, t), 1);
		if (once.size > 1) program.row(once, '<=', 1);
	}
	return {
		open,
		bySegment,
		madeBy: (k, t) => {
			const made: Linear = new Map();
			for (let s = firstStage; s <= t; s++) if (open(k, s)) add(made, cutName(k, s), 1);
			return made;
		},
		answers: (segmentId, t) =>
			candidates.flatMap((candidate, k) =>
				(candidate.segmentId === segmentId || candidate.removes.includes(segmentId)) && open(k, t)
					? [[k, cutName(k, t)] as [number, string]]
					: []
			)
	};
}

/** Roots that go whole: those that the same cuts take are one, gone by the largest of its cuts. */
function groupsOf(
	{ map, candidates, allowances, gone }: Problem,
	{ madeBy }: Cuts,
	program: Program
): Group[] {
	const groups = new Map<string, { ks: number[]; segments: string[] }>();
	for (const segment of map.segments) {
		if (gone.has(segment.id)) continue;
		const ks = candidates.flatMap((candidate, k) => (candidate.removes.includes(segment.id) ? [k] : []));
		if (ks.length === 0) continue;
		const group = groups.get(ks.join()) ?? { ks, segments: [] };
		group.segments.push(segment.id);
		groups.set(ks.join(), group);
	}
	return [...groups.values()].map(({ ks, segments }, g) => {
		const [only] = ks;
		if (ks.length === 1 && only !== undefined)
			return { segments, by: allowances.map((_, t) => madeBy(only, t)) };
		const by = allowances.map((_, t) => {
			const name = `y${g}_${t}`;
			program.part(name);
			const any: Linear = new Map([[name, -1]]);
			for (const k of ks) {
				const each = madeBy(k, t);
				addAll(any, each, 1);
				add(each, name, -1);
				program.row(each, '<=', 0);
			}
			program.row(any, '>=', 0);
			return new Map([[name, 1]]);
		});
		return { segments, by };
	});
}

/** A root is shortened by cut k by a stage, and no other cut took it whole: that is counted there. */
function shortenedBy(
	{ candidates, allowances }: Problem,
	{ madeBy }: Cuts,
	program: Program,
	k: number
): Linear[] {
	const root = candidates[k]?.segmentId ?? '';
	const others = candidates.flatMap((other, j) =>
		other.segmentId !== root && other.removes.includes(root) ? [j] : []
	);
	if (others.length === 0) return allowances.map((_, t) => madeBy(k, t));
	return allowances.map((_, t) => {
		const name = `z${k}_${t}`;
		program.part(name);
		const most: Linear = new Map([[name, 1]]);
		addAll(most, madeBy(k, t), -1);
		program.row(most, '<=', 0);
		const least: Linear = new Map([[name, 1]]);
		addAll(least, madeBy(k, t), -1);
		for (const j of others) {
			addAll(least, madeBy(j, t), 1);
			const either: Linear = new Map([[name, 1]]);
			addAll(either, madeBy(j, t), 1);
			program.row(either, '<=', 1);
		}
		program.row(least, '>=', 0);
		return new Map([[name, 1]]);
	});
}

/** What each takes of the living root: roots that go whole, and what lies beyond a cut of those that stay. */
function partsOf(problem: Problem, cuts: Cuts, groups: readonly Group[], program: Program): Part[] {
	const { candidates, shares, gone } = problem;
	return [
		...groups.map(({ segments, by }) => ({ living: sumOf(segments, shares.absorbing), by })),
		...candidates.flatMap((candidate, k) => {
			const living = candidate.shortens * (shares.absorbing.get(candidate.segmentId) ?? 0);
			return living > 0 && !gone.has(candidate.segmentId)
				? [{ living, by: shortenedBy(problem, cuts, program, k) }]
				: [];
		})
	];
}

/** No stage takes more than its allowance, which shrinks by what went before and did not grow back. */
function allowancesHold(
	{ allowances, lostDone, firstStage, values }: Problem,
	parts: readonly Part[],
	program: Program,
	relax: Relax,
	lift: readonly Lift[]
): void {
	const lifted = (t: number): boolean => lift.some((one) => 'stage' in one && one.stage === t);
	const lasting = 1 - values['stages.regrownShare'];
	let doneBefore = 0;
	for (const [t, base] of allowances.entries()) {
		const already = lostDone[t] ?? 0;
		if (t >= firstStage) {
			const loss: Linear = new Map();
			for (const { living, by } of parts) {
				addAll(loss, by[t] ?? none, living);
				if (t > 0) addAll(loss, by[t - 1] ?? none, -living);
			}
			const room = base * (1 - lasting * doneBefore) - already;
			if (room > 0 && t > 0)
				for (const { living, by } of parts) addAll(loss, by[t - 1] ?? none, living * base * lasting);
			if (relax === 'limits') {
				add(loss, `e${t}`, -1);
				add(program.objective, `e${t}`, -1);
			}
			if (loss.size > 0 && !lifted(t)) program.row(loss, '<=', Math.max(0, room));
		}
		doneBefore += already;
	}
}

/** No anchorage window falls below what is wanted, or below what it has left. */
function anchorageHolds(
	{ map, shares, gone, allowances, values }: Problem,
	groups: readonly Group[],
	program: Program,
	relax: Relax,
	lift: readonly Lift[]
): void {
	const half = values['anchorage.windowDeg'] / 2;
	for (let window = 0; window < 12; window++) {
		const within = map.segments.filter(
			(segment) => Math.abs(turnDeg(window * 30, startAzimuth(segment))) <= half
		);
		const ids = within.map((segment) => segment.id);
		const held = sumOf(ids, shares.structuralMm2);
		if (held <= 0) continue;
		const inside = new Set(ids);
		const standing = sumOf(
			ids.filter((id) => !gone.has(id)),
			shares.structuralMm2
		);
		const taken: Linear = new Map();
		for (const { segments, by } of groups)
			addAll(
				taken,
				by[allowances.length - 1] ?? none,
				sumOf(
					segments.filter((segment) => inside.has(segment)),
					shares.structuralMm2
				) / held
			);
		if (relax === 'limits') {
			add(taken, `w${window}`, -1);
			add(program.objective, `w${window}`, -1);
		}
		const room = standing / held - values['anchorage.wantedShare'];
		if (taken.size > 0 && !lift.some((one) => 'window' in one && one.window === window))
			program.row(taken, '<=', Math.max(0, room));
	}
}

/** What has to go by a stage goes, or is given up at its price. */
function mustsAreMet(
	{ musts, allowances, firstStage }: Problem,
	{ answers }: Cuts,
	program: Program,
	relax: Relax
): void {
	const givenUp: Linear = new Map();
	for (const [m, must] of musts.entries()) {
		const met: Linear = new Map();
		for (let t = firstStage; t <= Math.min(must.byStage, allowances.length - 1); t++)
			if (must.only === null || must.only === t)
				for (const [, name] of answers(must.segmentId, t)) add(met, name, 1);
		if (relax === 'musts' || typeof relax === 'object') {
			add(met, `u${m}`, 1);
			if (relax === 'musts') add(program.objective, `u${m}`, -1);
			add(givenUp, `u${m}`, 1);
			program.whole(`u${m}`);
		}
		program.row(met, '>=', 1);
	}
	if (typeof relax === 'object' && givenUp.size > 0) program.row(givenUp, '<=', relax.giveUp);
}

/** Trouble gone is worth its points, less in each later stage, and once. */
function claimsAreWorth(
	{ claims, candidates, allowances, firstStage, values }: Problem,
	{ bySegment, answers }: Cuts,
	program: Program
): void {
	for (const [at, [segmentId, claim]] of [...claims].entries()) {
		const own = new Set(bySegment.get(segmentId) ?? []);
		const byOthers = candidates.some((candidate, k) => !own.has(k) && candidate.removes.includes(segmentId));
		const once: Linear = new Map();
		for (let t = firstStage; t < allowances.length; t++) {
			const points = claim.benefit * values['plan.laterStage'] ** t;
			if (!byOthers) {
				for (const [k, name] of answers(segmentId, t))
					add(program.objective, name, points * (candidates[k]?.worth ?? 1));
				continue;
			}
			// Settled by a cut of its own or by one nearer the trunk, once.
			const settled = `s${at}_${t}`;
			program.part(settled);
			add(program.objective, settled, points);
			add(once, settled, 1);
			const link: Linear = new Map([[settled, 1]]);
			for (const [k, name] of answers(segmentId, t))
				add(link, name, own.has(k) ? -(candidates[k]?.worth ?? 1) : -1);
			program.row(link, '<=', 0);
		}
		if (once.size > 0) program.row(once, '<=', 1);
	}
}

/** Living root and structure that go cost their points. */
function whatGoesCosts(
	{ map, shares, allowances, values }: Problem,
	groups: readonly Group[],
	parts: readonly Part[],
	program: Program
): void {
	const last = allowances.length - 1;
	const whole = sumOf(
		map.segments.map((segment) => segment.id),
		shares.structuralMm2
	);
	for (const { living, by } of parts)
		addAll(program.objective, by[last] ?? none, -values['plan.livingCost'] * living);
	for (const { segments, by } of groups) {
		const structural = whole > 0 ? sumOf(segments, shares.structuralMm2) / whole : 0;
		addAll(program.objective, by[last] ?? none, -values['plan.structuralCost'] * structural);
	}
}
