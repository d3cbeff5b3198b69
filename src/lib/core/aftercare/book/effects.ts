import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import type { DatedTask } from '../../vocabulary/task';
import type { NightsUnderCover } from '../../climate/cold-limit';
import { addDays } from '../../maths/calendar';
import type { RecentEvent } from '../../vocabulary/season-and-events';
import type { SignId } from '../../vocabulary/signs';
import type { Values } from '../../values/values';
import { bookKind, type BookEntry, type BookInput, type BookKind } from './book';

/** A share of the absorbing roots with its band. */
export interface ShareLost {
	share: number;
	low: number;
	high: number;
}

/**
 * Share of the absorbing roots that work on a ball severs. In a bound ball a share of them lies in a mat along wall and base, the
 * rest evenly inside; roots of the mat run a part of the way round, so that `n` cuts each meet `n · run` of a root on the average, and of a root
 * that is met m times, at places that fall evenly, the part nearest the trunk is left: m / (m + 1) is lost. What is sliced or shaved off is lost
 * whole [our own working model].
 * @param ball its width and depth before the work, mm, > 0
 * @returns null for an entry that takes no root
 */
export function rootsSevered(
	{ kind, details }: Pick<BookInput, 'kind' | 'details'>,
	ball: { widthMm: number; depthMm: number },
	values: Values
): ShareLost | null {
	if (kind === 'rot-cut-out' || kind === 'roots-teased')
		return details.share === null ? null : { share: details.share, low: details.share, high: details.share };
	const { widthMm, depthMm } = ball;
	const wall = Math.PI * widthMm * depthMm;
	const base = (Math.PI / 4) * widthMm ** 2;
	const taken = details.depthMm ?? 0;
	const into = Math.min(1, taken / values['book.matMm']);
	const lost = (mat: number): number | null => {
		if (kind === 'ball-scored') {
			const met = (details.count ?? 0) * values['book.matRun'];
			const severed = (met / (met + 1)) * into;
			return mat * severed * (details.choice === 'sides-and-base' ? 1 : wall / (wall + base));
		}
		if (kind === 'ball-sliced')
			return mat * into * (base / (wall + base)) + (1 - mat) * Math.min(1, taken / depthMm);
		if (kind === 'ball-shaved') {
			const round = details.bearingDeg === null ? 1 : 1 - values['book.sparedSide'];
			const core = Math.max(0, 1 - (2 * taken) / widthMm);
			return round * (mat * into * (wall / (wall + base)) + (1 - mat) * (1 - core ** 2));
		}
		return null;
	};
	const middle = lost(values['book.matShare']);
	if (middle === null) return null;
	const ends = [lost(values['book.matShareLeast']) ?? 0, lost(values['book.matShareMost']) ?? 0];
	return { share: middle, low: Math.min(middle, ...ends), high: Math.max(middle, ...ends) };
}

/** The ball after work on it, mm. */
export function ballAfter(
	{ kind, details }: Pick<BookInput, 'kind' | 'details'>,
	ball: { widthMm: number; depthMm: number }
): { widthMm: number; depthMm: number } {
	const taken = details.depthMm ?? 0;
	if (kind === 'ball-sliced') return { ...ball, depthMm: Math.max(5, ball.depthMm - taken) };
	if (kind === 'ball-shaved')
		return {
			...ball,
			widthMm: Math.max(10, ball.widthMm - (details.bearingDeg === null ? 2 : 1) * taken)
		};
	return ball;
}

/** Share of the leaf area that is left after what was cut or burnt within (from, to]; dead wood does not count. */
export function crownLeft(book: readonly BookEntry[], from: string, to: string): number {
	return book
		.filter(({ on }) => on > from && on <= to)
		.reduce((left, { kind, details }) => {
			const living = kind === 'crown-cut' ? details.choice !== 'dead' : kind === 'crown-burnt';
			return living ? left * (1 - (details.share ?? 0)) : left;
		}, 1);
}

/** The last stay under cover that was written down by a day, over or not: a cold night of it that is read in later did not reach the tree. */
export function nightsUnderCover(book: readonly BookEntry[], on: string): NightsUnderCover | null {
	const moved = book.findLast((one) => one.kind === 'night-moved' && one.on <= on);
	const untilOn = moved?.details.untilOn ?? null;
	return moved && untilOn !== null ? { fromOn: moved.on, untilOn } : null;
}

/** Signs of the diagnosis that an entry has seen. */
const signsSeen: Partial<Record<BookKind, SignId>> = {
	'one-sided-water': 'one-side-dry',
	'frost-split': 'bark-cracks',
	'nests-seen': 'nests-in-wood'
};
/** Signs told by a choice. */
export function signSeen({ kind, details }: Pick<BookInput, 'kind' | 'details'>): SignId | null {
	if (kind === 'repotted-before' && details.choice === 'before') return 'watered-as-before';
	return signsSeen[kind] ?? null;
}

/** Recent events of the diagnosis that an entry tells. */
const events: Partial<Record<BookKind, RecentEvent>> = {
	bought: 'bought',
	'repotted-before': 'repotted'
};
/**
 * The recent event that an entry tells a diagnosis of.
 * @returns null where it tells of none
 */
export const eventTold = (kind: BookKind): RecentEvent | null => events[kind] ?? null;

