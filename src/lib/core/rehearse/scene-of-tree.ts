import { causeChances } from '../examine/diagnosis/diagnose';
import type { ConditionId } from '../vocabulary/conditions';
import { contextFor } from '../tree/carried';
import { habitsOf } from '../climate/drawn-weather';
import { climateOf } from '../climate/normals';
import { addDays } from '../maths/calendar';
import type { SeriesDay } from '../climate/series';
import type { RecoveryCase } from '../recovery/forecast';
import { recoveryCaseInput } from '../recovery/forecast-case';
import { airOf, storesOf } from '../replant/pots/stores';
import { sizeAdvice, type Planting } from '../replant/pots/replant-plan';
import { pottingMixOf, usualMix } from '../replant/mixes/mixes';
import { scaledPot } from '../replant/pots/volume';
import { girdlingOf } from '../roots/map/contact';
import { removedBy, rootShares } from '../roots/map/shares';
import { planStanding } from '../roots/plan/plan-standing';
import { usualCrownSchool } from '../aftercare/crown/crown';
import { ruleOf } from '../aftercare/tasks/source';
import { backupStanding } from '../recovery/backup';
import type { TreeRecords } from '../tree/case';
import { lastRootWork, rootLosses } from '../tree/losses';
import { rotLeft, rotToday } from '../tree/rot-known';
import { ofThePot, withMates } from '../tree/shared-pot';
import { plantingOf } from '../tree/tree-water';
import type { WaterOfTree } from '../tree/water-state';
import type { StockPot } from '../replant/kit/stock';
import type { Place } from '../vocabulary/place';
import type { Values } from '../values/values';
import { rehearsedPlan, type RehearsedPlan } from '../recovery/rehearsal/plan';
import { PLANNED_POT } from './prepared';
import { rehearsalScene, type RehearsalScene, type ScenePot, type SceneStage } from './scene';

/** What is known round a tree that is rehearsed. */
export interface AroundScene {
	/** The tree as Recovery judges it. */
	recovery: RecoveryCase;
	/** Every place of the yard. */
	places: readonly Place[];
	/** Weather of its place as far back as it was measured. */
	series: readonly SeriesDay[];
	water: WaterOfTree;
	/** Pots of the yard’s stock. */
	stock: readonly StockPot[];
}

/** A tree with its plans as a scene to rehearse on, and the plan that stands. Null where it stands nowhere that is known. */
export function sceneOf(
	records: TreeRecords,
	around: AroundScene,
	today: string,
	values: Values
): { scene: RehearsalScene; planned: RehearsedPlan } | null {
	const { tree, kind } = records;
	const place = around.places.find((one) => one.id === tree.placeId);
	// What was done to a shared pot counts for all that stand in it.
	const planting = plantingOf(ofThePot(records), today, values);
	const ground = around.water.ground;
	if (!place || (!planting && !ground)) return null;
	const restUntil = around.water.pot?.restUntil ?? null;
	const pots = planting ? potsOf(records, planting, around, today, values) : [];
	const scene = rehearsalScene.parse({
		recovery: recoveryCaseInput.parse({
			...around.recovery,
			losses: around.recovery.losses.filter((loss) => loss.on <= today).slice(-LOSSES_MOST),
			looks: around.recovery.looks.slice(-SEEN_MOST),
			functionSeen: around.recovery.functionSeen.slice(-SEEN_MOST)
		}),
		group: kind.group,
		liftingWindow: kind.liftingWindow,
		coldestC: kind.coldestC,
		wetnessTrigger: kind.wetnessTrigger,
		lastCutOn: rootLosses(records, values).done.at(-1)?.on ?? null,
		rotChance: rotToday(records, today, values),
		airlessChance: planting ? airlessChance(records, planting, today, values) : 0,
		girdled: girdlersOf(records, values).most,
		dryness: around.water.pot?.next.dryness ?? ground?.now?.dryness ?? undefined,
		ground: planting ? null : (ground?.stores ?? null),
		pots,
		potGuessed: planting !== null && around.water.pot?.potKnown !== true,
		// What grows in the ground stays where it is.
		places: (planting
			? [place, ...around.places.filter((one) => one.id !== place.id && one.kind !== 'garden')]
			: [place]
		)
			.slice(0, PLACES_MOST)
			.map((one) => ({
				id: one.id,
				label: one.name,
				...climateOf(one)
			})),
		replantOn: records.replantPlan?.planting.plantedOn ?? null,
		restUntil: restUntil !== null && restUntil > today ? restUntil : null,
		backupsAlive: Math.min(
			2000,
			records.backups.reduce((sum, backup) => sum + backupStanding(backup).alive, 0)
		),
		stages: stagesAhead(records, place, values),
		habits: habitsOf(place, around.series, values),
		backupRate: values[kind.group === 'deciduous' ? 'backup.rate.hardwood' : 'backup.rate.softwood']
	});
	return { scene, planned: plannedPlan(records, scene) };
}

