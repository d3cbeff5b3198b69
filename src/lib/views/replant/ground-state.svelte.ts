import { daysBetween } from '$core/maths/calendar';
import { newShootsOn } from '$core/climate/cold-limit';
import type { TreeRecords } from '$core/tree/case';
import type { Place } from '$core/vocabulary/place';
import { groundAmounts, type GroundPlanInput } from '$core/replant/ground/ground-plan';
import { mulchRing } from '$core/replant/ground/mulch';
import { looseningAims, soilSaid } from '$core/replant/ground/loosening';
import { siteCheck } from '$core/replant/ground/site-check';
import { woundedOn } from '$core/tree/losses';
import { sulphurSoilOf } from '$core/replant/ground/sulphur';
import { rootProtectionArea, structuralRootZoneRadiusM } from '$core/roots/plan/zones';
import type { Kind } from '$core/vocabulary/kind';
import { resistanceProfile } from '$core/examine/soil/penetrometer';
import { standingOf } from '$core/tree/standing';
import type { Values } from '$core/values/values';

export interface GroundOf {
	records: TreeRecords;
	kind: Kind;
	places: Place[];
	values: Values;
	today: string;
}
type Part = 'hole' | 'holding' | 'collar' | 'loosening' | 'mulch' | 'sulphur';

/** How long the last test hole of a place took to empty; null where nobody timed one. A pot’s drain time is none. */
const holeTimed = ({ tree, groundPlans }: TreeRecords, placeId: string): number | null =>
	groundPlans.findLast(
		(plan) => typeof plan.hole?.drainMinutes === 'number' && (plan.placeId ?? tree.placeId) === placeId
	)?.hole?.drainMinutes ?? null;

/** Works in the ground while they are planned, and what follows from them. */
export class GroundState {
	of = $state.raw() as GroundOf;
	plan = $state() as GroundPlanInput;
	/** As it was typed here; undefined while nobody typed. */
	private drainTyped = $state<number | null | undefined>(undefined);
	/** Minutes in which a test hole at its place empties; null where nobody timed one. */
	readonly drainMin = $derived.by(() => {
		if (this.drainTyped !== undefined) return this.drainTyped;
		const { records } = this.of;
		return this.plan.hole?.drainMinutes ?? holeTimed(records, this.plan.placeId ?? records.tree.placeId);
	});

	constructor(of: GroundOf) {
		this.of = of;
		const open = of.records.groundPlans.find((plan) => plan.doneOn === null);
		if (open) {
			const { id: _id, version: _version, ...plan } = open;
			this.plan = plan;
		} else
			this.plan = {
				plannedOn: of.today,
				placeId: null,
				hole: null,
				holding: null,
				collar: null,
				loosening: null,
				mulch: null,
				sulphur: null,
				doneOn: null,
				note: ''
			};
	}

	/** Somebody timed how long a test hole at its place takes to empty. */
	setDrain(minutes: number | null): void {
		this.drainTyped = minutes;
		if (this.plan.hole) this.plan.hole.drainMinutes = minutes;
	}

	/** Puts a piece of work into the plan with usual sizes for this tree, or takes it out. */
	toggle(part: Part): void {
		if (this.plan[part]) {
			this.plan[part] = null;
			return;
		}
		const { values, records } = this.of;
		const trunkM = records.tree.trunkDiameterMm / 1000;
		const round = (m: number): number => Math.round(m * 10) / 10;
		// To what one measures out, but never toward the trunk.
		const keepOffM = Math.max(this.zones.noCutM, this.zones.srzM);
		const inner = Math.max(0.3, Math.ceil(keepOffM * 10 - 1e-6) / 10);
		const outer = Math.max(inner + 0.5, round(Math.min(this.zones.rpaM, 6)));
		switch (part) {
			case 'hole': {
				const stands = standingOf(records, this.of.today, values);
				const planned = records.lifts.at(-1);
				const ballDiameterMm = Math.round(
					stands.ballWidthMm.value ??
						planned?.ballDiameterMm ??
						records.tree.trunkDiameterMm * values['lifting.trunks-least']
				);
				const ballDepthMm = Math.round(
					stands.ballDepthMm.value ?? planned?.ballDepthMm ?? ballDiameterMm * values['pot.ballDepthShare']
				);
				this.plan.hole = {
					widthMm: Math.round(ballDiameterMm * values['hole.widthTimes']),
					depthMm: ballDepthMm,
					ballDiameterMm,
					ballDepthMm,
					drainMinutes: this.drainTyped ?? null
				};
				break;
			}
			case 'holding':
				this.plan.holding = { by: 'stakes' };
				break;
			case 'collar': {
				const buriedMm =
					records.measurements
						.flatMap(({ raw }) => (raw.tool === 'collar' ? (raw.buriedMm ?? []) : []))
						.at(-1) ?? values['collar.buriedMm'];
				this.plan.collar = {
					openMm: values['collar.openMm'],
					depthMm: Math.round(buriedMm + values['collar.underFlareMm']),
					tool: 'hand'
				};
				break;
			}
			case 'loosening':
				this.plan.loosening = {
					method: 'trenches',
					innerM: inner,
					outerM: outer,
					depthMm: Math.round(this.aims.depthMm),
					trenches: 8,
					widthMm: values['loosen.trenchWidthMm'],
					spacingMm: values['loosen.holeSpacingMm']
				};
				break;
			case 'mulch':
				this.plan.mulch = mulchRing({ trunkM, rootsM: outer, holeWidthMm: this.holeWidthMm }, values);
				break;
			case 'sulphur':
				this.plan.sulphur = {
					// Found anew before each dose or not at all: what was found before the last one is there no more.
					phNow: null,
					phAim: values['acid.phAim'],
					soil: this.texture ? sulphurSoilOf(this.texture) : 'loam',
					areaM2: round(Math.PI * values['acid.reachM'] ** 2),
					carbonate: null
				};
		}
	}

