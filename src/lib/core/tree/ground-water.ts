import type { TreeRecords } from './case';
import type { GroundPlan } from '../replant/ground/ground-plan';
import { textureByFeel } from '../examine/soil/texture';
import { textureClasses } from '../vocabulary/textures';
import { waterHeld } from '../examine/soil/water-held';
import type { Values } from '../values/values';
import type { PlaceWeather } from '../climate/series';
import { groundDay, groundStress, type GroundDay, type GroundStores } from '../replant/pots/balance';
import { crownCoverM2, usualCrownWidthMm } from '../replant/pots/demand';
import { fallOf } from '../aftercare/water/forecast';
import { seenByHand, type WaterSeen } from '../aftercare/water/pot-state';
import { daysBetween } from '../maths/calendar';
import { kalman, unknownFunction, type FunctionEstimate } from '../aftercare/water/root-function';
import { feltInLooks } from './looks';
import { leavesBorne } from './tree-demand';
import { functionCourse } from './tree-water';

const L_PER_US_GALLON = 3.785;
/** One deviation of a dryness of which nothing is known: half of all there is. */
const WHOLLY_UNKNOWN = 0.5;
const LEAST_STORE_MM = 1e-9;
/** Days over which it is told of how many rain was measured. */
const RAIN_DAYS = 60;

/** A day of its water, how sure that is, and what was felt or probed. */
export interface GroundWaterDay extends GroundDay {
	/** One deviation of the dryness. */
	sd: number;
	seen: WaterSeen[];
}

export interface TreeGroundWater {
	/** planted: a ball in its backfill; grown: roots all round, with grass. */
	how: 'planted' | 'grown';
	plantedOn: string | null;
	stores: GroundStores;
	/** Water its soil holds for roots, share of the volume, and whether that was felt. */
	held: number;
	heldFelt: boolean;
	/** Share of the last two months of which weather, and so rain, was measured; on the others none is counted. */
	rainKnown: number;
	course: FunctionEstimate[];
	/** From the planting, or as far back as weather is read, to as far ahead as it is known. */
	days: GroundWaterDay[];
	/** Where it stands today. */
	now: GroundWaterDay | null;
	/** Whether anything speaks of how dry it is: a planted ball is watered by hand; a grown tree lives by rain that is measured, or was watered or felt lately. */
	known: boolean;
	/** It was set in the ground these days, and nobody wrote down that it was watered in, nor felt it since. */
	firstWaterOwed: boolean;
	/** A planted ball is reckoned dry, but rain that nobody measured may have kept it wet, and nobody touched it in days. */
	rainPerhaps: boolean;
	/** Day its water was last poured, felt or probed. */
	knownOn: string | null;
	/** Day from which on its course is known; null where the rain is measured, or it is watered by hand. */
	knownFrom: string | null;
	next: { on: string | null; earliest: string | null; latest: string | null; litres: number; mm: number };
	/** What is usually poured by its caliper, litres; only for a planted tree. */
	tradeL: [number, number] | null;
	fall: { days: number; by: number } | null;
	lastWaterOn: string | null;
}

/** Water of the soil for roots by the last texture that was felt; the default where none was. */
function heldBy(records: TreeRecords, values: Values): { held: number; felt: boolean } {
	const felt = records.measurements.findLast((one) => one.raw.tool === 'texture')?.raw;
	if (felt?.tool !== 'texture') return { held: values['water.groundHeld'], felt: false };
	const texture = textureClasses[textureByFeel(felt)];
	return {
		held: waterHeld(texture.sandPercent, texture.clayPercent, felt.organicPercent).available,
		felt: true
	};
}

/** What its roots stand in: the ball and its backfill of a planted tree, the root zone of a grown one, mulched or under grass. */
function groundStores(
	{ tree, groundPlans }: TreeRecords,
	hole: GroundPlan['hole'],
	held: number,
	values: Values
): GroundStores {
	if (hole) {
		const crownM2 = crownCoverM2(usualCrownWidthMm(tree, values));
		const areaM2 = Math.PI * (hole.ballDiameterMm / 2000) ** 2;
		const ballM3 = (areaM2 * hole.ballDepthMm) / 1000;
		const holeM3 = (Math.PI * (hole.widthMm / 2000) ** 2 * hole.depthMm) / 1000;
		return {
			ballMm: values['water.ballHeld'] * hole.ballDepthMm,
			backfillMm: (Math.max(0, holeM3 - ballM3) * held * 1000) / areaM2,
			areaM2,
			crownRatio: crownM2 / areaM2,
			grassShare: 0
		};
	}
	const mulched = groundPlans.some((plan) => plan.mulch !== null && plan.doneOn !== null);
	return grownStores(tree, { held, mulched }, values);
}

