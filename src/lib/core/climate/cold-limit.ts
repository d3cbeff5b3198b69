import { isTender, type Kind } from '../vocabulary/kind';
import type { Values } from '../values/values';
import { addDays, daysBetween, daysWithin, YEAR_DAYS, yearOf } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import { growingSeason, nightTemperature, seasonOn, WHOLE_YEAR_DAYS, type PlaceClimate } from './normals';

/** Whether tender new shoots are out: seen; by the season, where nobody looked; or they are not. */
export type NewShoots = 'out' | 'perhaps' | 'none';

/** From the day it was carried there to the day it comes out. */
export interface NightsUnderCover {
	fromOn: string;
	untilOn: string;
}

/** The coldest night a tree stands on a day, and why it is not the one of its kind. */
export interface ColdLimit {
	limitC: number;
	/** Empty where the limit is that of its kind, hardened. */
	why: string;
}

/**
 * One rule for every page: the limit of the kind; higher while its roots are freshly cut and not in the ground, over a winter until they have
 * grown in spring, and while tender new shoots are out; lower, as nights of its place go, while it spends them under cover.
 * @param lastCutOn day of the last cut or lift of its roots
 */
export function coldLimit(
	tree: {
		kind: Pick<Kind, 'coldestC' | 'group'>;
		/** Climate of the place it stands at; null where it does not matter, on the day of the work itself. */
		place: PlaceClimate | null;
		lastCutOn: string | null;
		inGround: boolean;
		newShoots: NewShoots;
		/** Carried under cover for some nights, to be brought out again on the last day. */
		underCover?: NightsUnderCover | null;
	},
	on: string,
	values: Values
): ColdLimit {
	const tender = isTender(tree.kind);
	const fresh =
		tree.lastCutOn !== null && !tree.inGround && cutFresh(tree.lastCutOn, tender, tree.place, on, values);
	// In the ground its roots lie warmer than in a pot.
	const hardenedC = tree.kind.coldestC - (tree.inGround ? values['site.groundHardierC'] : 0);
	const limits: ColdLimit[] = [{ limitC: hardenedC, why: '' }];
	if (fresh)
		limits.push({
			limitC: values[tender ? 'cold.tenderCutC' : 'cold.cutRootsMinimumC'],
			why: 'with roots freshly cut'
		});
	// What stands in the ground is not covered for buds that nobody saw.
	const shoots = tree.newShoots === 'perhaps' && tree.inGround ? 'none' : tree.newShoots;
	if (shoots !== 'none' && !tender) limits.push({ limitC: values['guard.shootsC'], why: shootsWhy[shoots] });
	const limit = limits.reduce((most, one) => (one.limitC > most.limitC ? one : most));
	const { underCover } = tree;
	if (!underCover || on < underCover.fromOn || on >= underCover.untilOn) return limit;
	const covered = `under cover until ${underCover.untilOn}`;
	return {
		limitC: limit.limitC - values['shelter.greenhouseC'],
		why: limit.why === '' ? covered : `${limit.why}, ${covered}`
	};
}

/** Roots that were cut heal as they grow: what was cut in autumn is fresh all winter. */
function cutFresh(
	cutOn: string,
	tender: boolean,
	place: PlaceClimate | null,
	on: string,
	values: Values
): boolean {
	const days = daysBetween(cutOn, on);
	const freshDays = values['cold.cutRootsDays'];
	if (days < 0 || days > YEAR_DAYS) return false;
	if (place === null) return days <= freshDays;
	const grown = [yearOf(cutOn) - 1, yearOf(cutOn), yearOf(on)]
		.filter((year, at, years) => years.indexOf(year) === at)
		.flatMap((year) => growingSeason(place, tender, year, values) ?? [])
		.reduce((sum, season) => sum + daysWithin(season, cutOn, on), 0);
	return grown <= freshDays;
}

const shootsWhy = {
	out: 'tender new shoots',
	perhaps: 'new shoots that may be out: nobody saw its buds of late'
} as const;

/**
 * Whether its new shoots are tender on a day. Buds seen open are tender for some weeks; what opened a season ago has hardened. In the
 * first weeks of its season, buds that nobody saw of late may have opened.
 * @param buds as they were last seen, and on what day; nulls where nobody looked
 * @param at its kind and the climate of the place it stands at
 * @param on calendar date
 */
export function newShootsOn(
	buds: { value: string | null; on: string | null },
	{ kind, place }: { kind: Pick<Kind, 'group' | 'coldestC'>; place: PlaceClimate },
	on: string,
	values: Values
): NewShoots {
	const tenderDays = values['cold.shootsTenderDays'];
	const seenDays = buds.value === null || buds.on === null ? null : daysBetween(buds.on, on);
	const seen = seenDays !== null && seenDays >= 0;
	if (seen && buds.value === 'open' && seenDays <= tenderDays) return 'out';
	const season = seasonOn(place, isTender(kind), on, values);
	// Where it grows all year, no season brings its shoots.
	if (season === null || daysBetween(season.from, season.to) >= WHOLE_YEAR_DAYS) return 'none';
	if (daysBetween(season.from, on) > tenderDays) return 'none';
	return seen && buds.value !== 'open' && seenDays <= values['cold.budsSeenDays'] ? 'none' : 'perhaps';
}

/**
 * First day within a year from which a cold night of the place is below what a tree stands then; null where none is. By weeks.
 * @param limitOn what it stands on a day, °C
 */
export function firstColdNight(
	place: PlaceClimate,
	from: string,
	limitOn: (on: string) => number,
	values: Values
): string | null {
	for (let day = 0; day < 365; day += 7) {
		const on = addDays(from, day);
		if (nightTemperature(place, on, values).coldC < limitOn(on)) return on;
	}
	return null;
}

/** Whether heating holds a place at night: then no clear night takes it lower. */
export const heatHolds = ({ kind }: Pick<Place, 'kind'>): boolean => kind === 'heated' || kind === 'indoors';

/** How near to what a tree stands a night is warned of at a place, °C. */
export const nearCold = (place: Pick<Place, 'kind'>, values: Values): number =>
	heatHolds(place) ? 0 : values['cold.marginC'];
