import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { recentEvents, seasonPhases } from '../vocabulary/season-and-events';
import { type DiagnosisContext } from '../examine/diagnosis/context';
import { diagnose, effectOf, priorOf } from '../examine/diagnosis/diagnose';
import { noisyOr } from '../examine/diagnosis/enumerate';
import { worldsOf } from '../examine/diagnosis/worlds';
import type { Finding } from '../examine/diagnosis/finding';
import { firstLookOf, signApplies, signIds, topGrade, type SignId } from '../vocabulary/signs';
import { groups } from '../vocabulary/kind';
import { situations } from '../vocabulary/words';
import type { ValueKey, Values } from '../values/values';
import { createRandom, type Random } from '../maths/random';

/** A made-up case whose causes are known. */
export interface SimulatedCase {
	context: DiagnosisContext;
	causes: ConditionId[];
	findings: Pick<Finding, 'signId' | 'grade'>[];
}

/**
 * The diagnosis numbers as they might really be: every chance shifted in log-odds, every factor on odds in its logarithm,
 * by a normal error.
 * @param spread standard deviation of the shift
 */
function perturbed(values: Values, spread: number, random: Random): Values {
	const shaken = { ...values } as Record<ValueKey, number>;
	for (const key of Object.keys(values) as ValueKey[]) {
		const value = values[key];
		if (/^diagnosis\.(prior|leak|strength|shows)\./.test(key)) {
			if (value <= 0) continue;
			const odds = (value / (1 - value)) * Math.exp(random.normal() * spread);
			shaken[key] = odds / (1 + odds);
		} else if (/^diagnosis\.(shift|odds)\./.test(key))
			shaken[key] = value * Math.exp(random.normal() * spread);
	}
	return shaken;
}

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random.next() * list.length)] as T;

/**
 * One case drawn from the model behind `truth`: some condition holds, the eight signs of a first look and a few more
 * are looked for.
 */
function simulateCase(truth: Values, random: Random, moreSigns = 6): SimulatedCase {
	const context: DiagnosisContext = {
		situation: pick(situations, random),
		group: pick(groups, random),
		season: pick(seasonPhases, random),
		events: recentEvents.filter(() => random.next() < 0.1)
	};
	const worlds = worldsOf(
		conditionIds.map((id) => priorOf(id, context, truth)),
		truth
	);
	let mask = 0;
	let world = 0;
	// A tree that is brought in has something.
	while (mask === 0) {
		let dice = random.next();
		world = worlds.findIndex(({ weight }) => (dice -= weight) < 0);
		for (const [index, chance] of worlds[world]?.priors.entries() ?? [])
			if (random.next() < chance) mask |= 1 << index;
	}
	const first = firstLookOf(context);
	const others = signIds.filter((id) => signApplies(id, context.situation) && !first.includes(id));
	const looked = new Set<SignId>(first);
	while (looked.size < 8 + moreSigns) looked.add(pick(others, random));
	return {
		context,
		causes: conditionIds.filter((_, index) => mask & (1 << index)),
		findings: [...looked].map((signId) => {
			const dice = random.next();
			let grade = 0;
			while (grade < topGrade(signId) && dice < noisyOr(effectOf(signId, grade + 1, truth), mask, world))
				grade++;
			return { signId, grade };
		})
	};
}

export interface Calibration {
	cases: number;
	/** Share of cases whose first-named cause holds. */
	firstHolds: number;
	/** Share of cases with a true cause among the first three. */
	amongThree: number;
	/** Share of all true causes that stand among the first three of their case. */
	caughtInThree: number;
	/** Mean squared error of all chances. */
	brier: number;
	/** By tenths of the chance given: how many, mean chance given, share that held. */
	reliability: { from: number; count: number; given: number; held: number }[];
	/** Mean gap between given and held, weighted by count. */
	gap: number;
}

/**
 * How the diagnosis fares on cases from a model that is not its own: each case comes from freshly perturbed numbers.
 * @param spread of the perturbation, log-odds
 * @param cases how many are drawn
 */
export function calibrate(values: Values, cases: number, spread: number, seed: number): Calibration {
	const random = createRandom(seed);
	const bins = Array.from({ length: 10 }, (_, i) => ({ from: i / 10, count: 0, given: 0, held: 0 }));
	let first = 0;
	let among = 0;
	let caught = 0;
	let truths = 0;
	let squares = 0;
	for (let i = 0; i < cases; i++) {
		const made = simulateCase(perturbed(values, spread, random), random);
		const { ranking } = diagnose(made.context, made.findings, values);
		const holds = (id: ConditionId): boolean => made.causes.includes(id);
		const three = ranking.slice(0, 3).filter((cause) => holds(cause.conditionId)).length;
		if (ranking[0] && holds(ranking[0].conditionId)) first++;
		if (three > 0) among++;
		caught += three;
		truths += made.causes.length;
		for (const cause of ranking) {
			const held = holds(cause.conditionId) ? 1 : 0;
			squares += (cause.chance - held) ** 2;
			const bin = bins[Math.min(9, Math.floor(cause.chance * 10))];
			if (!bin) continue;
			bin.count++;
			bin.given += cause.chance;
			bin.held += held;
		}
	}
	const total = cases * conditionIds.length;
	const reliability = bins.map(({ from, count, given, held }) => ({
		from,
		count,
		given: count > 0 ? given / count : 0,
		held: count > 0 ? held / count : 0
	}));
	return {
		cases,
		firstHolds: first / cases,
		amongThree: among / cases,
		caughtInThree: caught / truths,
		brier: squares / total,
		reliability,
		gap: reliability.reduce((sum, bin) => sum + (bin.count / total) * Math.abs(bin.given - bin.held), 0)
	};
}
