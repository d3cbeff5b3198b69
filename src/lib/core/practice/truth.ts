import { addDays, dateOfDay } from '../maths/calendar';
import { logOdds } from '../maths/odds';
import { createRandom, type Random } from '../maths/random';
import { contextOf, type DiagnosisContext } from '../examine/diagnosis/context';
import { priorOf } from '../examine/diagnosis/diagnose';
import { worldParts, worldsOf } from '../examine/diagnosis/worlds';
import { survival } from '../examine/triage/triage';
import { conditionIds, type ConditionId } from '../vocabulary/conditions';
import { bearsAlways, isTender, type Kind } from '../vocabulary/kind';
import type { PlaceInput } from '../vocabulary/place';
import type { RecentEvent } from '../vocabulary/season-and-events';
import { situations, type Situation, type Vigour } from '../vocabulary/words';
import { placeInput } from '../vocabulary/place';
import { pottingMixOf, usualMix } from '../replant/mixes/mixes';
import { plantingInput, type PlantingInput } from '../replant/pots/replant-plan';
import { airOf, storesOf } from '../replant/pots/stores';
import { roundPot } from '../replant/pots/volume';
import { grownStores } from '../tree/ground-water';
import { climateOf } from '../climate/normals';
import { seasonFit } from '../climate/windows';
import { rehearsalScene, type RehearsalScene, type ScenePot } from '../rehearse/scene';
import type { Values } from '../values/values';
import { practiceKinds } from './kinds';
import { practiceWish, type PracticeWish } from './round';

/** A practice tree as it is: what ails it, and all that a person would write at taking it in. */
export interface PracticeTruth {
	wish: PracticeWish;
	kind: Kind;
	situation: Situation;
	/** Day on which it is taken in, day 0. */
	startOn: string;
	place: PlaceInput;
	trunkDiameterMm: number;
	heightM: number;
	vigour: Vigour;
	events: RecentEvent[];
	context: DiagnosisContext;
	/** What ails it; nothing of a healthy one. */
	conditions: ConditionId[];
	/** How its root zone stands, as an index of the worlds of the diagnosis. */
	world: number;
	/** What it was planted in; null in the ground. */
	planting: PlantingInput | null;
	/** Root function and dryness on day 0. */
	roots: number;
	dryness: number;
	/** Log-odds of coming through, had nothing ailed it. */
	odds: number;
}

/** Random numbers of a tree for one purpose, so that none of them shifts the others. */
export const drawsOf = (seed: number, ...keys: readonly (string | number)[]): Random =>
	createRandom(
		[...keys.join('/')].reduce(
			(hash, letter) => Math.imul(hash ^ letter.charCodeAt(0), 16_777_619),
			seed ^ 2_166_136_261
		)
	);

const weighted = <T>(list: readonly T[], weight: (one: T) => number, random: Random): T | undefined => {
	const all = list.reduce((sum, one) => sum + weight(one), 0);
	let left = random.next() * all;
	return list.find((one) => (left -= weight(one)) < 0) ?? list.at(-1);
};

/** How often practice trees stand so, of ten. */
const situationShare: Record<Situation, number> = { potted: 6, 'in-ground': 2.5, 'just-lifted': 1.5 };
/** Year that practice trees are taken in in: they are the same on any day. */
const YEAR = 2025;
const YEAR_DAYS = 365;

const benches: readonly Pick<PlaceInput, 'latitudeDeg' | 'elevationM'>[] = [
	{ latitudeDeg: 51.4, elevationM: 90 },
	{ latitudeDeg: 44.2, elevationM: 260 },
	{ latitudeDeg: -37.6, elevationM: 120 }
];

/** What a person would know to have befallen a tree with such a fault. */
const befell: Partial<Record<ConditionId, RecentEvent>> = {
	'recent-root-loss': 'dug',
	'repotted-too-early': 'repotted',
	'not-used-to-place': 'moved',
	'weather-injury': 'cold-night',
	'rising-water': 'long-rain'
};
/** Ailing trees that are weak, and of the others those that are no more than fair. */
const WEAK_AILING = 0.45;
const FAIR_ELSE = 0.75;
const EVENT_TOLD = 0.8;
const EVENT_ELSE = 0.06;

