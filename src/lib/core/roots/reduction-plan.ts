import { z } from 'zod';
import { turnDeg } from '../circular/circular';
import { count, id, measure, share } from '../fields/fields';
import type { Values } from '../values/values';
import { checkPlan } from './check-plan';
import { claimOf, type Claim } from './claims';
import { ledger, type LedgerCut, type LedgerMap } from './ledger';
import { roman, STAGE_LIMIT } from './plan';
import { rootMapInput, startAzimuth, type Segment } from './root-map';
import { removedBy, rootShares, usualCutPlace, type RootShares } from './shares';
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
	seconds: measure(0.05, 60, 's').default(3).describe('Time to look for the best plan')
});
export type ReductionPlanInput = z.infer<typeof reductionPlanInput>;

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
	gap: z.number().describe('Proven: no plan is worth more by a larger share; 0 is optimal')
});
export type ReductionPlan = z.infer<typeof reductionPlanOutput>;

/** A place where a root may be cut, and what that takes. */
export interface Candidate {
	segmentId: string;
	atMm: number;
	removes: readonly string[];
	/** Share of the benefit of its claim. */
	worth: number;
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
	values: Values;
}

/** True where nothing but the owner's own word may cut a root. */
const barred = (segment: Segment, claim: Claim): string | null =>
	segment.keep
		? 'you locked it to be kept'
		: !segment.sourceKnown
			? 'its source is not known: trace it further'
			: segment.seenToMm === 0
				? 'it lies in soil still: lay it open first'
				: segment.rootClass === 'anchor' && claim.kind !== 'rot'
					? 'anchors are kept unless rotten'
					: null;

/** Places to cut a claimed root: at its base or the edge of rot, and back to each living side root before the trouble. */
export function candidatesOf(
	segment: Segment,
	claim: Claim,
	byId: ReadonlyMap<string, Segment>,
	shares: RootShares,
	values: Values
): Candidate[] {
	const at = (atMm: number, worth: number): Candidate => ({
		segmentId: segment.id,
		atMm,
		removes: removedBy({ segmentId: segment.id, atMm }, byId, shares),
		worth
	});
	const seenToMm = segment.seenToMm ?? Infinity;
	if (claim.kind === 'rot') return usualCutPlace(segment) <= seenToMm ? [at(usualCutPlace(segment), 1)] : [];
	const backTo = (shares.children.get(segment.id) ?? [])
		.filter((side) => (shares.absorbing.get(side.id) ?? 0) > 0)
		.map((side) => Math.round(side.attachMm + side.diameterStartMm / 2 + 2))
		.filter((mm) => mm <= claim.fromMm && mm <= seenToMm);
	return [at(0, 1), ...[...new Set(backTo)].map((mm) => at(mm, values['plan.stubShare']))];
}

const keptByOwner = (removes: readonly string[], byId: ReadonlyMap<string, Segment>): boolean =>
	removes.some((removed) => byId.get(removed)?.keep);

function problemOf(input: ReductionPlanInput, values: Values): Problem {
	const { map, allowances, done, wanted, notBefore } = input;
	const byId = new Map(map.segments.map((segment) => [segment.id, segment]));
	const shares = rootShares(map.segments, values);
	const gone = new Set<string>();
	const lostDone = allowances.map(() => 0);
	for (const cut of [...done].sort((a, b) => a.stage - b.stage))
		for (const removed of removedBy(cut, byId, shares)) {
			if (gone.has(removed)) continue;
			gone.add(removed);
			if (cut.stage < lostDone.length)
				lostDone[cut.stage] = (lostDone[cut.stage] ?? 0) + (shares.absorbing.get(removed) ?? 0);
		}
	const firstStage =
		done.length > 0 ? Math.min(allowances.length - 1, Math.max(...done.map((cut) => cut.stage)) + 1) : 0;
	const treated = new Set(done.map((cut) => cut.segmentId));
	const claims = new Map<string, Claim>();
	const candidates: Candidate[] = [];
	const musts: Must[] = [];
	const earliest = new Map(notBefore.map((entry) => [entry.segmentId, entry.stage]));
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
			const removes = removedBy(own, byId, shares).filter((removed) => !gone.has(removed));
			candidates.push({ segmentId: segment.id, atMm: own.atMm, removes, worth: 1 });
			musts.push({ segmentId: segment.id, byStage: own.stage, only: own.stage, name: 'what you want cut' });
			continue;
		}
		if (!claim || barred(segment, claim)) continue;
		const places = candidatesOf(segment, claim, byId, shares, values)
			.map((candidate) => ({
				...candidate,
				removes: candidate.removes.filter((removed) => !gone.has(removed))
			}))
			.filter((candidate) => !keptByOwner(candidate.removes, byId));
		candidates.push(...places);
		const by = claim.byStage === null ? null : Math.max(claim.byStage, firstStage);
		if (by !== null && (earliest.get(segment.id) ?? 0) <= by)
			musts.push({ segmentId: segment.id, byStage: by, only: null, name: claim.reason });
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

