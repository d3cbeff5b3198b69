import { clockOf } from '$core/maths/circular';
import type { Format } from '$core/text/format';
import { girdlingOf } from '$core/roots/map/contact';
import { obstaclesMet } from '$core/roots/map/course';
import { type PlanPoint } from '$core/roots/map/geometry';
import { claimOf } from '$core/roots/plan/claims';
import { roman, type Consent, type Cut, type PlanInput } from '$core/roots/plan/plan';
import type { ReductionPlan } from '$core/roots/plan/reduction/question';
import {
	copiesRound,
	MAP_LIMIT,
	rootFlawNames,
	rootsFrom,
	segmentFromQuick,
	reseated,
	startAzimuth,
	turnMap,
	type QuickRoot,
	type RootMapInput,
	type Segment,
	guessedRadiusMm
} from '$core/roots/map/root-map';
import { type CoursePoint } from '$core/roots/map/geometry';
import { courseLengthMm } from '$core/roots/map/geometry';
import { ledger } from '$core/roots/plan/ledger';
import { settingToBegin } from '$core/roots/setting/setting';
import { type Setting } from '$core/roots/plan/plan';
import { matesOn } from '$core/roots/map/mates';
import { isStructural, usualCutPlace } from '$core/roots/map/shares';
import { stageDates } from '$core/roots/plan/stage-dates';
import { stageGate } from '$core/roots/plan/stage-gate';
import { bearsAlways } from '$core/vocabulary/kind';
import { coldLimit, newShootsOn } from '$core/climate/cold-limit';
import { seasonFit } from '$core/climate/windows';
import { consentOf } from '$core/roots/plan/consent';
import { cutStops, type CutStop } from '$core/roots/plan/work-stops';
import { planStanding } from '$core/roots/plan/plan-standing';
import type { Planner } from '$lib/workers/planner';
import { sideRoot } from '$core/roots/map/side-root';
import { KeptRoots, type Snapshot } from './kept-roots.svelte';
import { newId } from './new-id';
import type { RootsOfTree } from './roots-of-tree';
import { deepened } from '$core/roots/map/depth-from-side';
import { measuredSaid, stillDeep, stillMeasured } from '$core/roots/map/from-picture';
import { Ways, type Proposed } from './ways.svelte';

/** What is being done with a root: open, kept, to trace, or cut in a stage. */
export type Treatment = { kind: 'open' | 'keep' | 'trace' } | { kind: 'cut'; cut: Cut };

interface Options extends RootsOfTree {
	/** Makes the planner; a thread of its own unless another is given. */
	makePlanner?: () => Planner;
}

const withoutKeys = <T extends { id: string; version: number }>({ id: _id, version: _version, ...rest }: T) =>
	rest;

/** What stands in the record, or an empty map and a plan to begin with. */
function begun({ tree, kind, place, values, today, rootMap, plan, ball }: Options): Snapshot {
	const inGround = tree.situation === 'in-ground';
	return {
		map: rootMap
			? withoutKeys(rootMap)
			: {
					mappedOn: today,
					frame: inGround ? 'ground' : 'container',
					trunkDiameterMm: tree.trunkDiameterMm,
					stems: [],
					ballDepthMm: inGround ? null : ball.depthMm,
					lean: null,
					inPot: null,
					picture: null,
					obstacles: [],
					ballRadiusMm:
						!inGround && ball.widthMm !== null ? Math.round(ball.widthMm / 2) : guessedRadiusMm(tree),
					segments: []
				},
		plan: plan
			? withoutKeys(plan)
			: {
					temper: 'usual',
					vigour: tree.vigour,
					reserves: tree.reserves,
					stageDates: stageDates({ kind, place }, { begun: [today], count: 3, today }, values),
					cuts: [],
					notBefore: [],
					consents: [],
					setting: null
				}
	};
}

/** The root map and its plan while they are worked on: what they show, and what can be done with them, each one step. */
export class RootsState extends KeptRoots {
	readonly options: Options;
	/** The course of a root while one of its points is dragged: it counts at once, and becomes a step when it is let go. */
	draft = $state.raw<{ id: string; course: CoursePoint[] } | null>(null);
	selectedId = $state<string | null>(null);
	/** What the last proposal that was taken leaves, and what it could not do. */
	taken = $state.raw<ReductionPlan | null>(null);
	readonly ways: Ways;

