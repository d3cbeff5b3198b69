import { nothingSeen, type ObservationInput } from '../examine/looks/observation';
import { bearsAlways, isTender } from '../vocabulary/kind';
import { growingSeason } from '../climate/normals';
import { daysBetween, yearOf } from '../maths/calendar';
import {
	rootMapInput,
	segmentFromQuick,
	usualClass,
	type QuickRoot,
	type RootMapInput
} from '../roots/map/root-map';
import type { ConditionId } from '../vocabulary/conditions';
import { shownOf, type PlayedRound } from './played';
import { dateOf, type PracticeTree } from './practice-tree';
import { drawsOf } from './truth';

const round = (value: number, to: number): number => Math.round(value / to) * to;
const within = (low: number, value: number, high: number): number => Math.min(high, Math.max(low, value));

/** How far it is in its growing season on a day, 0 … 1; null outside it. */
function progressOn({ truth }: PracticeTree, on: string, values: PracticeTree['values']): number | null {
	for (const year of [yearOf(on) - 1, yearOf(on)]) {
		const season = growingSeason(truth.place, isTender(truth.kind), year, values);
		if (season && on >= season.from && on <= season.to)
			return daysBetween(season.from, on) / Math.max(1, daysBetween(season.from, season.to));
	}
	return null;
}

/** How it stands by its roots, and how a mix feels by how dry it is: the first word whose bound is passed. */
const holds = [
	[0.55, 'firm'],
	[0.3, 'moves'],
	[0, 'loose']
] as const;
const feels = [
	[0.8, 'dry'],
	[0.55, 'nearly dry'],
	[0.3, 'moist'],
	[0.1, 'wet'],
	[0, 'soaking']
] as const;
const wordAt = <T extends string>(words: readonly (readonly [from: number, word: T])[], value: number): T =>
	(words.find(([from]) => value > from) ?? words.at(-1))?.[1] as T;

/** Errors that an eye makes, one deviation. */
const EYE = 0.05;
/** Part of a season after which buds are open, and after which its shoots have their length. */
const OPEN_FROM = 0.08;
const GROWN_BY = 0.6;
/** Shoot of a healthy tree in a season, of its height. */
const SHOOT_SHARE = 0.09;

/** What a look at its leaves, buds and shoots shows on a day, as a person writes it down; with the errors of an eye. */
export function leavesOf(tree: PracticeTree, played: PlayedRound): ObservationInput {
	const { truth, values } = tree;
	const on = dateOf(tree, played.day);
	const random = drawsOf(truth.wish.seed, 'leaves', played.day);
	const dead = played.diedOn !== null;
	const progress = progressOn(tree, on, values);
	const always = bearsAlways(truth.kind);
	const leafy = dead
		? 0
		: always
			? 1
			: progress === null
				? 0
				: within(0, Math.min(progress, 1 - progress) / OPEN_FROM, 1);
	const shown = shownOf(tree, played);
	const well = (played.roots + played.thrives) / 2;
	const cover = within(0, leafy * played.crown * (0.25 + 0.75 * well) + EYE * random.normal(), 1);
	const dry = shown.has('drought') || shown.has('dry-core');
	const smells = shown.has('sour-root-zone') || shown.has('root-rot');
	return {
		...nothingSeen,
		observedOn: on,
		buds: dead || progress === null ? 'none' : progress < OPEN_FROM ? 'swelling' : 'open',
		leafCover: always || progress !== null || dead ? round(cover, 0.01) : null,
		leafState: dead
			? 'dropped'
			: leafy === 0
				? null
				: shown.has('weather-injury')
					? 'scorched'
					: dry
						? 'wilted'
						: 'turgid',
		shootExtensionMm:
			dead || progress === null || progress < OPEN_FROM
				? null
				: Math.round(
						truth.heightM *
							1000 *
							SHOOT_SHARE *
							Math.min(1, progress / GROWN_BY) *
							well *
							random.between(0.9, 1.1)
					),
		diebackLimitMm: Math.round(truth.heightM * 1000 * (dead ? 0 : 0.6 + 0.4 * played.thrives ** 0.5)),
		firmness: wordAt(holds, played.roots),
		smell: smells ? 'sour' : 'none',
		pests: shown.has('pest') ? 'some' : 'none',
		note: ''
	};
}

