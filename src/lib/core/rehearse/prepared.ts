import { coldLimit } from '../climate/cold-limit';
import { inLeafAt } from '../climate/leaf';
import { growingSeason, type PlaceClimate } from '../climate/normals';
import { nextWindowDay, seasonFit } from '../climate/windows';
import { addDays, daysBetween, yearOf } from '../maths/calendar';
import type { Values } from '../values/values';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import type { RehearsalScene, ScenePlace, ScenePot, SceneStage } from './scene';

/** Work of a plan on one day of a rehearsal. */
export interface PlayedWork extends SceneStage {
	/** Day of the rehearsal, from 0. */
	day: number;
	/** Log-odds that its season costs. */
	seasonOdds: number;
}

/** A plan worked out for a scene: what is the same in every future. */
export interface Prepared {
	plan: RehearsedPlan;
	works: readonly PlayedWork[];
	/** Planned work that lies beyond the end. */
	worksLater: boolean;
	/** Days on which it goes into another pot, and its season’s odds; −1 where it does not. */
	replantDay: number;
	replantOdds: number;
	pot: ScenePot | null;
	potAfter: ScenePot | null;
	/** Index of its place among those of the scene. */
	placeAt: number;
	/** Nothing is poured before this day. */
	restUntil: number;
	/** Days of shade: from the first to before the second. */
	shade: readonly [from: number, until: number];
	inLeaf: Uint8Array;
	/** Warmth of coldest night it stands, by day. */
	coldC: Float64Array;
	/** What it is carried into on a cold night holds, °C; −∞ where nothing is heated. */
	heldC: number;
}

/** Root stages as a plan does them. @param today the day before the first of the rehearsal */
function stagesOf(scene: RehearsalScene, plan: RehearsedPlan, values: Values): SceneStage[] {
	const { today } = scene.recovery;
	const later = (on: string): string => addDays(on < today ? today : on, values['rehearse.waitDays']);
	const ahead = scene.stages.map((stage) => ({
		...stage,
		on: stage.on <= today ? addDays(today, 1) : stage.on
	}));
	const [first, ...rest] = ahead;
	switch (plan.roots) {
		case 'wait':
			return ahead.map((stage) => ({ ...stage, on: later(stage.on) }));
		case 'half-now': {
			if (!first) return [];
			// Rot comes off first, whatever else waits.
			const half = first.share / 2;
			return [
				{ on: first.on, share: half, rot: first.rot, girdles: first.girdles / 2 },
				{
					on: later(first.on),
					share: half / Math.max(0.01, 1 - half),
					rot: 0,
					girdles: first.girdles / 2
				},
				...rest.map((stage) => ({ ...stage, on: later(stage.on) }))
			];
		}
		case 'treat':
			return [
				{
					on: addDays(today, 1),
					share: values['rehearse.treatShare'],
					rot: values['rehearse.treatClears'],
					girdles: 0
				},
				...ahead.map((stage) => ({ ...stage, on: later(stage.on) }))
			];
		case 'as-planned':
			return ahead;
	}
}

/** The pot of a scene that its planting is planned for. */
export const PLANNED_POT = 'planned';

const kindOf = (scene: RehearsalScene) => ({
	group: scene.group,
	coldestC: scene.coldestC,
	liftingWindow: scene.liftingWindow
});

/** A plan for a scene, with its days, its season and its limits worked out. */
export function prepared(
	scene: RehearsalScene,
	plan: RehearsedPlan,
	days: readonly string[],
	values: Values
): Prepared {
	const { today, tender, evergreen } = scene.recovery;
	const placeAt = Math.max(
		0,
		scene.places.findIndex((one) => one.id === plan.placeId)
	);
	const place = scene.places[placeAt] ?? scene.places[0];
	if (!place) throw new RangeError('A scene holds at least the place it stands at.');
	const dayOf = (on: string): number => daysBetween(today, on) - 1;
	const works = stagesOf(scene, plan, values).map((stage): PlayedWork => ({
		...stage,
		day: Math.max(0, dayOf(stage.on)),
		seasonOdds:
			values[`triage.season.${seasonFit(kindOf(scene), place, stage.on, values)}`] *
			Math.min(1, stage.share / values['rehearse.seasonAt'])
	}));
	const within = works.filter((work) => work.day < days.length);
	const pot = scene.pots[0] ?? null;
	const chosen = scene.pots.find((one) => one.id === plan.potId) ?? pot;
	const window = nextWindowDay(kindOf(scene), place, addDays(today, 1), values);
	const plannedOn = chosen?.id === PLANNED_POT ? scene.replantOn : null;
	const replantDay = chosen?.replants
		? (within[0]?.day ?? Math.max(0, dayOf(plannedOn ?? window ?? today)))
		: -1;
	const replantsAlone = replantDay >= 0 && within.length === 0;
	const workedFirst = within[0]?.day ?? (replantDay >= 0 ? replantDay : 0);
	const cuts = within.map((work) => days[work.day] ?? today);
	return {
		plan,
		works: within,
		worksLater: within.length < works.length,
		replantDay: replantDay < days.length ? replantDay : -1,
		replantOdds: replantsAlone ? values['rehearse.replantOdds'] : 0,
		pot,
		potAfter: chosen,
		placeAt,
		restUntil:
			plan.water !== 'dry-first'
				? 0
				: scene.restUntil !== null && within.length === 0
					? Math.max(0, dayOf(scene.restUntil))
					: workedFirst + Math.round(values['rehearse.restDays']),
		shade: plan.shade ? [workedFirst, workedFirst + Math.round(values['rehearse.shadeDays'])] : [0, 0],
		inLeaf: leafDays(place, { tender, evergreen }, days, values),
		coldC: coldLimits(scene, place, { days, cuts }, values),
		heldC: Math.max(...scene.places.map((one) => floorOf(one, values)))
	};
}

const floorOf = (place: ScenePlace, values: Values): number =>
	place.heldMinimumC ??
	(place.kind === 'indoors' || place.kind === 'heated' ? values['shelter.indoorsC'] : -Infinity);

function leafDays(
	place: PlaceClimate,
	kind: { tender: boolean; evergreen: boolean },
	days: readonly string[],
	values: Values
): Uint8Array {
	const inLeaf = inLeafAt(kind, place, values);
	return Uint8Array.from(days, (on) => (inLeaf(on) ? 1 : 0));
}

/** Coldest night it stands, day by day: of its kind, tighter after cuts and while shoots are tender. */
function coldLimits(
	scene: RehearsalScene,
	place: PlaceClimate,
	{ days, cuts }: { days: readonly string[]; cuts: readonly string[] },
	values: Values
): Float64Array {
	const { tender } = scene.recovery;
	const seasons = [-1, 0, 1, 2, 3].flatMap(
		(year) => growingSeason(place, tender, yearOf(scene.recovery.today) + year, values) ?? []
	);
	return Float64Array.from(days, (on) => {
		const season = seasons.find(({ from, to }) => from <= on && on <= to);
		const length = season ? Math.max(1, daysBetween(season.from, season.to)) : 1;
		const tenderShoots =
			season !== undefined && daysBetween(season.from, on) / length < values['rehearse.shootsTender'];
		const lastCutOn = cuts.findLast((cut) => cut <= on) ?? scene.lastCutOn;
		return coldLimit(
			{
				kind: { coldestC: scene.coldestC, group: scene.group },
				place,
				lastCutOn,
				inGround: scene.ground !== null,
				newShoots: tenderShoots ? 'out' : 'none'
			},
			on,
			values
		).limitC;
	});
}
