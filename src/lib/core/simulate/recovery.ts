import { addDays, daysBetween, yearOf } from '../maths/calendar';
import { growingSeason, type PlaceClimate } from '../climate/normals';
import { bearsAlways, isTender, type Kind } from '../vocabulary/kind';
import { expectedRootFunction, type RootLoss } from '../recovery/expected';
import { nothingSeen, type ObservationInput } from '../examine/looks/observation';
import type { Values } from '../values/values';
import { createRandom } from '../maths/random';

export interface SimulatedTree {
	seed: number;
	kind: Kind;
	place: PlaceClimate;
	from: string;
	to: string;
	losses: readonly RootLoss[];
	/** Fitness 0 (fails) … 1 (thrives); scales shoots, cover and regrowth. */
	fitness: number;
	heightMm: number;
	/** Weight of the watered pot, kg; null for trees that are not weighed. */
	fullWeightKg: number | null;
	/** Shoot length of a healthy tree of this kind in a season, mm. */
	healthyShootMm: number;
	/** Days between looks. */
	everyDays: number;
	diesOn: string | null;
}

/**
 * Simulates the looks a careful person would have written: buds and leaf cover by season and root function, shoots that
 * add up over the growing season, dieback after losses, weights between full and dry. Deterministic for a seed.
 */
export function simulateLooks(tree: SimulatedTree, values: Values): ObservationInput[] {
	const random = createRandom(tree.seed);
	const tender = isTender(tree.kind);
	const evergreen = bearsAlways(tree.kind);
	const course = expectedRootFunction(
		tree.losses,
		tree.place,
		{ from: tree.from, to: tree.to, stepDays: 7 },
		values
	);
	const looks: ObservationInput[] = [];
	let limitMm = tree.heightMm;
	let edge = false;
	let grownMm = 0;
	let before = 0;
	const gap = () => Math.max(5, Math.round(tree.everyDays * random.between(0.75, 1.3)));
	for (let on = addDays(tree.from, 3); on <= tree.to; on = addDays(on, gap())) {
		const expected = [...course].reverse().find((point) => point.on <= on)?.expected ?? 1;
		const failing = tree.diesOn ? Math.max(0, 1 - Math.max(0, daysBetween(on, tree.diesOn)) / 150) : 0;
		const phi = Math.max(0, Math.min(1, expected * (0.45 + 0.55 * tree.fitness) * (1 - failing)));
		const season = seasonAt(tree.place, tender, on, values);
		const dead = tree.diesOn !== null && on >= tree.diesOn;
		const leafy = evergreen
			? 1
			: season.progress <= 0
				? 0
				: season.progress >= 1
					? 0
					: Math.min(1, season.progress * 7, (1 - season.progress) * 8);
		const cover = dead ? 0 : Math.max(0, Math.min(1, leafy * (0.3 + 0.7 * phi) + random.normal() * 0.03));
		const grown = Math.max(0, Math.min(1, season.progress * 1.7));
		const loseTop = random.next() < (1 - phi) * 0.3;
		if (loseTop || dead) limitMm = Math.max(tree.heightMm * 0.25, limitMm * random.between(0.86, 0.97));
		if (phi > 0.72 && daysBetween(tree.from, on) > 250) edge = true;
		const inSeason = season.progress > 0 && season.progress < 1;
		// Shoots add up over their season; a tree that fails stops, it does not shrink.
		const reads = random.between(0.9, 1.1);
		if (season.progress < before) grownMm = 0;
		before = season.progress;
		grownMm = Math.max(grownMm, tree.healthyShootMm * grown * phi * reads);
		looks.push({
			...nothingSeen,
			observedOn: on,
			buds: dead ? 'none' : !inSeason ? 'none' : season.progress < 0.1 ? 'swelling' : 'open',
			leafCover: evergreen || inSeason ? round(cover, 2) : null,
			leafState: dead ? 'dropped' : failing > 0.4 ? 'wilted' : inSeason || evergreen ? 'turgid' : null,
			shootExtensionMm: inSeason && season.progress > 0.12 && !dead ? Math.round(grownMm) : null,
			diebackLimitMm: random.next() < 0.6 || dead ? Math.round(limitMm) : null,
			weightKg:
				tree.fullWeightKg === null
					? null
					: round(tree.fullWeightKg * (1 - 0.28 * random.between(0.1, tree.kind.wetnessTrigger + 0.1)), 2),
			firmness: random.next() < 0.5 ? (phi > 0.6 ? 'firm' : phi > 0.4 ? 'moves' : 'loose') : null,
			whiteTips: random.next() < 0.25 && inSeason ? phi > 0.5 : null,
			rootsAtEdge: random.next() < 0.3 ? edge : null
		});
	}
	return looks;
}

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

function seasonAt(place: PlaceClimate, tender: boolean, on: string, values: Values): { progress: number } {
	for (const year of [yearOf(on) - 1, yearOf(on)]) {
		const season = growingSeason(place, tender, year, values);
		if (season && on >= season.from && on <= season.to)
			return {
				progress: Math.max(
					0.001,
					daysBetween(season.from, on) / Math.max(1, daysBetween(season.from, season.to))
				)
			};
	}
	return { progress: 0 };
}
