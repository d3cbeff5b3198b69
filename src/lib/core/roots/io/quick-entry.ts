import { measured, measuredPair } from '../../text/measured';
import type { Values } from '../../values/values';
import { azimuthOf, clockOf, normaliseDeg, type ClockFrame } from '../../maths/circular';
import type { UnitSystem } from '../../text/format';
import { numberTyped, readMeasure } from '../../text/typed';
import {
	usualClass,
	usualDepthMm,
	type GuessedOfRoot,
	type QuickRoot,
	type RootClass,
	type RootFlaw
} from '../map/root-map';

/** Words that quick entry understands, with their short forms. */
const classWords: Record<string, RootClass> = {
	a: 'anchor',
	anchor: 'anchor',
	s: 'scaffold',
	scaf: 'scaffold',
	scaffold: 'scaffold',
	sec: 'secondary',
	secondary: 'secondary',
	f: 'feeder',
	fine: 'feeder',
	feeder: 'feeder'
};

const flawWords: Record<string, RootFlaw> = {
	girdling: 'girdling',
	girdles: 'girdling',
	circles: 'circling',
	crosses: 'crossing',
	rises: 'rising',
	upward: 'rising',
	surface: 'above-plane',
	descends: 'descending',
	downward: 'descending',
	tears: 'torn',
	gird: 'girdling',
	crossing: 'crossing',
	cross: 'crossing',
	circling: 'circling',
	circ: 'circling',
	turned: 'turned-back',
	'turned-back': 'turned-back',
	back: 'turned-back',
	rising: 'rising',
	up: 'rising',
	descending: 'descending',
	down: 'descending',
	'non-radial': 'non-radial',
	skew: 'non-radial',
	not: 'non-radial',
	crowded: 'crowded',
	torn: 'torn',
	thick: 'too-thick',
	sucker: 'sucker',
	above: 'above-plane'
};

/** Words of the names of flaws that say nothing by themselves. */
const fillers = new Set(
	'the a its it to of out for trunk ball root another soil plane neighbours goes straight does run outward too'.split(
		' '
	)
);

/** Words for a root that is dead, and for one that is rotten. */
const deadWords = new Set(['dead', 'dry', 'brittle']);
const rottenWords = new Set(['rotten', 'rot', 'rotted', 'rotting', 'soft', 'mushy', 'slimy']);
const soundWords = new Set(['sound', 'alive', 'live', 'living', 'healthy', 'firm']);

/** What a word may be, said when one is not known. */
const KNOWN =
	'Known are keep, trace, cut, sound, doubtful, dead or rotten, dead40 from so far out, d20 for depth, l180 for length, anchor, scaffold, secondary, feeder, girdling, circling, crossing, rising, torn and what else a root does; a note of your own goes after #.';

export type QuickEntry =
	{ ok: true; root: QuickRoot } | { ok: false; problem: string; partial: Partial<QuickRoot> };

const EXAMPLE = 'for example "6:30 15 sec girdling"';

/**
 * Reads one line of quick entry: place, thickness in the person's units or with its own (`12mm`, `1/2in`), then any words in any order.
 * Place is a clock position (`6:30`, `9`) or degrees (`220°`, `220deg`); `d20` is depth and `l180` length in mm;
 * `dead`, `dead40` (dead from 40 mm), `rotten`, `rotten40`, `doubtful`, `doubtful40`, `seen60` (laid open for 60 mm), `keep`, `trace`, `cut`, `cut2` (second stage); after `#` a note.
 * Class and depth are taken from thickness and habit when not said.
 * @example parseQuickRoot('6:30 15 sec girdling', 'container', 60) has azimuth 15°
 */
