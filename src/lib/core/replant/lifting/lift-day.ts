import { measuredWhole } from '../../text/measured';
import { coldLimit, type NewShoots } from '../../climate/cold-limit';
import { nightTemperature, outdoorMeanC } from '../../climate/normals';
import { nextWindowDay, rootWorkWindows, seasonFit, type SeasonFit } from '../../climate/windows';
import { bearsAlways, type Kind } from '../../vocabulary/kind';
import type { Place } from '../../vocabulary/place';
import type { Values } from '../../values/values';

/** Whether a day will do for a lift, and why. */
export interface LiftDay {
	fit: SeasonFit;
	/** The answer in a few words. */
	answer: string;
	reasons: string[];
	/** The windows that run or lie ahead, at most two. */
	windows: { from: string; to: string }[];
	/** Next day inside a window; null where the kind has none at this place. */
	nextOn: string | null;
}

/**
 * What is to be said of a day that a lift is planned for: nothing as long as it lies in a window of the kind, or is over.
 * @param on calendar date, or '' where none is written
 */
export function plannedDaySaid(
	{ kind, place }: { kind: Kind; place: Place },
	on: string,
	today: string,
	values: Values
): string {
	if (on < today) return '';
	const fit = seasonFit(kind, place, on, values);
	return fit === 'in-window'
		? ''
		: `That day lies ${fit === 'shoulder' ? 'at the edge of' : 'outside'} the windows of ${kind.commonName} here`;
}

/**
 * Whether a tree should leave the ground on a day: by the window of its kind, by its leaves, and by the usual day and a cold night
 * of the season there [the usual climate of the place, no forecast].
 * @param leafy it bears leaves on that day, by its kind and place
 * @param newShoots whether its new shoots are tender (see `newShootsOn`)
 * @param stopped the days ahead stand against root work
 */
export function liftDay(
	{
		kind,
		place,
		leafy,
		newShoots,
		stopped
	}: {
		kind: Kind;
		place: Place;
		leafy: boolean;
		newShoots: NewShoots;
		stopped: boolean;
	},
	on: string,
	values: Values
): LiftDay {
	const fit = seasonFit(kind, place, on, values);
	const night = nightTemperature(place, on, values);
	// Out of the ground it stands what freshly cut roots stand.
	const cold = coldLimit({ kind, place, lastCutOn: on, inGround: false, newShoots }, on, values);
	const dayC = outdoorMeanC(place, on, values) + values['climate.nightBelowMeanC'];
	const degrees = (c: number): string => measuredWhole(c, '°C');
	const lies = { 'in-window': 'in', shoulder: 'at the edge of', 'out-of-window': 'outside' }[fit];
	const answers: Record<SeasonFit, [free: string, stopped: string]> = {
		'in-window': ['Today will do', 'In its window, but not today'],
		shoulder: ['Today, if it must be', 'Not today'],
		'out-of-window': ['Not today, unless it cannot wait', 'Not today']
	};
	return {
		fit,
		answer: answers[fit][stopped ? 1 : 0],
		reasons: [
			!bearsAlways(kind)
				? leafy
					? 'it is in leaf and loses water from the first minute'
					: 'it is leafless now'
				: 'it keeps its leaves: they lose water all the while',
			dayC > values['lifting.hot-C']
				? `a usual day is about ${degrees(dayC)}: too hot, lift at dawn or wait`
				: `days are about ${degrees(dayC)}`,
			`${on} lies ${lies} the window of ${kind.commonName} here`,
			night.coldC < cold.limitC
				? `a cold night of the season is about ${degrees(night.coldC)}, and it stands ${degrees(cold.limitC)}${cold.why ? `, ${cold.why}` : ' once it is dug'}: keep it from that`
				: `nights are about ${degrees(night.usualC)}`
		],
		windows: rootWorkWindows(kind, place, Number(on.slice(0, 4)), values)
			.filter((span) => span.to >= on)
			.slice(0, 2),
		nextOn: nextWindowDay(kind, place, on, values)
	};
}
