import { worldFactor, worldShows } from '../../values/diagnosis';
import type { Values } from '../../values/values';
import { conditionIds } from '../../vocabulary/conditions';
import type { World } from './enumerate';
import type { SignId } from '../../vocabulary/signs';
import { rooms, waters, type WorldPart } from '../../vocabulary/world-parts';

/*
 * How the root zone may stand, as opposites that exclude each other: wet or dry, tight or roomy, and the tree alive or dead. In
 * each of these worlds the causes are independent; causes of the wrong world are rare in it, and its signs seldom show.
 */
/** Every world as its parts. Of a dead tree it does not matter how its roots stand. */
export const worldParts: readonly WorldPart[][] = [
	...waters.flatMap((water) => rooms.map((room): WorldPart[] => [water, room, 'alive'])),
	['dead']
];

/**
 * The worlds of a tree, with the chance of each cause in each: in sum over the worlds it is the one given.
 * @param priors chance of each condition before anything is looked at, in the order of `conditionIds`
 */
export function worldsOf(priors: readonly number[], values: Values): World[] {
	const dead = Math.min(0.999, priors[conditionIds.indexOf('dead')] ?? 0);
	const part: Partial<Record<WorldPart, number>> = {
		wet: values['diagnosis.world.wet'],
		dry: values['diagnosis.world.dry'],
		even: 1 - values['diagnosis.world.wet'] - values['diagnosis.world.dry'],
		tight: values['diagnosis.world.tight'],
		roomy: values['diagnosis.world.roomy'],
		usual: 1 - values['diagnosis.world.tight'] - values['diagnosis.world.roomy'],
		alive: 1 - dead,
		dead
	};
	const weights = worldParts.map((parts) => parts.reduce((product, one) => product * (part[one] ?? 1), 1));
	const byCause = conditionIds.map((id, index) => {
		if (id === 'dead') return worldParts.map((parts) => (parts[0] === 'dead' ? 1 : 0));
		const factors = worldParts.map((parts) =>
			parts.reduce((product, one) => product * worldFactor(values, id, one), 1)
		);
		return keepingMean(priors[index] ?? 0, factors, weights);
	});
	return weights.map((weight, world) => ({
		weight,
		priors: byCause.map((chances) => chances[world] ?? 0)
	}));
}

/** Chances by world whose odds stand to each other as the factors, and whose mean is the one given. */
function keepingMean(mean: number, factors: readonly number[], weights: readonly number[]): number[] {
	if (mean <= 0 || mean >= 1) return factors.map(() => mean);
	if (factors.every((factor) => factor === factors[0])) return factors.map(() => mean);
	// The mean rises with the common odds: found by halving, then by Newton’s steps that may not leave the bracket.
	let [low, high, odds] = [1e-12, 1e12, mean / (1 - mean)];
	for (let i = 0; i < 60; i++) {
		let found = 0;
		let slope = 0;
		for (let world = 0; world < factors.length; world++) {
			const own = odds * (factors[world] as number);
			const weight = weights[world] as number;
			found += (weight * own) / (1 + own);
			slope += (weight * (factors[world] as number)) / (1 + own) ** 2;
		}
		if (Math.abs(found - mean) < 1e-13 * mean) break;
		if (found < mean) low = odds;
		else high = odds;
		const next = odds + (mean - found) / Math.max(1e-300, slope);
		odds = next > low && next < high ? next : Math.sqrt(low * high);
	}
	return factors.map((factor) => (odds * factor) / (1 + odds * factor));
}

/** Share of a sign that still shows in each world; left out where none hides it. */
export function showsIn(sign: SignId, values: Values): number[] | undefined {
	const shows = worldParts.map((parts) =>
		parts.reduce((product, one) => product * worldShows(values, sign, one), 1)
	);
	return shows.some((share) => share !== 1) ? shows : undefined;
}
