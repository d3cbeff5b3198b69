import { limitsOf, warningsFor, type GuardKind } from '../aftercare/weather/guards';
import { coldLimit, heatHolds, nearCold, shootsTender, type ColdLimit } from '../climate/cold-limit';
import type { NightTemperature } from '../climate/normals';
import type { SeriesDay } from '../climate/series';
import { daysBetween } from '../maths/calendar';
import { inUnit, measured } from '../text/measured';
import { midSentence } from '../text/mid-sentence';
import type { Values } from '../values/values';
import { common, rises, type TodayItem, type TodayTree } from './item';

/** Cold, heat, gusts and dry air of the next days against what trees stand, one item for each place and danger. */
export function guardItems(
	trees: readonly TodayTree[],
	today: string,
	values: Values,
	weather: ReadonlyMap<string, readonly SeriesDay[]>
): TodayItem[] {
	const byPlace = new Map<string, TodayTree[]>();
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care') continue;
		const list = byPlace.get(entry.place.id);
		if (list) list.push(entry);
		else byPlace.set(entry.place.id, [entry]);
	}
	return [...byPlace].flatMap(([placeId, list]) => {
		const ahead = (weather.get(placeId) ?? []).filter(
			(day) =>
				day.on >= today && daysBetween(today, day.on) <= values['today.weatherAheadDays'] && day.how === ''
		);
		const first = list[0];
		if (ahead.length === 0 || !first) return [];
		const limitsOn = (on: string) =>
			list.map((entry) =>
				limitsOf(
					{
						id: entry.tree.id,
						tag: entry.tree.tag,
						cold: coldOf(entry, on, values),
						rootFunction: entry.water?.phi ?? 1,
						tipsMs: null
					},
					values
				)
			);
		return ahead
			.flatMap((day) => warningsFor([day], limitsOn(day.on)))
			.map((warning): TodayItem => {
				const until = daysBetween(today, warning.on);
				const when =
					until === 0
						? warning.kind === 'cold'
							? 'tonight'
							: 'today'
						: until === 1
							? 'tomorrow'
							: `on ${warning.on}`;
				const unit = warning.kind === 'wind' ? 'm/s' : warning.kind === 'dry-air' ? 'kPa' : '°C';
				const figure = inUnit(Math.round(warning.figure * 10) / 10, unit);
				const tightest = warning.trees[0];
				return {
					urgency:
						values[
							until === 0
								? 'today.rank.danger'
								: until === 1
									? 'today.rank.dangerNext'
									: 'today.rank.dangerLater'
						] + rises(warning.trees.length, values),
					level: until === 0 ? 'now' : 'due',
					treeId: tightest?.treeId ?? first.tree.id,
					tag: tightest?.tag ?? first.tree.tag,
					treeName: warning.trees.map((tree) => tree.tag).join(', '),
					placeName: first.place.name,
					sentence: `${guardNames[warning.kind]} ${when}, ${until === 0 && warning.kind === 'heat' ? 'at once' : warning.byWhen}: ${midSentence(warning.what)}`,
					reason: `${figure} is forecast; ${warning.trees.length === 1 ? 'one tree stands' : `${warning.trees.length} trees stand`} less, the tightest ${inUnit(Math.round((tightest?.limit ?? 0) * 10) / 10, unit)}${tightest?.why ? ` (${tightest.why})` : ''}.`,
					figure,
					stage: 'aftercare',
					group: warning.trees.map(({ treeId, tag }) => ({ id: treeId, tag })),
					pourL: null,
					task: null
				};
			});
	});
}

const guardNames: Record<GuardKind, string> = {
	cold: 'Cold',
	heat: 'Heat',
	wind: 'Gusts',
	'dry-air': 'Dry air'
};

/** The coldest night a tree stands on a day, as it stands now. */
export const coldOf = (
	{
		kind,
		lastCutOn,
		tree,
		facts,
		standing
	}: Pick<TodayTree, 'kind' | 'lastCutOn' | 'tree' | 'facts' | 'standing'>,
	on: string,
	values: Values
): ColdLimit => {
	const seen = facts.looks.findLast((look) => look.buds !== null);
	return coldLimit(
		{
			kind,
			lastCutOn,
			inGround: tree.situation === 'in-ground',
			newShoots: shootsTender({ value: seen?.buds ?? null, on: seen?.observedOn ?? null }, on, values),
			underCover: standing?.underCover ?? null
		},
		on,
		values
	);
};

/** Nights of the season, by the climate of its place, that are too cold for it. */
export function coldItem(
	entry: TodayTree,
	night: NightTemperature,
	today: string,
	values: Values
): TodayItem | null {
	const { limitC, why } = coldOf(entry, today, values);
	const { place, tree } = entry;
	// What heating holds is held: no margin for a clear night, and no cover above the one it has.
	const held = heatHolds(place);
	const margin = nearCold(place, values);
	if (night.coldC >= limitC + margin) return null;
	const usual = night.usualC < limitC + margin;
	const rooted = tree.situation === 'in-ground';
	const covered = today < (entry.standing?.underCover?.untilOn ?? '');
	const what = held
		? { now: 'Its place is too cold for it: find a warmer one', soon: 'Its place may turn too cold for it' }
		: covered
			? {
					now: 'Its cover is too little for it: find a warmer place',
					soon: 'Its cover may turn too little for it'
				}
			: rooted
				? { now: 'Lay fleece and mulch before tonight', soon: 'Watch tonight’s low; have fleece ready' }
				: { now: 'Bring it under cover before tonight', soon: 'Watch tonight’s low; have cover ready' };
	return {
		...common(entry),
		urgency: values[usual ? 'today.rank.cold' : 'today.rank.coldMaybe'],
		level: usual ? 'now' : 'due',
		sentence: usual ? what.now : what.soon,
		reason: `Its limit is ${measured(Math.round(limitC), '°C')}${why === '' ? '' : `, ${why}`}; a ${usual ? 'usual' : 'cold'} night of the season at ${place.name} is about ${measured(Math.round(usual ? night.usualC : night.coldC), '°C')} (${held ? 'what is held there' : 'climate of the place, not a forecast'}).`,
		figure: measured(Math.round(usual ? night.usualC : night.coldC), '°C'),
		stage: 'aftercare',
		task: null
	};
}
