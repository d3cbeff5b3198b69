import { sideName } from '../text/sides';
import { budStates, firmnessSaid, leafStates, smellSaid } from '../examine/looks/seen-words';
import { liftAfterNames } from '../replant/lifting/lift';
import { permissionNames, situationNames } from '../vocabulary/words';
import { potShapeNames } from '../replant/pots/volume';
import type { Fact, Knowing, RecordRef } from './fact';
import type { PestsSeen, Standing, Stands } from './standing';

/** A value as it is shown: a measure in its unit, a share, a day, or words. */
export type Shown =
	| { kind: 'mm' | 'kg'; value: number; low?: number; high?: number }
	| { kind: 'share'; value: number; low?: number; high?: number }
	| { kind: 'day'; value: string }
	| { kind: 'words'; value: string };

/** Where a fact is written, so that it can be corrected or looked at. */
export type Page =
	| 'take-in'
	| 'examine'
	| 'examine/before'
	| 'examine/measure'
	| 'roots'
	| 'replant'
	| 'replant/lift'
	| 'replant/ground'
	| 'aftercare'
	| 'recovery'
	| 'book';

export interface StandingLine {
	label: string;
	/** null where it is not known. */
	shown: Shown | null;
	known: Knowing;
	on: string | null;
	by: string;
	/** What other records of the same days say instead. */
	against: { shown: Shown; on: string; by: string; page: Page }[];
	page: Page;
}
export interface StandingGroup {
	title: string;
	lines: StandingLine[];
}

const pageOf: Record<RecordRef['record'], Page> = {
	tree: 'take-in',
	look: 'recovery',
	examination: 'examine',
	measurement: 'examine/measure',
	'root-map': 'roots',
	lift: 'replant/lift',
	planting: 'replant',
	'ground-works': 'replant/ground',
	watering: 'aftercare',
	decision: 'examine/before',
	book: 'book'
};

const budNames: Record<(typeof budStates)[number], string> = {
	none: 'none move',
	swelling: 'swelling',
	open: 'open'
};
const leafNames: Record<(typeof leafStates)[number], string> = {
	turgid: 'turgid',
	wilted: 'wilted',
	scorched: 'scorched',
	yellow: 'yellow',
	dropped: 'dropped'
};
const pestNames: Record<PestsSeen, string> = {
	none: 'none seen',
	leaf: 'on leaf or twig',
	root: 'at the root'
};
const standsNames: Record<Stands, string> = { ...liftAfterNames, ...situationNames };

const words = (value: string): Shown => ({ kind: 'words', value });
const yesNo =
	(yes: string, no: string) =>
	(value: boolean): Shown =>
		words(value ? yes : no);

function line<T>(label: string, fact: Fact<T>, show: (value: T) => Shown, page: Page): StandingLine {
	const shown = fact.value === null ? null : show(fact.value);
	const ranged =
		shown && fact.low !== null && fact.high !== null && shown.kind !== 'day' && shown.kind !== 'words'
			? { ...shown, low: fact.low, high: fact.high }
			: shown;
	return {
		label,
		shown: ranged,
		known: fact.known,
		on: fact.on,
		by: fact.by,
		against: fact.against.map((one) => ({
			shown: show(one.value),
			on: one.on,
			by: one.by,
			page: one.from ? pageOf[one.from.record] : page
		})),
		page: fact.from ? pageOf[fact.from.record] : page
	};
}
/** A line that stands only where something is known of it. */
const knownLine = <T>(label: string, fact: Fact<T>, show: (value: T) => Shown, page: Page): StandingLine[] =>
	fact.value === null ? [] : [line(label, fact, show, page)];
const mm = (value: number): Shown => ({ kind: 'mm', value });
const share = (value: number): Shown => ({ kind: 'share', value });
const degrees = (deg: number): Shown => words(`${Math.round(deg)}°`);

const rootLines = (standing: Standing): StandingLine[] => [
	line('Living roots, of what it had', standing.rootsLiving, share, 'roots'),
	line('Roots mapped', standing.rootsMapped, (count) => words(String(count)), 'roots'),
	line('At its base', standing.firmness, (value) => words(firmnessSaid[value].now), 'recovery'),
	...knownLine(
		'Its root zone smells',
		standing.smell,
		(value) => words(value === 'none' ? 'of nothing bad' : smellSaid[value]),
		'recovery'
	)
];

function placeLines(standing: Standing, inGround: boolean): StandingLine[] {
	const ballPage = inGround ? 'replant/ground' : 'replant';
	return [
		line('It is', standing.stands, (value) => words(standsNames[value]), 'take-in'),
		line('Place', standing.place, words, 'take-in'),
		line('Ball, width', standing.ballWidthMm, mm, ballPage),
		line('Ball, depth', standing.ballDepthMm, mm, ballPage),
		...knownLine('Ball, weight', standing.ballKg, (value) => ({ kind: 'kg', value }), 'replant/lift'),
		...(inGround
			? []
			: [
					line('Pot', standing.pot, (pot) => words(potShapeNames[pot.shape]), 'replant'),
					line('Mix', standing.mix, (mix) => words(mix.name), 'replant')
				]),
		line('Its water last known', standing.waterSeen, (value) => ({ kind: 'day', value }), 'aftercare'),
		...knownLine('pH', standing.ph, (value) => words(String(value)), 'replant/ground')
	];
}

const bodyLines = (standing: Standing, inGround: boolean): StandingLine[] => [
	line('Trunk', standing.trunkMm, mm, 'take-in'),
	line('Height', standing.heightMm, mm, 'take-in'),
	line('Crown, width', standing.crownWidthMm, mm, 'replant'),
	...knownLine('Last cut or burnt off the crown', standing.crownTaken, share, 'book'),
	...knownLine(
		'Leans',
		standing.lean,
		({ deg, towardDeg }) => words(`${Math.round(deg)}° towards ${sideName(towardDeg, inGround)}`),
		'book'
	),
	...knownLine('Tilted when it was set', standing.tiltDeg, degrees, 'replant'),
	...knownLine('Light comes from', standing.lightDeg, (deg) => words(sideName(deg, inGround)), 'book'),
	line('In leaf', standing.leafCover, share, 'recovery'),
	line('Leaves', standing.leafState, (value) => words(leafNames[value]), 'recovery'),
	line('Buds', standing.buds, (value) => words(budNames[value]), 'recovery'),
	line('A scratched twig', standing.twigAlive, yesNo('is alive', 'is dead'), 'examine/measure'),
	line('Wood lives up to', standing.livingLimitMm, mm, 'examine/measure'),
	line('Pests', standing.pests, (value) => words(pestNames[value]), 'examine')
];

const leaveLines = (standing: Standing, inGround: boolean): StandingLine[] => [
	line('Permission', standing.permission, (value) => words(permissionNames[value]), 'examine/before'),
	line('Protected species or site', standing.protectedSpecies, yesNo('yes', 'no'), 'examine/before'),
	...(inGround
		? [line('Buried services', standing.servicesLocated, yesNo('located', 'not located'), 'examine/before')]
		: [])
];

/** How a tree stands, line by line, for the sheet: value, day, how it is known, what speaks against it, where it is written. */
export function standingLines(standing: Standing): StandingGroup[] {
	const inGround = standing.stands.value === 'in-ground';
	return [
		{ title: 'Roots', lines: rootLines(standing) },
		{ title: inGround ? 'Where it stands' : 'Ball and pot', lines: placeLines(standing, inGround) },
		{ title: 'Stem and crown', lines: bodyLines(standing, inGround) },
		{ title: 'What is allowed', lines: leaveLines(standing, inGround) }
	];
}
