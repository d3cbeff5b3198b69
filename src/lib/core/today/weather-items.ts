import { guardWhat, limitsOf, warningsFor, type GuardKind } from '../aftercare/weather/guards';
import { coldLimit, heatHolds, nearCold, newShootsOn, type ColdLimit } from '../climate/cold-limit';
import type { NightTemperature } from '../climate/normals';
import type { SeriesDay } from '../climate/series';
import { daysBetween } from '../maths/calendar';
import { inUnit, measuredWhole } from '../text/measured';
import { midSentence } from '../text/mid-sentence';
import type { Values } from '../values/values';
import { common, countOf, rises, type TodayItem, type TodayTree } from './item';

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
			.flatMap((day) => warningsFor([day], limitsOn(day.on)).map((warning) => ({ day, warning })))
			.map(({ day, warning }): TodayItem => {
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
				const touched = new Set(warning.trees.map(({ treeId }) => treeId));
				const plants = list
					.filter((entry) => touched.has(entry.tree.id))
					.reduce((sum, entry) => sum + countOf(entry), 0);
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
					sentence: `${guardNames[warning.kind]} ${when}, ${until === 0 && warning.kind === 'heat' ? 'at once' : warning.byWhen}: ${midSentence(guardWhat(warning.kind, plants))}`,
					reason: `${figure} ${until > 0 || day.source === 'forecast' ? 'is forecast' : 'was measured'}; ${warning.trees.length === 1 ? 'one tree stands' : `${warning.trees.length} trees stand`} less, the tightest ${inUnit(Math.round((tightest?.limit ?? 0) * 10) / 10, unit)}${tightest?.why ? ` (${tightest.why})` : ''}.`,
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

/**
 * The coldest night a tree stands on a day, as it stands now.
 * @param seenOnly new shoots count where they were seen, not where the season alone has them out
 */
export const coldOf = (
	{
		kind,
		place,
		lastCutOn,
		tree,
		facts,
		standing
	}: Pick<TodayTree, 'kind' | 'place' | 'lastCutOn' | 'tree' | 'standing'> & {
		facts: Pick<TodayTree['facts'], 'looks'>;
	},
	on: string,
	values: Values,
	seenOnly = false
): ColdLimit => {
	const seen = facts.looks.findLast((look) => look.buds !== null && look.observedOn <= on);
	const shoots = newShootsOn(
		{ value: seen?.buds ?? null, on: seen?.observedOn ?? null },
		{ kind, place },
		on,
		values
	);
	return coldLimit(
		{
			kind,
			place,
			lastCutOn: standing?.woundedOn === undefined ? lastCutOn : standing.woundedOn,
			inGround: rootsInGround({ tree, standing }, on),
			newShoots: seenOnly && shoots === 'perhaps' ? 'none' : shoots,
			underCover: standing?.underCover ?? null
		},
		on,
		values
	);
};

/** Whether its roots lie in the ground: it grows there, or is heeled in. Soil keeps frost from them, cut or not. */
const rootsInGround = ({ tree, standing }: Pick<TodayTree, 'tree' | 'standing'>, on: string): boolean => {
	const out = standing?.out ?? null;
	return tree.situation === 'in-ground' || (out?.how === 'heeled-in' && out.on <= on);
};

/** A night of the season that comes near what a tree stands; null where none does. */
function coldAhead(entry: TodayTree, night: NightTemperature, today: string, values: Values) {
	const { limitC, why } = coldOf(entry, today, values);
	const { place, tree } = entry;
	// What heating holds is held: no margin for a clear night, and no cover above the one it has.
	const margin = nearCold(place, values);
	if (night.coldC >= limitC + margin) return null;
	const usual = night.usualC < limitC + margin;
	const rooted = rootsInGround(entry, today);
	const tall = rooted && (tree.heightM ?? 0) > values['cold.coverReachM'];
	// Nothing can be made ready for what no cover reaches.
	if (tall && !usual) return null;
	const way = heatHolds(place)
		? 'held'
		: today < (entry.standing?.underCover?.untilOn ?? '')
			? 'covered'
			: tall
				? 'tall'
				: rooted
					? // How tall it is may not be written: what can be reached of it is covered.
						tree.heightM === null
						? 'unmeasured'
						: 'rooted'
					: 'loose';
	return { limitC, why, usual, way } as const;
}
type ColdAhead = NonNullable<ReturnType<typeof coldAhead>>;

const TOO_TALL: [one: string, many: string] = [
	'It may freeze back tonight, too tall to cover: look at it after',
	'They may freeze back tonight, too tall to cover: look at them after'
];
const coldAdvice: Record<ColdAhead['way'], { now: [one: string, many: string]; soon: [string, string] }> = {
	held: {
		now: [
			'Its place is too cold for it: find a warmer one',
			'Their place is too cold for them: find a warmer one'
		],
		soon: ['Its place may turn too cold for it', 'Their place may turn too cold for them']
	},
	covered: {
		now: [
			'Its cover is too little for it: find a warmer place',
			'Their cover is too little for them: find a warmer place'
		],
		soon: ['Its cover may turn too little for it', 'Their cover may turn too little for them']
	},
	rooted: {
		now: ['Lay fleece and mulch before tonight', 'Lay fleece and mulch before tonight'],
		soon: ['Watch tonight’s low; have fleece ready', 'Watch tonight’s low; have fleece ready']
	},
	unmeasured: {
		now: [
			'Lay mulch, and fleece as far up as you reach, before tonight',
			'Lay mulch, and fleece as far up as you reach, before tonight'
		],
		soon: [
			'Watch tonight’s low; have mulch and fleece ready',
			'Watch tonight’s low; have mulch and fleece ready'
		]
	},
	tall: { now: TOO_TALL, soon: TOO_TALL },
	loose: {
		now: ['Bring it under cover before tonight', 'Bring them under cover before tonight'],
		soon: ['Watch tonight’s low; have cover ready', 'Watch tonight’s low; have cover ready']
	}
};

/**
 * Nights of the season, by the climate of each place, that are too cold for its trees. Many at one place that stand the same and are kept
 * from it the same way are one line.
 */
export function coldItems(
	trees: readonly { entry: TodayTree; night: NightTemperature }[],
	today: string,
	values: Values
): TodayItem[] {
	const alike = new Map<string, { entry: TodayTree; night: NightTemperature; cold: ColdAhead }[]>();
	for (const { entry, night } of trees) {
		const cold = coldAhead(entry, night, today, values);
		if (!cold) continue;
		const key = JSON.stringify([entry.place.id, Math.round(cold.limitC), cold.why, cold.usual, cold.way]);
		const list = alike.get(key);
		if (list) list.push({ entry, night, cold });
		else alike.set(key, [{ entry, night, cold }]);
	}
	return [...alike.values()].flatMap((group) =>
		group.length < values['today.groupFrom']
			? group.map((one) => coldItem(one, [one.entry], values))
			: group.slice(0, 1).map((first) =>
					coldItem(
						first,
						group.map(({ entry }) => entry),
						values
					)
				)
	);
}

function coldItem(
	{ entry, night, cold }: { entry: TodayTree; night: NightTemperature; cold: ColdAhead },
	group: readonly TodayTree[],
	values: Values
): TodayItem {
	const { limitC, why, usual, way } = cold;
	const many = group.length > 1;
	const several = many || countOf(entry) > 1;
	const nightC = measuredWhole(usual ? night.usualC : night.coldC, '°C');
	return {
		...common(entry),
		...(many && {
			treeName: group.map(({ tree }) => tree.tag).join(', '),
			group: group.map(({ tree }) => ({ id: tree.id, tag: tree.tag }))
		}),
		urgency: values[usual ? 'today.rank.cold' : 'today.rank.coldMaybe'] + rises(group.length - 1, values),
		level: usual ? 'now' : 'due',
		sentence: coldAdvice[way][usual ? 'now' : 'soon'][several ? 1 : 0],
		reason: `${several ? 'Their' : 'Its'} limit is ${measuredWhole(limitC, '°C')}${why === '' ? '' : `, ${why}`}; a ${usual ? 'usual' : 'cold'} night of the season at ${entry.place.name} is about ${nightC} (${way === 'held' ? 'what is held there' : 'climate of the place, not a forecast'}).`,
		figure: nightC,
		stage: 'aftercare',
		task: null
	};
}