	constructor(options: Options) {
		const { tree, rootMap, plan } = options;
		super(tree.id, begun(options), { map: rootMap?.version ?? null, plan: plan?.version ?? null });
		this.options = options;
		this.ways = new Ways(options, options.makePlanner);
	}

	/** The map as it would be if what is dragged were let go. */
	drawnMap = $derived.by((): RootMapInput => {
		const { draft } = this;
		const { map } = this.now;
		if (!draft) return map;
		return {
			...map,
			segments: map.segments.map((segment) =>
				segment.id === draft.id ? { ...segment, course: draft.course } : segment
			)
		};
	});
	standing = $derived.by(() => {
		const { tree, kind, place, values } = this.options;
		return planStanding({ tree, kind }, place, this.drawnMap, this.now.plan, values);
	});
	/** Whether the next stage may open; null where it waits for nothing. */
	gate = $derived.by(() => {
		const { observations, referenceShootMm, kind, values } = this.options;
		return stageGate(this.now.plan, observations, referenceShootMm, bearsAlways(kind), values);
	});
	/** Living share that some cuts take together. */
	takenBy(cuts: readonly Pick<Cut, 'id' | 'atMm'>[]): number {
		const places = cuts.flatMap(({ id, atMm }) => {
			const cut = this.plan.cuts.find((one) => one.id === id);
			return cut ? [{ segmentId: cut.segmentId, atMm, stage: 0 }] : [];
		});
		return ledger(this.map, places, [1], this.options.values).totalLoss;
	}
	/** What stands against making some cuts on a day, on top of what was cut before. */
	stopsFor(cuts: readonly Pick<Cut, 'id' | 'atMm'>[], on = this.options.today): CutStop[] {
		const { tree, kind, place, values, today, nightC } = this.options;
		const made = new Map(cuts.map((cut) => [cut.id, cut.atMm]));
		const making = this.plan.cuts.flatMap((cut) => {
			const atMm = made.get(cut.id);
			return atMm === undefined ? [] : [{ ...cut, atMm }];
		});
		const [first] = making;
		if (!first) return [];
		const { ledger } = planStanding(
			{ tree, kind },
			place,
			this.map,
			{ ...this.plan, cuts: [...this.plan.cuts.filter((cut) => cut.state === 'done'), ...making] },
			values
		);
		const inGround = tree.situation === 'in-ground';
		const newShoots = newShootsOn(this.options.buds, { kind, place }, on, values);
		return cutStops(
			{
				stage: ledger.stages[first.stage] ?? { loss: 0, allowed: 1 },
				seasonFit: seasonFit(kind, place, on, values),
				nightC: on === today ? nightC : null,
				coldLimitC: coldLimit({ kind, place, lastCutOn: on, inGround, newShoots }, on, values).limitC,
				cuts: making.flatMap((cut) => {
					const segment = this.map.segments.find((one) => one.id === cut.segmentId);
					return segment ? [{ cut, segment }] : [];
				}),
				map: this.map,
				windows: ledger.windows,
				consents: this.plan.consents,
				permission: this.options.permission
			},
			values
		);
	}
	/** Trees of the same pot as they lie on this map. */
	mates = $derived.by(() => matesOn({ inPot: this.now.map.inPot }, this.options.mates));
	girdling = $derived.by(
		() =>
			new Map(this.drawnMap.segments.map((s) => [s.id, girdlingOf(s, this.drawnMap, this.options.values)]))
	);
	selected = $derived(this.now?.map.segments.find((segment) => segment.id === this.selectedId) ?? null);
	/** The stage whose cuts are next: the first with a planned cut, otherwise the first. */
	focus = $derived.by(() => {
		const planned = this.now.plan.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage);
		const next = planned.length > 0 ? Math.min(...planned) : 0;
		return this.standing.ledger.stages[next] ?? this.standing.ledger.stages[0];
	});
	/** Numbers of the cuts of the first stage, in order of the list. */
	cutNumbers = $derived.by(() => {
		const first = this.now.plan.cuts.filter((cut) => cut.stage === 0 && cut.state !== 'left');
		const chosen = this.now.map.segments.filter((segment) =>
			first.some((cut) => cut.segmentId === segment.id)
		);
		return new Map(chosen.map((segment, index) => [segment.id, index + 1]));
	});
	treatment(segment: Segment): Treatment {
		const cut = this.plan.cuts.find(
			(candidate) => candidate.segmentId === segment.id && candidate.state !== 'left'
		);
		if (cut) return { kind: 'cut', cut };
		if (!segment.sourceKnown) return { kind: 'trace' };
		return { kind: segment.keep ? 'keep' : 'open' };
	}

	/** Position as the person speaks of it. */
	clock(segment: Segment): number {
		return clockOf(startAzimuth(segment), this.map.frame);
	}

	/** A root in words: place, thickness, condition, what its course shows, what is done with it. */
	describe(segment: Segment, format: Format): string {
		const treated = this.treatment(segment);
		return [
			`${format.clock(this.clock(segment))}, ${format.measure(segment.diameterStartMm, 'mm')} ${segment.rootClass}`,
			segment.condition === 'sound' ? '' : segment.condition,
			segment.seenToMm === null ? '' : segment.seenToMm === 0 ? 'assumed, in soil' : 'in soil further on',
			segment.flaws.map((flaw) => rootFlawNames[flaw]).join(', '),
			measuredSaid(segment, (mm) => format.measure(mm, 'mm')),
			...obstaclesMet(segment, this.map.obstacles).map((obstacle) => `runs into the ${obstacle.kind}`),
			treated.kind === 'cut' ? `cut, stage ${roman(treated.cut.stage)}` : treated.kind
		]
			.filter(Boolean)
			.join('; ');
	}

	reason(segment: Segment): string {
		return claimOf(segment, this.map, this.options.values)?.reason ?? '';
	}

	add(quick: QuickRoot): void {
		const segment = segmentFromQuick(quick, this.map, newId('r'));
		const cuts = quick.stage === null ? this.plan.cuts : [...this.plan.cuts, this.#cut(segment, quick.stage)];
		this.commit({
			map: { ...this.map, segments: [...this.map.segments, segment] },
			plan: { ...this.plan, cuts, stageDates: this.#datesFor(quick.stage ?? 0) }
		});
		this.selectedId = segment.id;
	}

	/** A side root, half as thick: to where it was drawn, or off the middle and turned outward; its points can be dragged. */
	addSide(parentId: string, drawn?: { attachMm: number; to: PlanPoint }): void {
		const parent = this.map.segments.find((segment) => segment.id === parentId);
		if (!parent || this.map.segments.length >= MAP_LIMIT) return;
		const side = sideRoot(parent, drawn ?? null, newId('r'));
		if (!side) return;
		this.commit({ map: { ...this.map, segments: [...this.map.segments, side] } });
		this.selectedId = side.id;
	}

	/**
	 * Puts roots from elsewhere on the map, beside those that stand there or in their place.
	 * @param along what of the map itself comes with them
	 * @returns what stands in the way; empty when they are on the map
	 */
	bring(
		segments: readonly Segment[],
		way: 'add' | 'replace',
		along: Partial<Pick<RootMapInput, 'picture' | 'mappedOn'>> = {}
	): string {
		if (way === 'replace' && this.plan.cuts.some((cut) => cut.state === 'done'))
			return 'Roots of this map were cut already; they stay as part of the record. Add to them instead.';
		const standing = way === 'add' ? this.map.segments : [];
		if (standing.length + segments.length > MAP_LIMIT)
			return `A map takes at most ${MAP_LIMIT} roots; ${standing.length} are on it.`;
		// Names of a file may be taken here already.
		const ids = new Map(segments.map((segment) => [segment.id, newId('r')]));
		const brought = segments.map((segment) => ({
			...segment,
			id: ids.get(segment.id) ?? segment.id,
			parentId: segment.parentId === null ? null : (ids.get(segment.parentId) ?? null)
		}));
		this.commit({
			map: { ...this.map, ...along, segments: [...standing, ...brought] },
			plan: way === 'add' ? this.plan : { ...this.plan, cuts: [], notBefore: [], consents: [] }
		});
		this.selectedId = brought[0]?.id ?? null;
		return '';
	}

	/** Gives roots the depths that a picture from the side told, in one step. */
	deepen(pictureId: string, depths: readonly { id: string; depthMm: number; errorMm: number }[]): void {
		const segments = deepened(this.map.segments, depths, pictureId);
		this.commit({ map: { ...this.map, segments } });
	}

	change(id: string, patch: Partial<Segment>): void {
		// Drawn by hand it is as long as it was drawn.
		const drawn = patch.course !== undefined && patch.guessed === undefined;
		const segments = this.map.segments.map((segment) => {
			if (segment.id !== id) return segment;
			const now = {
				...segment,
				...patch,
				...(drawn && { guessed: segment.guessed.filter((one) => one !== 'length') })
			};
			return { ...now, measuredIn: stillMeasured(segment, now), depthIn: stillDeep(segment, now) };
		});
		this.commit({ map: { ...this.map, segments } });
	}

	remove(id: string): void {
		const gone = rootsFrom(this.map.segments, id);
		if (this.plan.cuts.some((cut) => gone.has(cut.segmentId) && cut.state === 'done')) {
			this.problem = 'This root was cut: it stays on the map as part of the record.';
			return;
		}
		const index = this.map.segments.findIndex((segment) => segment.id === id);
		this.commit({
			map: { ...this.map, segments: this.map.segments.filter((segment) => !gone.has(segment.id)) },
			plan: {
				...this.plan,
				cuts: this.plan.cuts.filter((cut) => !gone.has(cut.segmentId)),
				notBefore: this.plan.notBefore.filter((entry) => !gone.has(entry.segmentId)),
				consents: this.plan.consents.filter((entry) => !gone.has(entry.segmentId))
			}
		});
		this.selectedId = this.map.segments[Math.min(index, this.map.segments.length - 1)]?.id ?? null;
	}

	/** Sets what is done with a root. A cut that was made is part of the record and stays. */
	treat(id: string, kind: 'open' | 'keep' | 'trace' | 'cut', stage = 0): void {
		const segment = this.map.segments.find((candidate) => candidate.id === id);
		if (!segment) return;
		const before = this.plan.cuts.find((cut) => cut.segmentId === id);
		if (before?.state === 'done') {
			this.problem = 'This root was cut already; what was done stays in the record.';
			return;
		}
		const [flag] = this.options.flags;
		if (kind === 'cut' && flag && isStructural(segment)) {
			this.problem = `${flag.title}: until they said what they found, no structural root of it is planned to be cut.`;
			return;
		}
		this.problem = '';
		const others = this.plan.cuts.filter((cut) => cut.segmentId !== id);
		const changed: Segment = { ...segment, keep: kind === 'keep', sourceKnown: kind !== 'trace' };
		this.commit({
			map: { ...this.map, segments: this.map.segments.map((s) => (s.id === id ? changed : s)) },
			plan: {
				...this.plan,
				stageDates: kind === 'cut' ? this.#datesFor(stage) : this.plan.stageDates,
				cuts: kind === 'cut' ? [...others, this.#cut(changed, stage)] : others
			}
		});
	}

	/** What the owner said of a root. A no locks it; null takes the answer back. */
	answer(id: string, said: Omit<Consent, 'segmentId'> | null): void {
		const segment = this.map.segments.find((candidate) => candidate.id === id);
		if (!segment) return;
		const no = said?.answer === 'no';
		const wasNo = consentOf(this.plan, id)?.answer === 'no';
		this.commit({
			map: {
				...this.map,
				segments: this.map.segments.map((one) =>
					one.id === id && (no || wasNo) ? { ...one, keep: no } : one
				)
			},
			plan: {
				...this.plan,
				cuts: no
					? this.plan.cuts.filter((cut) => cut.segmentId !== id || cut.state === 'done')
					: this.plan.cuts,
				consents: [
					...this.plan.consents.filter((one) => one.segmentId !== id),
					...(said ? [{ segmentId: id, ...said }] : [])
				]
			}
		});
	}

	setPlan(patch: Partial<Pick<PlanInput, 'temper' | 'vigour' | 'reserves' | 'stageDates'>>): void {
		this.commit({ plan: { ...this.plan, ...patch } });
	}

	setMap(patch: Partial<Omit<RootMapInput, 'segments'>>): void {
		const map = { ...this.map, ...patch };
		const trunkMoved = patch.stems !== undefined || patch.trunkDiameterMm !== undefined;
		this.commit({
			map: trunkMoved ? { ...map, segments: reseated(map.segments, this.map, map) } : map
		});
	}

	/** The front and angle that are tried; as it stands while none was. */
	get setting(): Setting {
		return this.plan.setting ?? settingToBegin(this.map);
	}
	set(setting: Setting): void {
		this.commit({ plan: { ...this.plan, setting } });
	}
	/** Turns the map so that a direction becomes the marked front. */
	makeFront(azimuthDeg: number): void {
		const { setting } = this;
		const turned = (((setting.tiltTowardDeg - azimuthDeg) % 360) + 360) % 360;
		this.commit({
			map: turnMap(this.map, -azimuthDeg),
			plan: { ...this.plan, setting: { ...setting, frontDeg: 0, tiltTowardDeg: turned } }
		});
	}
	/** Plans a cut elsewhere along its root; what was cut stays. */
	cutAt(id: string, atMm: number): void {
		const segment = this.map.segments.find((candidate) => candidate.id === id);
		if (!segment) return;
		const at = Math.min(Math.max(0, Math.round(atMm)), Math.floor(courseLengthMm(segment.course)));
		if (at > (segment.seenToMm ?? Infinity)) {
			this.problem = 'There it lies in soil still: lay it open first.';
			return;
		}
		this.commit({
			plan: {
				...this.plan,
				cuts: this.plan.cuts.map((cut) =>
					cut.segmentId === id && cut.state === 'planned' ? { ...cut, atMm: at, byOwner: true } : cut
				)
			}
		});
	}
	/** Plans cuts for now, where a way of setting the tree asks for them; what was cut stays. */
	cutFor(places: readonly { segmentId: string; atMm: number; reason: string }[]): void {
		const others = this.plan.cuts.filter(
			(cut) => cut.state === 'done' || !places.some((place) => place.segmentId === cut.segmentId)
		);
		const may = places.filter(({ segmentId, atMm }) => {
			const segment = this.map.segments.find((candidate) => candidate.id === segmentId);
			return (
				segment?.sourceKnown === true &&
				!segment.keep &&
				atMm <= (segment.seenToMm ?? Infinity) &&
				!others.some((cut) => cut.segmentId === segmentId)
			);
		});
		const cuts = may.flatMap(({ segmentId, atMm, reason }) => {
			const segment = this.map.segments.find((candidate) => candidate.id === segmentId);
			return segment ? [{ ...this.#cut(segment, this.focus?.stage ?? 0), atMm, reason }] : [];
		});
		this.commit({ plan: { ...this.plan, cuts: [...others, ...cuts] } });
	}

	/** Copies of a root with its side roots, evenly round the ring; `count` in all. */
	copyRound(rootId: string, count: number): void {
		const copies = copiesRound(this.map.segments, rootId, count, () => newId('r'));
		if (this.map.segments.length + copies.length > MAP_LIMIT) {
			this.problem = `A map takes at most ${MAP_LIMIT} roots.`;
			return;
		}
		this.commit({ map: { ...this.map, segments: [...this.map.segments, ...copies] } });
	}

	/** Has the ways to stage the work worked out from what stands now. */
	propose(): Promise<void> {
		return this.ways.propose(this.map, this.plan);
	}

	/** Takes one of the ways as the plan. */
	take({ plan, result }: Proposed): void {
		this.taken = result;
		this.ways.list = null;
		this.commit({ plan });
	}

	/** Keeps a root out of a proposal before a stage; 0 lets it come at any time. */
	postpone(id: string, stage: number): void {
		const others = this.plan.notBefore.filter((entry) => entry.segmentId !== id);
		this.commit({
			plan: {
				...this.plan,
				notBefore: stage > 0 ? [...others, { segmentId: id, stage }] : others,
				cuts: this.plan.cuts.filter(
					(cut) => cut.segmentId !== id || cut.state === 'done' || cut.stage >= stage
				)
			}
		});
	}

	/** Chooses the next or previous root of the list. */
	step(by: 1 | -1): void {
		const { segments } = this.map;
		if (segments.length === 0) return;
		const index = segments.findIndex((segment) => segment.id === this.selectedId);
		this.selectedId = segments[(index + by + segments.length) % segments.length]?.id ?? null;
	}

	#cut(segment: Segment, stage: number): Cut {
		return {
			id: newId('c'),
			segmentId: segment.id,
			atMm: usualCutPlace(segment, this.options.values),
			plannedAtMm: null,
			stage,
			reason: this.reason(segment),
			state: 'planned',
			doneOn: null,
			note: '',
			byOwner: true,
			whyThen: '',
			treatments: [],
			ofPlanned: null,
			because: ''
		};
	}

	#datesFor(stage: number): string[] {
		const { stageDates: dates } = this.plan;
		if (stage < dates.length) return dates;
		const { kind, place, values, today } = this.options;
		const [first = today, ...others] = dates;
		return stageDates({ kind, place }, { begun: [first, ...others], count: stage + 1, today }, values);
	}
}
