import { percent } from '../../../text/percent';
import type { Segment } from '../../map/root-map';
import { tornOnly } from '../../map/shares';
import type { Claim } from '../claims';
import { ledger, type Ledger, type LedgerCut } from '../ledger';
import { roman } from '../plan';
import type { Solve } from '../solver';
import { modelOf, type Lift } from './model';
import { barred, nameOf, noPlace, type Candidate, type Problem } from './problem';
import type { ReductionPlan, ReductionPlanInput } from './question';

/** Which limits would have to give so that all that must go can go, and by how much. */
export function whatGives(problem: Problem, solve: Solve, seconds: number): string[] {
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
	return [
		...allowances.flatMap((base, t) => {
			const more = answer.values[`e${t}`] ?? 0;
			return more > 5e-4
				? [
						`Stage ${roman(t)} would have to take ${percent(base + more)} of the living root, ${percent(more)} more than its allowance.`
					]
				: [];
		}),
		...Array.from({ length: 12 }, (_, window) => {
			const less = answer.values[`w${window}`] ?? 0;
			return less > 5e-4
				? [
						`The anchorage window at ${window * 30}° would fall to ${percent(values['anchorage.wantedShare'] - less)}.`
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

/** A limit that a set of cuts breaks, with its words. */
interface Broken {
	lift: Lift;
	words: string;
}
/** Tells of a set of cuts every limit that it breaks, or breaks further than the plan does. */
type Breaks = (trial: readonly LedgerCut[]) => Broken[];

function breaksOf(problem: Problem, done: readonly LedgerCut[], held: Ledger): Breaks {
	const { map, allowances, values } = problem;
	const madeOnly = ledger(map, done, allowances, values);
	return (trial) => {
		const then = ledger(map, trial, allowances, values);
		return [
			...then.stages.flatMap((stage, t): Broken[] => {
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
			...then.windows.flatMap((window, w): Broken[] => {
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
}

/** A plan that is explained. */
interface Explaining {
	problem: Problem;
	input: ReductionPlanInput;
	/** Cuts that were made, and those of the plan. */
	all: readonly LedgerCut[];
	solve: Solve | null;
	breaks: Breaks;
}

/** Why a cut comes in its stage and not sooner. */
function whyThen({ problem, input, all, breaks }: Explaining, cut: LedgerCut): string {
	const { firstStage, earliest } = problem;
	const others = all.filter((other) => other !== cut);
	const from = earliest.get(cut.segmentId) ?? 0;
	const sooner = Math.max(firstStage, from);
	if (input.wanted.some((wanted) => wanted.segmentId === cut.segmentId)) return 'you want it in this stage';
	if (cut.stage > firstStage && cut.stage === from) return 'you do not want it sooner';
	if (cut.stage <= sooner) return 'as soon as there is work';
	const block = breaks([...others, { ...cut, stage: cut.stage - 1 }])[0];
	return block?.words ?? 'what is worth more goes before it';
}

/** Why a root that something speaks against stays all the same. */
function whyLeft({ problem, input, all, solve, breaks }: Explaining, segment: Segment): string {
	const { map, claims, candidates, allowances, firstStage, earliest, values } = problem;
	const { id: segmentId } = segment;
	const claim = claims.get(segmentId);
	const bar = claim && barred(segment, claim, problem.keptBecause);
	if (!claim || bar) return bar ?? '';
	const own = candidates.filter((candidate) => candidate.segmentId === segmentId);
	if (own.length === 0) return noPlace(segment, values);
	const from = Math.max(firstStage, earliest.get(segmentId) ?? 0);
	const stages = allowances.map((_, t) => t).filter((t) => t >= from);
	if (stages.length === 0) return 'you do not want it within these stages';
	const cost = Math.min(
		...own.map((candidate) => ledger(map, [{ ...candidate, stage: 0 }], allowances, values).totalLoss)
	);
	const tooDear = `it carries ${percent(cost)} of the living root, more than taking it off is worth`;
	// What is worth nothing stays whatever the limits are; what is worth something is held by a limit.
	const paying = own.filter((candidate) => netOf(problem, candidate, claim) > 0);
	if (paying.length === 0) return tooDear;
	const trials = stages
		.flatMap((stage) => paying.map(({ atMm }) => breaks([...all, { segmentId, atMm, stage }])))
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
	if (holding) return holding.map((one) => one.words).join(', and ');
	if (trials.some((limits) => limits.length === 0)) return tooDear;
	return `no single limit holds it: ${[...new Set(trials.flat().map((one) => one.words))].slice(0, 3).join('; ')}`;
}

/** Where a shortened root ends, and why there. */
const backTo = (segment: Segment | undefined, atMm: number): string =>
	atMm > 0 && segment && segment.condition !== 'dead'
		? tornOnly(segment)
			? ', clean behind the tear'
			: ', back to a side root'
		: '';

/** Why each cut, why then, and why not the others. */
export function explained(
	problem: Problem,
	input: ReductionPlanInput,
	cuts: readonly LedgerCut[],
	solve: Solve | null
): Pick<ReductionPlan, 'cuts' | 'left'> {
	const { map, claims, allowances, byId, values } = problem;
	const all = [...input.done, ...cuts];
	const held = ledger(map, all, allowances, values);
	const of: Explaining = { problem, input, all, solve, breaks: breaksOf(problem, input.done, held) };
	return {
		cuts: cuts
			.map((cut) => ({
				...cut,
				reason: `${claims.get(cut.segmentId)?.reason ?? 'your own choice'}${backTo(byId.get(cut.segmentId), cut.atMm)}`,
				whyThen: whyThen(of, cut),
				livingShare: held.cutCost.get(cut.segmentId) ?? 0
			}))
			.sort((a, b) => a.stage - b.stage || b.livingShare - a.livingShare),
		left: [...claims].flatMap(([segmentId, { reason }]) => {
			const segment = byId.get(segmentId);
			if (!segment || held.gone.has(segmentId) || cuts.some((cut) => cut.segmentId === segmentId)) return [];
			return [{ segmentId, reason, because: whyLeft(of, segment) }];
		})
	};
}