/** Rules of aftercare whose work an entry does: written down, it closes them. */
const doneByRule: Partial<Record<BookKind, string>> = {
	'crown-cut': 'crown',
	turned: 'turning',
	'suckers-off': 'suckers',
	fed: 'feeding'
};
/**
 * The rule of aftercare that an entry does.
 * @returns null where it does none
 */
export const ruleDone = ({ kind, details }: Pick<BookInput, 'kind' | 'details'>): string | null =>
	kind === 'crown-cut' && details.choice === 'dead' ? null : (doneByRule[kind] ?? null);

/** Work that an entry brings up: its end, and its next time. */
export function broughtUp(
	entry: BookInput,
	sentence: string,
	values: Values
): (DatedTask & { everyDays: number | null })[] {
	const of = bookKind(entry.kind);
	const { everyDays, untilOn, first, choice } = entry.details;
	const span = values['book.taskSpanDays'];
	const common = { kind: 'other' as const, mark: 'ours' as const, stage: of.stage, minutes: 10 };
	const what = choice !== null && entry.kind === 'put-off' ? (of.choices?.options[choice] ?? '') : '';
	return [
		...(untilOn !== null && of.until
			? [
					{
						...common,
						title: what ? `${of.until}: ${what}` : of.until,
						reason: first ? `First: ${first}` : `Written down on ${entry.on}. ${sentence}`.slice(0, 500),
						fromOn: untilOn,
						toOn: addDays(untilOn, span),
						everyDays: null
					}
				]
			: []),
		...(everyDays !== null && of.again
			? [
					{
						...common,
						title: of.again,
						reason: `Last on ${entry.on}. ${sentence}`.slice(0, 500),
						fromOn: addDays(entry.on, everyDays),
						toOn: addDays(entry.on, everyDays + Math.min(everyDays, span)),
						everyDays
					}
				]
			: [])
	];
}

/** What a tree's own records hold that speaks for or against an entry. */
export interface BookFacts {
	/** Last work that took living root. */
	rootsCutOn: string | null;
	/** Feeding waits for something still. */
	feedingWaits: boolean;
	/** Bark up to here is known to live, mm; null where nobody looked. */
	livingLimitMm: number | null;
	/** That limit stood still over two looks. */
	limitSteady: boolean;
}

/** What to mind about an entry. A stop wants a word of why before it is kept. */
export interface Against {
	text: string;
	stop: boolean;
}

/** What was done before and speaks against an entry. */
export function spokenAgainst(
	entry: Pick<BookInput, 'kind' | 'on' | 'details'>,
	book: readonly BookEntry[],
	facts: BookFacts,
	values: Values
): Against[] {
	const { kind, on, details } = entry;
	const found: Against[] = [];
	const mind = (holds: boolean, text: string, stop = false): void => {
		if (holds) found.push({ text, stop });
	};
	const other = details.choice === 'lime' ? 'sulphur' : 'lime';
	const undone = book.findLast(
		(one) =>
			one.kind === 'top-dressed' &&
			one.details.choice === other &&
			one.on >= addDays(on, -values['book.phApartDays']) &&
			one.on <= on
	);
	mind(
		facts.feedingWaits && (kind === 'fed' || (kind === 'top-dressed' && details.choice === 'manure')),
		'Feeding still waits on this tree: fewer roots cannot use food yet, and salts burn cut roots.',
		true
	);
	mind(
		kind === 'weed-preventer' &&
			facts.rootsCutOn !== null &&
			facts.rootsCutOn >= addDays(on, -values['book.weedPreventerDays']) &&
			facts.rootsCutOn <= on,
		`Roots were cut on ${facts.rootsCutOn}: many weed preventers stop new root tips too. Pull the weeds by hand until it grows.`
	);
	mind(
		kind === 'top-dressed' &&
			(details.choice === 'lime' || details.choice === 'sulphur') &&
			undone !== undefined,
		`${other === 'lime' ? 'Lime' : 'Sulphur'} was laid on ${undone?.on}: each undoes the other. Measure the pH first.`
	);
	mind(
		kind === 'crown-cut' && details.choice !== 'dead' && (details.share ?? 0) > values['crown.takeMost'],
		`That is more than ${percent(values['crown.takeMost'])} of the leaves at once: shade and shelter can hold the rest.`,
		true
	);
	if (kind === 'stem-sawn' || kind === 'stem-carved') {
		// A cavity at one side is a wound there, never the limit of its life.
		const { livingLimitMm, limitSteady } = facts;
		mind(
			livingLimitMm === null,
			'How high its bark lives was not found yet: scratch down the stem first, on every side.',
			true
		);
		mind(
			livingLimitMm !== null && !limitSteady,
			'The living limit was not seen steady over two looks yet: a cut now may have to be made again lower down.',
			true
		);
		mind(
			livingLimitMm !== null &&
				kind === 'stem-sawn' &&
				details.heightMm !== null &&
				details.heightMm < livingLimitMm,
			`Bark was found to live up to ${measured(livingLimitMm ?? 0, 'mm')}: this cut takes living wood.`,
			true
		);
		mind(
			details.count === null,
			'How many living shoots it has left was not said: beside the only one a cut stops before harm.'
		);
		mind(
			details.count !== null && details.count <= 1,
			'It has one living shoot or none left: stop before harm, treat and watch instead.',
			true
		);
	}
	return found;
}