/** The root zone of a tree that grew where it stands. @param held water of its soil for roots, share of the volume */
export function grownStores(
	tree: Pick<TreeRecords['tree'], 'heightM' | 'trunkDiameterMm'>,
	{ held, mulched }: { held: number; mulched: boolean },
	values: Values
): GroundStores {
	const crownM2 = crownCoverM2(usualCrownWidthMm(tree, values));
	const zoneM = Math.min(values['water.lawnMostM'], (values['water.lawnTree'] * tree.trunkDiameterMm) / 1000);
	const areaM2 = Math.PI * Math.max(values['water.lawnLeastM'], zoneM) ** 2;
	return {
		ballMm: held * values['water.lawnDepthMm'],
		backfillMm: 0,
		areaM2,
		crownRatio: Math.min(values['water.crownOverRoots'], crownM2 / areaM2),
		grassShare: mulched ? values['water.grassMulched'] : 1
	};
}

/** Of the ball or the root zone, 0 full … 1 dry. */
const drynessOf = ({ ballMm }: GroundDay['water'], stores: GroundStores): number =>
	stores.ballMm > 0 ? Math.min(1, Math.max(0, 1 - ballMm / stores.ballMm)) : 1;

/** What was poured by day, mm over the ground of its roots; a water of which nobody wrote how much fills them. */
function pouredMm(
	waterings: TreeRecords['waterings'],
	{ ballMm, areaM2 }: GroundStores
): Map<string, number> {
	const poured = new Map<string, number>();
	for (const { wateredOn, litres } of waterings)
		poured.set(wateredOn, (poured.get(wateredOn) ?? 0) + (litres === null ? ballMm : litres / areaM2));
	return poured;
}

/**
 * Water of a tree in the ground: of a planted one the ball and its backfill, of a grown one its root zone. Fed by rain and by
 * what was poured, drawn by crown and grass under FAO-56 stress; the winter before is taken as having filled it. What was felt or probed
 * corrects it by its error against that of the balance, which grows with what was drawn and with every day of rain that nobody measured.
 * @returns null for a tree in a pot
 */