/** What ails it, drawn so that rare things come oftener than in life, but not as often as common ones. */
function drawnConditions(context: DiagnosisContext, random: Random, values: Values): ConditionId[] {
	if (random.next() < values['practice.healthy']) return [];
	const weight = (id: ConditionId): number => priorOf(id, context, values) ** values['practice.commonCounts'];
	const first = weighted(conditionIds, weight, random) ?? 'drought';
	if (first === 'dead' || random.next() >= values['practice.two']) return [first];
	const others = conditionIds.filter((id) => id !== first && id !== 'dead');
	// Two that can hardly be true together are not drawn together.
	const priors = conditionIds.map((id) => priorOf(id, context, values));
	const worlds = worldsOf(priors, values);
	const at = (id: ConditionId): number => conditionIds.indexOf(id);
	const together = (id: ConditionId): number =>
		worlds.reduce(
			(sum, world) => sum + world.weight * (world.priors[at(first)] ?? 0) * (world.priors[at(id)] ?? 0),
			0
		) / Math.max(1e-12, (priors[at(first)] ?? 0) * (priors[at(id)] ?? 0));
	const second = weighted(others, (id) => weight(id) * together(id), random);
	return second ? [first, second] : [first];
}

/** How its root zone stands, by what ails it. */
function drawnWorld(
	context: DiagnosisContext,
	conditions: readonly ConditionId[],
	random: Random,
	values: Values
): number {
	const worlds = worldsOf(
		conditionIds.map((id) => priorOf(id, context, values)),
		values
	);
	const weight = (index: number): number => {
		const world = worlds[index];
		if (!world) return 0;
		return conditionIds.reduce((product, id, at) => {
			const chance = world.priors[at] ?? 0;
			return product * (conditions.includes(id) ? chance : 1 - chance);
		}, world.weight);
	};
	const all = worlds.map((_, index) => index);
	return weighted(all, weight, random) ?? 0;
}

const between = (random: Random, low: number, high: number): number => random.between(low, high);
const round = (value: number, to: number): number => Math.round(value / to) * to;

/** What it stands in, as its fault has it. */
function plantedAs(
	{
		kind,
		startOn,
		conditions,
		situation
	}: Pick<PracticeTruth, 'kind' | 'startOn' | 'conditions' | 'situation'>,
	trunkDiameterMm: number,
	random: Random
): PlantingInput {
	const ballMm = round(trunkDiameterMm * between(random, 4.5, 6.5) + 60, 10);
	const depthMm = round(ballMm * between(random, 0.5, 0.65), 10);
	const roomMm = conditions.includes('over-potting')
		? ballMm * between(random, 0.7, 1)
		: conditions.some((id) => id === 'pot-too-small' || id === 'pot-bound')
			? 5
			: between(random, 30, 60);
	const widthMm = Math.round(ballMm + roomMm);
	const heightMm = Math.round(depthMm + (conditions.includes('pot-too-small') ? 15 : 50 + roomMm / 4));
	const days =
		situation === 'just-lifted'
			? between(random, 2, 9)
			: conditions.includes('repotted-too-early')
				? between(random, 12, 40)
				: between(random, 150, 900);
	return plantingInput.parse({
		plantedOn: addDays(startOn, -days),
		pot: roundPot(widthMm, Math.round(widthMm * 0.8), heightMm),
		sizeRule: 'normal',
		ballDiameterMm: ballMm,
		ballDepthMm: depthMm,
		mix: pottingMixOf(usualMix(kind.group, false)),
		headspaceMm: 15,
		note: ''
	});
}