type Relax = 'none' | 'musts' | 'limits';

/**
 * The mixed-integer model. `x[k,t]`: cut k in stage t. `y`: a root is gone by a stage, exactly the largest of the cuts
 * that take it. Living loss of every stage stays within its allowance, which shrinks by what was lost before and not
 * grown back; every anchorage window keeps what is wanted, or what it has left.
 * @param skip musts that are given up
 * @param relax which limits may be broken, at a price: to find what cannot be met, or what would have to give
 */
function modelOf(problem: Problem, skip: ReadonlySet<Must>, relax: Relax): Model {
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
	const sumOf = (list: readonly string[], of: ReadonlyMap<string, number>): number =>
		list.reduce((sum, segment) => sum + (of.get(segment) ?? 0), 0);

	const living = goneBy.map(({ segments }) => sumOf(segments, shares.absorbing));
	const regrown = values['stages.regrownShare'];
	let doneBefore = 0;
	for (let t = 0; t < stages; t++) {
		const base = allowances[t] ?? 0;
		const already = lostDone[t] ?? 0;
		if (t >= firstStage) {
			const loss: Linear = new Map();
			for (const [g, { by }] of goneBy.entries()) {
				addAll(loss, by[t] ?? new Map(), living[g] ?? 0);
				if (t > 0) addAll(loss, by[t - 1] ?? new Map(), -(living[g] ?? 0));
			}
			const room = base * (1 - (1 - regrown) * doneBefore) - already;
			if (room > 0 && t > 0)
				for (const [g, { by }] of goneBy.entries())
					addAll(loss, by[t - 1] ?? new Map(), (living[g] ?? 0) * base * (1 - regrown));
			if (relax === 'limits') {
				add(loss, `e${t}`, -1);
				add(objective, `e${t}`, -1);
			}
			if (loss.size > 0) row(loss, '<=', Math.max(0, room));
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
		if (taken.size > 0) row(taken, '<=', Math.max(0, room));
	}

	const answers = (segmentId: string, t: number): [number, string][] =>
		candidates.flatMap((candidate, k) =>
			(candidate.segmentId === segmentId || candidate.removes.includes(segmentId)) && open(k, t)
				? [[k, cutName(k, t)] as [number, string]]
				: []
		);
	for (const [m, must] of musts.entries()) {
		if (skip.has(must)) continue;
		const met: Linear = new Map();
		for (let t = firstStage; t <= Math.min(must.byStage, stages - 1); t++)
			if (must.only === null || must.only === t)
				for (const [, name] of answers(must.segmentId, t)) add(met, name, 1);
		if (relax === 'musts') {
			add(met, `u${m}`, 1);
			add(objective, `u${m}`, -1);
			binaries.push(`u${m}`);
		}
		row(met, '>=', 1);
	}

	if (relax === 'none') {
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
		for (const [g, { segments, by }] of goneBy.entries()) {
			const structural = totalStructural > 0 ? sumOf(segments, shares.structuralMm2) / totalStructural : 0;
			addAll(
				objective,
				by[stages - 1] ?? new Map(),
				-(values['plan.livingCost'] * (living[g] ?? 0) + values['plan.structuralCost'] * structural)
			);
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
 * stage. No stage takes more than its allowance; kept and untraced roots and sound anchors stay; no anchorage window
 * falls below what is wanted. What must be cut and cannot be is said, with what would have to give.
 * Every plan is verified by an independent check before it is returned.
 * @param solve a loaded solver
 * @throws Error when the check finds fault, which would be a fault of ours
 */
export function reductionPlan(input: ReductionPlanInput, solve: Solve, values: Values): ReductionPlan {
	const problem = problemOf(input, values);
	const { candidates, allowances } = problem;
	let unmet = new Set<Must>();
	let give: string[] = [];
	let model = modelOf(problem, unmet, 'none');
	let answer = solve(model.text, { gap: 0, timeLimitS: input.seconds });
	if (answer.status === 'infeasible') {
		const least = solve(modelOf(problem, new Set(), 'musts').text, { gap: 0, timeLimitS: input.seconds });
		unmet = new Set(problem.musts.filter((_, m) => (least.values[`u${m}`] ?? 0) > 0.5));
		give = whatGives(problem, solve, input.seconds);
		model = modelOf(problem, unmet, 'none');
		answer = solve(model.text, { gap: 0, timeLimitS: input.seconds });
	}
	let gap = 0;
	if (answer.status === 'limit') {
		answer = solve(model.text, { gap: 0.01, timeLimitS: input.seconds });
		gap = 0.01;
		if (answer.status === 'limit') {
			const bound = solve(relaxed(model.text), { gap: 0, timeLimitS: input.seconds }).objective;
			gap = Math.max(0, (bound - answer.objective) / Math.max(1e-9, Math.abs(answer.objective)));
		}
	}
	const chosen = candidates.flatMap((candidate, k) =>
		allowances.flatMap((_, stage) =>
			(answer.values[model.cutName(k, stage)] ?? 0) > 0.5
				? [{ segmentId: candidate.segmentId, atMm: candidate.atMm, stage }]
				: []
		)
	);
	const cuts = withoutNeedless(chosen, problem);
	const faults = checkPlan(input.map, [...input.done, ...cuts], allowances, values, input.done.length);
	if (faults.length > 0) throw new Error(`The plan does not hold: ${faults.join('; ')}`);
	return {
		...explained(problem, input, cuts),
		unmet: [...unmet].map((must) => `${nameOf(problem, must.segmentId)}: ${must.name}`),
		give,
		worth: answer.objective,
		gap
	};
}

/** A root that an earlier or the same stage takes whole with its parent needs no cut of its own. */
function withoutNeedless(cuts: readonly LedgerCut[], { byId, shares }: Problem): LedgerCut[] {
	return cuts.filter(
		(cut) =>
			!cuts.some(
				(other) =>
					other.segmentId !== cut.segmentId &&
					other.stage <= cut.stage &&
					removedBy(other, byId, shares).includes(cut.segmentId)
			)
	);
}

const nameOf = ({ map }: Problem, segmentId: string): string =>
	`root ${map.segments.findIndex((segment) => segment.id === segmentId) + 1}`;

function whatGives(problem: Problem, solve: Solve, seconds: number): string[] {
	const { values, allowances } = problem;
	const answer = solve(modelOf(problem, new Set(), 'limits').text, { gap: 0.001, timeLimitS: seconds });
	if (answer.status === 'infeasible')
		return ['Nothing would do: a lock or an untraced root stands in the way.'];
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

/** Why each cut, why then, and why not the others. */
function explained(
	{ map, claims, candidates, allowances, firstStage, earliest, byId, values }: Problem,
	input: ReductionPlanInput,
	cuts: readonly LedgerCut[]
): Pick<ReductionPlan, 'cuts' | 'left'> {
	const all = [...input.done, ...cuts];
	const held = ledger(map, all, allowances, values);
	const percent = (value: number): string => `${Math.round(value * 100)} %`;
	/** What a set of cuts breaks that the plan does not; null when nothing. */
	const breaks = (trial: readonly LedgerCut[]): string | null => {
		const then = ledger(map, trial, allowances, values);
		const over = then.stages.find((stage, t) => !stage.fits && (held.stages[t]?.fits ?? true));
		if (over)
			return `stage ${roman(over.stage)} would take ${percent(over.loss)} of its ${percent(over.allowed)}`;
		const short = then.windows.find((window, w) => window.short && !held.windows[w]?.short);
		return short
			? `anchorage at ${Math.round(short.azimuthDeg)}° would fall to ${percent(short.left ?? 0)}`
			: null;
	};
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
			const backTo =
				cut.atMm > 0 && byId.get(cut.segmentId)?.condition !== 'dead' ? ', back to a side root' : '';
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
		const bar = barred(segment, claim);
		if (bar) {
			leave(bar);
			continue;
		}
		const own = candidates.filter((candidate) => candidate.segmentId === segmentId);
		if (own.length === 0) {
			leave(
				usualCutPlace(segment) > (segment.seenToMm ?? Infinity)
					? 'the place to cut lies in soil still: lay it open first'
					: 'a root that you keep would go with it'
			);
			continue;
		}
		const from = Math.max(firstStage, earliest.get(segmentId) ?? 0);
		const stages = allowances.map((_, t) => t).filter((t) => t >= from);
		if (stages.length === 0) {
			leave('you do not want it within these stages');
			continue;
		}
		const blocks = stages.flatMap((stage) =>
			own.map(({ atMm }) => breaks([...all, { segmentId, atMm, stage }]))
		);
		const cost = Math.min(
			...own.map((candidate) => ledger(map, [{ ...candidate, stage: 0 }], allowances, values).totalLoss)
		);
		leave(
			blocks.every((block) => block !== null)
				? (blocks.at(-1) ?? '')
				: `it carries ${percent(cost)} of the living root, more than taking it off is worth`
		);
	}
	return { cuts: explainedCuts, left };
}