export function treeGroundWater(
	records: TreeRecords,
	here: PlaceWeather,
	today: string,
	values: Values
): TreeGroundWater | null {
	const { tree } = records;
	const { place, series } = here;
	if (tree.situation !== 'in-ground' || series.length === 0) return null;
	const { held, felt } = heldBy(records, values);
	const planted = records.groundPlans.findLast((plan) => plan.hole !== null && plan.doneOn !== null);
	const plantedOn = planted?.doneOn ?? null;
	const stores = groundStores(records, planted?.hole ?? null, held, values);
	const course = functionCourse(
		records,
		here,
		{ stores: { rootedMostL: 1, unrootedMostL: 0, surfaceM2: 0, crownM2: 0 }, pairs: [] },
		today,
		values
	);
	const now = course.at(-1) ?? unknownFunction(values);
	const phiByDay = new Map(course.map((point) => [point.on, point.phi]));
	const inLeaf = leavesBorne(records, place, values);
	const poured = pouredMm(records.waterings, stores);
	const seen = seenByHand(
		[
			...records.measurements.flatMap(({ raw, measuredOn }) =>
				raw.tool === 'moisture' ? [{ on: measuredOn, data: raw }] : []
			),
			...feltInLooks(records)
		].filter(({ on }) => on >= (plantedOn ?? '')),
		values
	);
	const run = (phiOf: (on: string) => number): GroundWaterDay[] => {
		let water = { ballMm: stores.ballMm, backfillMm: stores.backfillMm };
		let sd = values['water.unmeasuredError'];
		const days: GroundWaterDay[] = [];
		for (const day of series) {
			if (plantedOn !== null && day.on < plantedOn) continue;
			const asked = { day, rootFunction: phiOf(day.on), inLeaf: inLeaf(day.on) };
			const irrigationMm = poured.get(day.on) ?? 0;
			const next = groundDay(water, stores, { ...asked, irrigationMm }, values);
			sd = Math.min(
				WHOLLY_UNKNOWN,
				sd +
					((next.drawnMm + next.grassMm) / Math.max(LEAST_STORE_MM, stores.ballMm)) *
						values['rootFunction.demandError'] +
					(day.how === '' ? 0 : values['water.unknownRainError'])
			);
			if (next.drainedMm > 0) sd = Math.min(sd, values['water.unmeasuredError']);
			// Who waters feels before: it speaks of what was there until then.
			const list = irrigationMm > 0 ? [] : seen.filter((one) => one.on === day.on);
			for (const one of list) {
				const believed = kalman({ phi: drynessOf(next.water, stores), p: sd ** 2 }, one.dryness, one.sd ** 2);
				next.water.ballMm = stores.ballMm * (1 - believed.phi);
				sd = Math.sqrt(believed.p);
			}
			water = next.water;
			days.push({
				...next,
				dryness: drynessOf(water, stores),
				stress: list.length > 0 ? groundStress(water.ballMm, stores, values) : next.stress,
				sd,
				seen: list
			});
		}
		return days;
	};
	const phiOn = (on: string): number => phiByDay.get(on) ?? now.phi;
	const days = run(phiOn);
	const dryOn = (list: readonly GroundDay[]): string | null =>
		list.find((day) => day.on >= today && day.dryness >= values['water.groundFree'])?.on ?? null;
	const on = dryOn(days);
	const todays = days.find((day) => day.on === today) ?? null;
	const then = days.find((day) => day.on === on) ?? todays;
	const mm = then ? stores.ballMm - then.water.ballMm : 0;
	const recent = series.filter((day) => day.on <= today).slice(-RAIN_DAYS);
	const rainKnown = recent.length > 0 ? recent.filter((day) => day.how === '').length / recent.length : 0;
	const lastWaterOn = records.waterings.at(-1)?.wateredOn ?? null;
	const rainTells = planted !== undefined || rainKnown >= values['water.rainKnown'];
	// Some water on ground of which nobody knows how dry it was tells nothing; what fills it does.
	const filled = [...poured].flatMap(([day, mm]) => (mm >= stores.ballMm ? [day] : []));
	const told = [...filled, ...seen.map((one) => one.on)].filter((day) => day <= today).sort();
	const knownOn = told.at(-1) ?? null;
	const near = (from: string, to: string): boolean =>
		daysBetween(from, to) <= values['decision.waterKnownDays'];
	// Back from the last time anybody told, as far as one time bridges to the next.
	const bridged = told.findLast((day, i) => i === 0 || !near(told[i - 1] ?? day, day)) ?? null;
	const touchedOn = [lastWaterOn ?? '', knownOn ?? ''].sort().at(-1) ?? '';
	const touched = touchedOn !== '' && daysBetween(touchedOn, today) < values['water.rainRememberedDays'];
	// Set dry it is dry, however full its hole is reckoned.
	const firstWaterOwed =
		plantedOn !== null &&
		plantedOn <= today &&
		daysBetween(plantedOn, today) <= values['aftercare.lapsesDays'] &&
		touchedOn < plantedOn;
	const gallons = (tree.trunkDiameterMm / 25.4) * L_PER_US_GALLON;
	return {
		how: planted ? 'planted' : 'grown',
		plantedOn,
		stores,
		held,
		heldFelt: felt,
		rainKnown,
		known: !firstWaterOwed && (rainTells || (knownOn !== null && near(knownOn, today))),
		firstWaterOwed,
		rainPerhaps:
			planted !== undefined &&
			rainKnown < values['water.rainKnown'] &&
			!touched &&
			on !== null &&
			on <= today,
		knownOn,
		knownFrom: rainTells ? null : bridged,
		course,
		days,
		now: todays,
		next: {
			on,
			earliest: dryOn(run((day) => (day < today ? phiOn(day) : now.high))),
			latest: dryOn(run((day) => (day < today ? phiOn(day) : now.low))),
			mm,
			litres: mm * stores.areaM2
		},
		tradeL: planted ? [gallons, 2 * gallons] : null,
		fall: fallOf(course, today, values),
		lastWaterOn
	};
}