/** Chance of roots after what ails or befell it: the roots it has on day 0. */
const rootsWith: Partial<Record<ConditionId, readonly [least: number, most: number]>> = {
	'recent-root-loss': [0.3, 0.5],
	'root-rot': [0.45, 0.75],
	'sour-root-zone': [0.55, 0.8],
	'root-killing-fungus': [0.5, 0.8],
	'repotted-too-early': [0.5, 0.75],
	'collapsed-mix': [0.6, 0.85]
};

/** Causes with which it stands wet when it comes. */
const standsWet: readonly ConditionId[] = ['sour-root-zone', 'collapsed-mix', 'root-rot', 'rising-water'];
/** Dryness on day 0 by how its root zone stands. */
const drynessWhere = { wet: [0, 0.06], dry: [0.82, 0.95], even: [0.2, 0.4] } as const;

/**
 * The tree that a wish makes, its truth with it.
 * @param wish as it was read by `practiceWish`
 */
export function truthOf(wish: PracticeWish, values: Values): PracticeTruth {
	const random = drawsOf(wish.seed, 'tree');
	const situation = wish.situation ?? weighted(situations, (one) => situationShare[one], random) ?? 'potted';
	const fitting = practiceKinds.filter((kind) => situation !== 'in-ground' || !isTender(kind));
	const drawn = fitting[Math.floor(random.next() * fitting.length)];
	const kind = practiceKinds.find((one) => one.id === wish.kindId) ?? drawn;
	if (!kind) throw new RangeError('There is no kind to practise on.');
	const bench = benches[Math.floor(random.next() * benches.length)] ?? benches[0];
	const place = placeInput.parse({
		...bench,
		name: situation === 'in-ground' ? 'Practice garden' : isTender(kind) ? 'Practice bay' : 'Practice bench',
		kind: situation === 'in-ground' ? 'garden' : isTender(kind) ? 'heated' : 'open',
		light: 'sun',
		note: ''
	});
	const startOn = dateOfDay(YEAR, 1 + Math.floor(random.next() * YEAR_DAYS));
	const bare = contextOf({ tree: { situation }, kind, place }, startOn, [], values);
	const conditions = wish.conditions ?? drawnConditions(bare, random, values);
	const events = (
		['bought', 'repotted', 'moved', 'dug', 'cold-night', 'hot-spell', 'long-rain'] as const
	).filter(
		(event) =>
			random.next() <
			(conditions.some((id) => befell[id] === event) || (event === 'dug' && situation === 'just-lifted')
				? EVENT_TOLD
				: EVENT_ELSE)
	);
	const context = contextOf({ tree: { situation }, kind, place }, startOn, events, values);
	const world = drawnWorld(context, conditions, random, values);
	const parts = worldParts[world] ?? [];
	const vigour: Vigour =
		conditions.length > 0 && random.next() < WEAK_AILING
			? 'weak'
			: random.next() < FAIR_ELSE
				? 'fair'
				: 'strong';
	const trunkDiameterMm = Math.round(
		situation === 'in-ground' ? between(random, 70, 240) : between(random, 14, 55)
	);
	const heightM = round((trunkDiameterMm / 1000) * between(random, 28, 45), 0.1);
	const isDry = parts.includes('dry') || conditions.includes('drought');
	const isWet = parts.includes('wet') || conditions.some((id) => standsWet.includes(id));
	const [least, most] = drynessWhere[isDry ? 'dry' : isWet ? 'wet' : 'even'];
	const roots = conditions.reduce(
		(left, id) => {
			const [low, high] = rootsWith[id] ?? [1, 1];
			return left * between(random, low, high);
		},
		situation === 'just-lifted' ? between(random, 0.35, 0.6) : 1
	);
	const lifted = situation === 'just-lifted';
	const chance = survival(
		{
			purpose: lifted ? 'lift' : 'treat',
			vitality: vigour,
			pests: 'none',
			rootsKept: lifted ? roots : null,
			scratchAlive: true
		},
		{
			group: kind.group,
			reserves: 'few-years-potted',
			trunkDiameterMm,
			seasonFit: lifted ? seasonFit(kind, place, startOn, values) : 'in-window',
			windowOn: null,
			rotChance: 0
		},
		values
	);
	return {
		wish,
		kind,
		situation,
		startOn,
		place,
		trunkDiameterMm,
		heightM,
		vigour,
		events,
		context,
		conditions: [...conditions],
		world,
		planting:
			situation === 'in-ground'
				? null
				: plantedAs({ kind, startOn, conditions, situation }, trunkDiameterMm, drawsOf(wish.seed, 'pot')),
		roots,
		dryness: between(random, least, most),
		odds: logOdds(chance.chance)
	};
}