export function parseQuickRoot(
	line: string,
	frame: ClockFrame,
	trunkDiameterMm: number,
	values: Values,
	units: UnitSystem = 'metric'
): QuickEntry {
	const [words = '', ...noteParts] = line.split('#');
	const tokens = words
		.replace(/[;]/g, ' ')
		.trim()
		.toLowerCase()
		.split(/\s+/)
		.map((token) => token.replace(/,$/, ''))
		.filter((token) => token !== '' && !fillers.has(token));
	const partial: Partial<QuickRoot> = { note: noteParts.join('#').trim() };
	const fail = (problem: string): QuickEntry => ({ ok: false, problem, partial });

	const placeToken = tokens.shift();
	if (placeToken === undefined) return fail(`Begin with where it is and how thick, ${EXAMPLE}.`);
	const azimuthDeg = readPlace(placeToken, frame);
	if (azimuthDeg === null)
		return fail(`"${placeToken}" is no place: give a clock position 1 to 12 (6:30) or degrees (220°).`);
	partial.azimuthDeg = azimuthDeg;

	const thicknessToken = tokens.shift();
	if (thicknessToken === undefined)
		return fail(`Now its thickness in ${units === 'imperial' ? 'inches' : 'mm'}.`);
	// "1 1/2" is one thickness, and so is "15 mm".
	const more = tokens[0] ?? '';
	const joined = /^\d+\/\d+(?:in|")?$/.test(more) || /^(?:mm|cm|in|")$/.test(more);
	const thicknessText = joined ? `${thicknessToken} ${tokens.shift() ?? ''}` : thicknessToken;
	const diameterMm = readMeasure(thicknessText, 'mm', units);
	if (diameterMm === null || diameterMm < 0.2 || diameterMm > 1500)
		return fail(
			`"${thicknessText}" is no thickness: give ${units === 'imperial' ? 'inches, as 1/2 or 0.5, up to 59' : measuredPair(0.2, ' to ', 1500, 'mm')}.`
		);
	if (diameterMm > trunkDiameterMm)
		return fail(
			`${measured(diameterMm, 'mm')} is thicker than the trunk (${measured(trunkDiameterMm, 'mm')}).`
		);
	partial.diameterMm = diameterMm;

	const root: QuickRoot = {
		azimuthDeg,
		diameterMm,
		rootClass: usualClass(diameterMm, trunkDiameterMm, values),
		condition: 'sound',
		deadFromMm: null,
		doubtfulFromMm: null,
		seenToMm: null,
		depthMm: usualDepthMm(diameterMm),
		lengthMm: null,
		flaws: [],
		guessed: ['class', 'depth', 'length'],
		sourceKnown: true,
		keep: false,
		stage: null,
		note: partial.note ?? ''
	};
	for (const token of tokens)
		if (!applyWord(root, token, units)) return fail(`"${token}" is not a word known here. ${KNOWN}`);
	if (root.keep && root.stage !== null) return fail('A root cannot be both kept and cut.');
	if (!root.sourceKnown && root.stage !== null) return fail('A root to trace further cannot be cut yet.');
	return { ok: true, root };
}

function readPlace(token: string, frame: ClockFrame): number | null {
	const degrees = /^(\d{1,3}(?:[.,]\d+)?)(?:°|deg)$/.exec(token)?.[1];
	if (degrees !== undefined) {
		const value = numberTyped(degrees);
		return value <= 360 ? normaliseDeg(value) : null;
	}
	const [, hourText, minuteText = '0'] = /^(\d{1,2})(?::([0-5]?\d))?$/.exec(token) ?? [];
	if (hourText === undefined) return null;
	const hour = Number(hourText);
	return hour >= 1 && hour <= 12 ? azimuthOf(hour + Number(minuteText) / 60, frame) : null;
}