/** So much of what was seen and lost goes along, the latest of it: what is older weighs little. */
const SEEN_MOST = 500;
const LOSSES_MOST = 50;
/** So many pots of the stock are offered, the nearest in width to what is advised. */
const STOCK_POTS = 3;
/** So many places a scene holds. */
const PLACES_MOST = 12;

/** Causes by which a mix has no air for its roots. */
const airless: readonly ConditionId[] = ['collapsed-mix', 'sour-root-zone'];

/**
 * Chance that the mix it stands in has no air, as the last look since it was planted gives it.
 * @returns null where nobody looked since
 */
function airlessChance(
	records: TreeRecords,
	planting: Planting,
	today: string,
	values: Values
): number | null {
	const look = records.examinations.findLast(
		({ examinedOn }) => examinedOn <= today && examinedOn >= planting.plantedOn
	);
	if (!look) return null;
	const { context } = contextFor(records, look.examinedOn, look.events, look.id, values);
	return Math.max(
		0,
		...causeChances(context, look.findings, values)
			.filter(({ conditionId }) => airless.includes(conditionId))
			.map(({ chance }) => chance)
	);
}

/** Rules of work that waits to take its shelter off. */
const underShelter = new Set(['shelter-half', 'shelter', 'rehearsed-shade']);

/** The plan that stands for a tree: its stages, the planting it is planned for, its usual school. */
function plannedPlan(records: TreeRecords, scene: RehearsalScene): RehearsedPlan {
	const { replantPlan, kind, tasks } = records;
	const open = tasks.filter((task) => task.state === 'open');
	const dry = scene.restUntil !== null || replantPlan?.waterSchool === 'dry-rest';
	return rehearsedPlan.parse({
		name: 'As planned',
		roots: 'as-planned',
		crown: open.some((task) => task.kind === 'crown') ? 'balance' : usualCrownSchool(kind.group),
		potId: replantPlan && scene.pots.some((one) => one.id === PLANNED_POT) ? PLANNED_POT : null,
		placeId: null,
		// What waits for its shelter to come off stands under it.
		shade: open.some((task) => underShelter.has(ruleOf(task.source))),
		water: dry ? 'dry-first' : 'by-need'
	});
}

/** The pot it stands in as it is rooted now, the one it is planned for, one a step larger and one with a mix that drains well. */
function potsOf(
	records: TreeRecords,
	now: Planting,
	{ water, stock }: AroundScene,
	today: string,
	values: Values
): ScenePot[] {
	const { tree, kind, replantPlan } = records;
	const potOf = (planting: Planting, of: Pick<ScenePot, 'id' | 'label' | 'replants'>): ScenePot => {
		const stores =
			of.id === 'now' && water.pot
				? water.pot.stores
				: withMates(storesOf(planting, tree, values), records, planting, values);
		const { airSpace, drawn } = airOf(planting, values);
		return {
			...of,
			...stores,
			crownM2: Math.min(stores.crownM2, crownMostM2),
			airSpace: Math.min(1, Math.max(0, airSpace)),
			held: Math.min(1, drawn)
		};
	};
	// Nobody measured its crown: it is taken for no larger than its pot has fed so far, some days from water to water.
	const nowStores = water.pot?.stores ?? storesOf(now, tree, values);
	const crownMostM2 =
		now.crownWidthMm !== null
			? Infinity
			: ((nowStores.rootedMostL + nowStores.unrootedMostL) * kind.wetnessTrigger) /
				(values['rehearse.usualDayMm'] * values['water.crownFactor'] * values['rehearse.guessedDryDays']);
	const asPlanned = replantPlan ? { ...replantPlan.planting, id: PLANNED_POT, version: 1 } : null;
	const held = [
		potOf(now, { id: 'now', label: 'the pot it stands in', replants: false }),
		...(asPlanned
			? [potOf(asPlanned, { id: PLANNED_POT, label: 'the planting that is planned', replants: true })]
			: [])
	];
	// A pot that is shared is not changed for one of those in it.
	if (records.mates.length > 0) return held;
	const loss = lastRootWork(records, values)?.ofBall ?? 0;
	const rot = (rotLeft(records, today, values)?.chance ?? 0) >= values['forecast.rotChance'];
	const step = sizeAdvice(now.ballDiameterMm, loss, { rot, packed: false }, values);
	// After rot or a hard reduction the pot follows the roots that are left, as Replant advises.
	const follows = step.rule === 'after-rot';
	const widthMm = follows
		? now.pot.topWidthMm
		: Math.max(step.widthMm, now.pot.topWidthMm + values['pot.upSizeMm']);
	const roomMm = values[follows ? 'pot.afterRotSizeMm' : 'pot.packedSizeMm'];
	const fresh = { ...now, plantedOn: today, pot: scaledPot(now.pot, widthMm / now.pot.topWidthMm) };
	const draining = {
		...now,
		plantedOn: today,
		mix: pottingMixOf(usualMix(kind.group, true)),
		coarseLayerMm: 0
	};
	return [
		...held,
		potOf(fresh, {
			id: follows ? 'fresh' : 'larger',
			label: follows
				? 'its pot, fresh mix of the same kind'
				: 'a pot one step larger, fresh mix of the same kind',
			replants: true
		}),
		potOf(draining, { id: 'draining', label: 'its pot, a mix that drains well', replants: true }),
		...stock
			.filter(
				({ count, pot }) =>
					count > 0 && pot.topWidthMm >= now.ballDiameterMm && pot.topWidthMm <= widthMm + roomMm
			)
			.sort((a, b) => Math.abs(a.pot.topWidthMm - widthMm) - Math.abs(b.pot.topWidthMm - widthMm))
			.slice(0, STOCK_POTS)
			.map(({ id, name, pot }) =>
				potOf(
					{ ...now, plantedOn: today, pot },
					{ id, label: `${name} of the stock, fresh mix of the same kind`, replants: true }
				)
			)
	];
}