/** Where a potted practice tree is carried in: kept from frost, and its grower’s place in the yard of a round. */
export const bayOf = (place: PlaceInput): PlaceInput => ({
	...place,
	name: 'Practice bay',
	kind: 'heated',
	heldMinimumC: Math.max(BAY_HOLDS_C, place.heldMinimumC ?? BAY_HOLDS_C),
	light: 'part'
});
const BAY_HOLDS_C = 5;

/**
 * A seed for the next tree: of some that are drawn the first whose tree ails of what its trainee judged badly, so that such trees come
 * oftener; each is still the tree of its seed, for everybody.
 * @param draw gives a seed that nobody chose
 * @returns whole number from 0
 */
export function seedWith(weak: readonly ConditionId[], draw: () => number, values: Values): number {
	let seed = draw();
	if (weak.length === 0) return seed;
	const suits = (): boolean =>
		truthOf(practiceWish.parse({ seed }), values).conditions.some((id) => weak.includes(id));
	for (let looks = 1; looks < values['practice.weakLooks'] && !suits(); looks++) seed = draw();
	return seed;
}

/** A planting as the pot of a scene. */
export function scenePotOf(
	planting: PlantingInput,
	tree: Pick<PracticeTruth, 'heightM' | 'trunkDiameterMm'>,
	values: Values
): ScenePot {
	const { airSpace, drawn } = airOf(planting, values);
	return {
		id: 'now',
		label: 'the pot it stands in',
		...storesOf(planting, tree, values),
		airSpace: Math.min(1, Math.max(0, airSpace)),
		held: Math.min(1, drawn),
		replants: false
	};
}

/** Causes by which the mix of a pot has lost its air. */
const airless: readonly ConditionId[] = ['collapsed-mix', 'sour-root-zone'];

/** The truth as a scene that is played. */
export function sceneOfTruth(truth: PracticeTruth, values: Values): RehearsalScene {
	const { kind, place, startOn, planting } = truth;
	const lifted = truth.situation === 'just-lifted' ? (planting?.plantedOn ?? startOn) : null;
	const at = climateOf(place);
	return rehearsalScene.parse({
		recovery: {
			sinceOn: startOn,
			today: startOn,
			odds: truth.odds,
			oddsSpread: 0,
			begin: truth.roots,
			place: at,
			tender: isTender(kind),
			evergreen: bearsAlways(kind)
		},
		group: kind.group,
		liftingWindow: kind.liftingWindow,
		coldestC: kind.coldestC,
		wetnessTrigger: kind.wetnessTrigger,
		lastCutOn: lifted,
		rotChance: 0,
		airlessChance: planting && truth.conditions.some((id) => airless.includes(id)) ? 1 : 0,
		dryness: truth.dryness,
		ground: planting
			? null
			: grownStores(truth, { held: values['water.groundHeld'], mulched: false }, values),
		pots: planting ? [scenePotOf(planting, truth, values)] : [],
		// Where it is carried in on a cold night.
		places: [
			{ id: 'here', label: place.name, ...at },
			{ ...at, id: 'bay', label: bayOf(place).name, kind: 'heated', heldMinimumC: bayOf(place).heldMinimumC }
		],
		days: Math.round(values['practice.days'])
	});
}