/** What a hand feels two knuckles deep. */
export const feltOf = (tree: PracticeTree, played: PlayedRound): { dryness: number; words: string } => {
	const random = drawsOf(tree.truth.wish.seed, 'felt', played.day);
	const dryness = within(0, played.dryness + EYE * random.normal(), 1);
	return {
		dryness,
		words: wordAt(feels, dryness)
	};
};

/** Weight of a litre of planted pot with its mix dry, kg, and how far a scale is off. */
const DRY_KG_L = 0.55;
const SCALE_KG = 0.02;

/** Its weight on a day, kg; null in the ground. */
export function weightOf(tree: PracticeTree, played: PlayedRound): number | null {
	const pot = played.pot;
	if (!pot) return null;
	const random = drawsOf(tree.truth.wish.seed, 'scale', played.day);
	const most = pot.rootedMostL + pot.unrootedMostL;
	const volumeL = most / Math.max(0.1, pot.held);
	return round(volumeL * DRY_KG_L + most * (1 - played.dryness) + SCALE_KG * random.normal(), 0.01);
}

const ROOTS_LEAST = 9;
const ROOTS_MORE = 6;
/** Of its roots so many are rotten, circle or girdle where that ails it. */
const FAULTY = 0.35;

/** Its roots as they lie when they are laid bare: those that rot, girdle and circle among them. */
export function rootsOf(tree: PracticeTree, played: PlayedRound): RootMapInput {
	const { truth, values } = tree;
	const random = drawsOf(truth.wish.seed, 'roots');
	const { trunkDiameterMm, planting } = truth;
	const has = (id: ConditionId): boolean => shownOf(tree, played).has(id);
	const ballRadiusMm = Math.round(planting ? planting.ballDiameterMm / 2 : trunkDiameterMm * 3);
	const trunkReachMm = Math.round(values['contact.trunkDepthShare'] * trunkDiameterMm);
	const count = ROOTS_LEAST + Math.floor(random.next() * ROOTS_MORE);
	const roots = Array.from({ length: count }, (_, i): QuickRoot => {
		const azimuthDeg = Math.round(((i + random.next() * 0.7) * 360) / count) % 360;
		const diameterMm = round(
			trunkDiameterMm * within(0.05, 0.22 * Math.exp(0.6 * random.normal()), 0.55),
			0.5
		);
		const [rots, girdles, circles] = [random.next(), random.next(), random.next()];
		const rotten = (has('root-rot') || has('root-killing-fungus')) && (rots < FAULTY || i === 0);
		const girdling = has('girdling-roots') && (girdles < FAULTY / 2 || i === 1);
		const circling = has('pot-bound') && (circles < 2 * FAULTY || i === 2);
		return {
			azimuthDeg,
			diameterMm: Math.max(1, diameterMm),
			rootClass: usualClass(diameterMm, trunkDiameterMm, values),
			condition: rotten ? 'dead' : 'sound',
			deadFromMm: rotten ? 0 : null,
			doubtfulFromMm: null,
			seenToMm: null,
			// Deeper than the trunk reaches there is nothing to girdle.
			depthMm: Math.min(
				Math.round(random.between(8, planting ? planting.ballDepthMm * 0.6 : 120)),
				girdling ? trunkReachMm : Infinity
			),
			lengthMm: null,
			flaws: [
				...(rotten ? (['rotten'] as const) : []),
				...(girdling && !rotten ? (['girdling'] as const) : []),
				...(circling && !rotten && !girdling ? (['circling'] as const) : [])
			],
			guessed: [],
			sourceKnown: true,
			keep: false,
			stage: null,
			note: ''
		};
	});
	const map = { trunkDiameterMm, stems: [], ballRadiusMm };
	return rootMapInput.parse({
		mappedOn: dateOf(tree, played.day),
		frame: planting ? 'container' : 'ground',
		...map,
		ballDepthMm: planting?.ballDepthMm ?? null,
		segments: roots.map((root, i) => segmentFromQuick(root, map, `root-${i + 1}`))
	});
}