/** Living roots that lie tight against the trunk and are still there. */
function girdlersOf(records: TreeRecords, values: Values): { most: number; shares: Map<string, number> } {
	const { rootMap, plan } = records;
	const shares = new Map<string, number>();
	if (!rootMap) return { most: 0, shares };
	const cut = new Set(plan?.cuts.filter((one) => one.state === 'done').map((one) => one.segmentId));
	for (const segment of rootMap.segments) {
		if (cut.has(segment.id)) continue;
		const { contactShare, severity } = girdlingOf(segment, rootMap, values);
		if (severity !== 'none') shares.set(segment.id, contactShare);
	}
	return { most: Math.min(1, Math.max(0, ...shares.values())), shares };
}

/** Root stages that are planned and not done, with what each takes of what lives then and what it does away with. */
function stagesAhead(records: TreeRecords, place: Place, values: Values): SceneStage[] {
	const { rootMap, plan, tree, kind } = records;
	if (!rootMap || !plan) return [];
	const { cutCost } = planStanding({ tree, kind }, place, rootMap, plan, values).ledger;
	const shares = rootShares(rootMap.segments, values);
	const byId = new Map(rootMap.segments.map((segment) => [segment.id, segment]));
	const dead = rootMap.segments.filter((segment) => segment.condition === 'dead');
	const thick = (ids: Iterable<string>): number =>
		[...ids].reduce((sum, id) => sum + (byId.get(id)?.diameterStartMm ?? 0) ** 2, 0);
	const allDead = thick(dead.map(({ id }) => id));
	const girdlers = girdlersOf(records, values);
	const allGirdles = [...girdlers.shares.values()].reduce((sum, one) => sum + one, 0);
	const cost = (cuts: readonly { segmentId: string }[]): number =>
		cuts.reduce((sum, cut) => sum + (cutCost.get(cut.segmentId) ?? 0), 0);
	let gone = cost(plan.cuts.filter((cut) => cut.state === 'done'));
	return plan.stageDates.flatMap((on, stage) => {
		const cuts = plan.cuts.filter((cut) => cut.stage === stage && cut.state === 'planned');
		if (cuts.length === 0) return [];
		const taken = cost(cuts);
		const removed = new Set(
			cuts.flatMap((cut) => [
				...removedBy(cut, byId, shares, values),
				...(byId.get(cut.segmentId)?.condition === 'dead' ? [cut.segmentId] : [])
			])
		);
		const share = Math.min(1, taken / Math.max(0.01, 1 - gone));
		gone += taken;
		const freed = cuts.reduce((sum, cut) => sum + (girdlers.shares.get(cut.segmentId) ?? 0), 0);
		return [
			{
				on,
				share,
				rot:
					allDead > 0
						? Math.min(1, thick(dead.map(({ id }) => id).filter((id) => removed.has(id))) / allDead)
						: 0,
				girdles: allGirdles > 0 ? Math.min(1, freed / allGirdles) : 0
			}
		];
	});
}

/** First day that the weather of a place is asked from for a rehearsal. @param today calendar date */
export const habitsFrom = (today: string, values: Values): string =>
	addDays(today, -Math.round(values['rehearse.habitDays'] * 6));