	/** Width of the hole it is set in, by this plan or lately; null for a tree that grows where it stands. */
	private readonly holeWidthMm = $derived.by(() => {
		const { records, today, values } = this.of;
		const set = records.groundPlans.findLast((plan) => plan.hole !== null && plan.doneOn !== null);
		const lately = set?.doneOn && daysBetween(set.doneOn, today) <= values['mulch.holeDays'] ? set : null;
		return (this.plan.hole ?? lately?.hole)?.widthMm ?? null;
	});
	readonly zones = $derived.by(() => {
		const diameterM = this.of.records.tree.trunkDiameterMm / 1000;
		return {
			rpaM: rootProtectionArea(diameterM, this.of.values).radiusM,
			srzM: structuralRootZoneRadiusM(diameterM, this.of.values),
			noCutM: diameterM * this.of.values['ground.noCutTrunkDiameters']
		};
	});
	readonly segments = $derived.by(() => {
		const map = this.of.records.rootMap;
		return map?.frame === 'ground' ? map.segments : [];
	});
	private readonly soil = $derived.by(() => {
		const raws = this.of.records.measurements.map(({ raw }) => raw);
		const rod = raws.filter((raw) => raw.tool === 'penetrometer').at(-1);
		const cores = raws.filter((raw) => raw.tool === 'soil-cores').at(-1);
		return {
			profile: rod?.tool === 'penetrometer' ? resistanceProfile(rod.readings, this.of.values) : null,
			cores: cores?.tool === 'soil-cores' ? cores : null
		};
	});
	readonly texture = $derived.by(() => this.soil.cores?.texture ?? null);
	readonly aims = $derived.by(() => looseningAims(this.soil.profile, this.soil.cores, this.of.values));
	/** Where no measurement found it hard. */
	readonly soilSaid = $derived.by(() => {
		const { measurements, examinations } = this.of.records;
		const measured = measurements.filter(
			({ raw }) => raw.tool === 'penetrometer' || raw.tool === 'soil-cores'
		);
		const days = measured.map((one) => one.measuredOn).sort();
		return soilSaid(days.at(-1) ?? null, examinations);
	});
	readonly amounts = $derived.by(() =>
		groundAmounts(this.plan, this.of.records.tree.trunkDiameterMm, this.segments, this.of.values)
	);
	readonly place = $derived.by(
		() =>
			this.of.places.find((place) => place.id === (this.plan.placeId ?? this.of.records.tree.placeId)) ?? null
	);
	readonly site = $derived.by(() =>
		this.place
			? siteCheck(
					this.of.kind,
					this.place,
					{
						inGround: true,
						today: this.of.today,
						drainMin: this.drainMin,
						rootsCutOn: woundedOn(this.of.records, this.of.values),
						newShoots: newShootsOn(
							standingOf(this.of.records, this.of.today, this.of.values).buds,
							{ kind: this.of.kind, place: this.place },
							this.of.today,
							this.of.values
						)
					},
					this.of.values
				)
			: []
	);
	readonly open = $derived.by(() => this.of.records.groundPlans.find((plan) => plan.doneOn === null) ?? null);
}