/** Places round the middle of a map, as typed: "12 45; 1:30 52" is clock position (or degrees) and distance in mm. */
export function parsePlaces(
	text: string,
	frame: ClockFrame,
	units: UnitSystem = 'metric'
): { ok: true; points: { azimuthDeg: number; radiusMm: number }[] } | { ok: false; problem: string } {
	const points: { azimuthDeg: number; radiusMm: number }[] = [];
	for (const part of text.split(/[;\n]/)) {
		const [place, distance, ...rest] = part.trim().split(/\s+/);
		if (!place) continue;
		const azimuthDeg = readPlace(place.toLowerCase(), frame);
		const radiusMm = distance === undefined ? null : readMeasure(distance, 'mm', units);
		if (azimuthDeg === null || radiusMm === null || rest.length > 0 || !(radiusMm >= 0 && radiusMm <= 20_000))
			return {
				ok: false,
				problem: `"${part.trim().slice(0, 30)}" is no place: give a clock position and a distance in ${units === 'imperial' ? 'inches, for example "1:30 2"' : 'mm, for example "1:30 52"'}.`
			};
		points.push({ azimuthDeg, radiusMm });
	}
	return { ok: true, points };
}

/** Places as they are typed. */
export const writePlaces = (
	points: readonly { azimuthDeg: number; radiusMm: number }[],
	frame: ClockFrame,
	units: UnitSystem = 'metric'
): string =>
	points
		.map(({ azimuthDeg, radiusMm }) => {
			const minutes = Math.round(clockOf(azimuthDeg, frame) * 60);
			const exact = minutes / 60 === clockOf(azimuthDeg, frame);
			const hour = Math.floor(minutes / 60) || 12;
			const place = exact
				? `${hour}:${String(minutes % 60).padStart(2, '0')}`
				: `${Math.round(normaliseDeg(azimuthDeg) * 10) / 10}°`;
			return `${place} ${units === 'imperial' ? Math.round((radiusMm / 25.4) * 100) / 100 : tidy(radiusMm)}`;
		})
		.join('; ');

const tidy = (mm: number): number => Math.round(mm * 10) / 10;

function applyWord(root: QuickRoot, token: string, units: UnitSystem): boolean {
	const rootClass = classWords[token];
	const flaw = flawWords[token];
	const number = /^(d|l|dead|rotten|rot|cut|doubtful|doubt|seen)([\d.½¼¾].*)$/.exec(token);
	const said = (what: GuessedOfRoot): void => {
		root.guessed = root.guessed.filter((one) => one !== what);
	};
	if (rootClass) {
		root.rootClass = rootClass;
		said('class');
	} else if (flaw) root.flaws = [...new Set([...root.flaws, flaw])];
	else if (deadWords.has(token)) root.condition = 'dead';
	else if (rottenWords.has(token)) {
		root.condition = 'dead';
		root.flaws = [...new Set([...root.flaws, 'rotten' as const])];
	} else if (token === 'doubtful' || token === 'doubt') root.condition = 'doubtful';
	else if (soundWords.has(token)) root.condition = 'sound';
	else if (token === 'keep') root.keep = true;
	else if (token === 'trace' || token === '?') root.sourceKnown = false;
	else if (token === 'cut') root.stage = 0;
	else if (number) {
		const text = number[2] ?? '';
		const measured = number[1] === 'cut' ? Number(text) : readMeasure(text, 'mm', units);
		if (measured === null || !Number.isFinite(measured)) return false;
		const amount = tidy(measured);
		if (number[1] === 'd' && amount <= 5000) {
			root.depthMm = amount;
			said('depth');
		} else if (number[1] === 'l' && amount > 0 && amount <= 20_000) {
			root.lengthMm = amount;
			said('length');
		} else if (number[1] === 'cut' && Number.isInteger(amount) && amount >= 1 && amount <= 6)
			root.stage = amount - 1;
		else if ((number[1] === 'dead' || number[1]?.startsWith('rot')) && amount <= 20_000) {
			root.condition = 'dead';
			root.deadFromMm = amount;
			if (number[1] !== 'dead') root.flaws = [...new Set([...root.flaws, 'rotten' as const])];
		} else if (number[1]?.startsWith('doubt') && amount <= 20_000) {
			if (root.condition === 'sound') root.condition = 'doubtful';
			root.doubtfulFromMm = amount;
		} else if (number[1] === 'seen' && amount <= 20_000) root.seenToMm = amount;
		else return false;
	} else return false;
	return true;
}
