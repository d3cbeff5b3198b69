import type { Situation } from '../../vocabulary/words';
import { leakOf, strengthOf } from '../../values/diagnosis';
import type { Values } from '../../values/values';
import { conditionOf, type ConditionId, type SharedThing } from '../../vocabulary/conditions';
import type { Diagnosis } from './diagnose';
import { signApplies, signIds, signOf, topGrade, type SignId } from '../../vocabulary/signs';

/** What is known of a tree that might share something. */
export interface YardNeighbour {
	id: string;
	tag: string;
	name: string;
	situation: Situation;
	placeId: string;
	batch: string;
	watering: string;
	mixName: string | null;
	/** Day of its last look, if any. */
	lastLookOn: string | null;
}

export interface NeighbourCheck {
	tree: YardNeighbour;
	shares: SharedThing[];
	signId: SignId;
	conditionId: ConditionId;
}

/** Conditions of a diagnosis that reach other trees and stand high enough to look there. */
export const spreading = (diagnosis: Diagnosis, values: Values): ConditionId[] =>
	diagnosis.ranking
		.filter(
			(cause) =>
				cause.chance >= values['diagnosis.neighbours-from'] && conditionOf(cause.conditionId).spreadsBy
		)
		.map((cause) => cause.conditionId);

const entropy = (p: number): number =>
	p <= 0 || p >= 1 ? 0 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p));

/**
 * The sign that tells most of one condition for its cost, in a tree of which nothing is known but that the condition is
 * as likely there as not to be excluded (one in three).
 */
export function cheapestCheck(condition: ConditionId, situation: Situation, values: Values): SignId {
	const prior = 1 / 3;
	const worth = (sign: SignId): number => {
		const leak = leakOf(values, sign);
		const seenIf = 1 - (1 - leak) * (1 - strengthOf(values, sign, condition));
		const seen = prior * seenIf + (1 - prior) * leak;
		const after =
			seen * entropy((prior * seenIf) / seen) + (1 - seen) * entropy((prior * (1 - seenIf)) / (1 - seen));
		const cost =
			values[`diagnosis.minutes.${sign}`] +
			values[`diagnosis.harm.${signOf(sign).procedure}`] * values['diagnosis.minutes-for-a-life'];
		return (entropy(prior) - after) / cost;
	};
	return signIds
		.filter((sign) => signApplies(sign, situation) && topGrade(sign) > 0)
		.reduce((best, sign) => (worth(sign) > worth(best) ? sign : best));
}

/**
 * The trees to look at because one is sick: those that share what the condition spreads by, most shared first, then
 * those not looked at for longest; each with its cheapest check.
 */
export function neighbourChecks(
	sick: YardNeighbour,
	suspects: readonly ConditionId[],
	others: readonly YardNeighbour[],
	values: Values
): NeighbourCheck[] {
	const shared = (other: YardNeighbour): SharedThing[] => {
		const same = (a: string | null, b: string | null): boolean =>
			a !== null && b !== null && a.trim() !== '' && a.trim().toLowerCase() === b.trim().toLowerCase();
		return [
			...(same(sick.batch, other.batch) ? (['batch'] as const) : []),
			...(same(sick.mixName, other.mixName) ? (['mix'] as const) : []),
			...(same(sick.watering, other.watering) ? (['watering'] as const) : []),
			...(sick.placeId === other.placeId ? (['place'] as const) : [])
		];
	};
	return others
		.filter((other) => other.id !== sick.id)
		.flatMap((other) => {
			const shares = shared(other);
			const reached = suspects
				.map((conditionId) => ({
					conditionId,
					by: shares.filter((thing) => conditionOf(conditionId).spreadsBy?.includes(thing))
				}))
				.filter(({ by }) => by.length > 0);
			const [first] = reached;
			if (!first) return [];
			const by = [...new Set(reached.flatMap((entry) => entry.by))];
			return [
				{
					tree: other,
					shares: by,
					conditionId: first.conditionId,
					signId: cheapestCheck(first.conditionId, other.situation, values)
				}
			];
		})
		.sort(
			(a, b) =>
				b.shares.length - a.shares.length ||
				(a.tree.lastLookOn ?? '').localeCompare(b.tree.lastLookOn ?? '') ||
				a.tree.tag.localeCompare(b.tree.tag)
		);
}
