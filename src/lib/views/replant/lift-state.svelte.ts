import { newShootsOn } from '$core/climate/cold-limit';
import { ballMass } from '$core/examine/measuring/ball-mass';
import { ballSize, type BallReading, type BallSchool } from '$core/replant/lifting/ball-size';
import type { StepId } from '$core/replant/lifting/checklist';
import { liftDay, plannedDaySaid } from '$core/replant/lifting/lift-day';
import {
	liftLog,
	liftStops,
	stepsTold,
	type Lift,
	type LiftInput,
	type LiftLog
} from '$core/replant/lifting/lift';
import { liftKept } from '$core/replant/lifting/lift-cost';
import { handling, liftLimit, reachWithBallCm, type Coupling } from '$core/replant/lifting/niosh';
import { emptyRoute, judgeRoute, type Route } from '$core/replant/lifting/route';
import { usualCrownWidthMm } from '$core/replant/pots/demand';
import type { RootMap } from '$core/roots/map/root-map';
import type { Tree } from '$core/take-in/tree';
import type { Standing } from '$core/tree/standing';
import { leafCalendar } from '$core/tree/tree-demand';
import type { Kind } from '$core/vocabulary/kind';
import type { Task } from '$core/vocabulary/task';
import type { Place } from '$core/vocabulary/place';
import type { Values } from '$core/values/values';

/** What a lift is planned from. */
export interface LiftOf {
	tree: Tree;
	kind: Kind;
	place: Place;
	values: Values;
	today: string;
	/** Thickest root mapped; 0 where none was. */
	thickestMm: number;
	/** Its roots as mapped in the ground, before any lift; null where they were not. */
	mapBefore: RootMap | null;
	lifts: Lift[];
	/** Work on its list, done and open. */
	tasks: readonly Task[];
	/** What is known of permission, protection, services and pests. */
	known: Pick<
		Standing,
		'permission' | 'protectedSpecies' | 'servicesLocated' | 'pests' | 'buds' | 'ballWidthMm' | 'ballDepthMm'
	>;
	/** People beside, as they were told before the work; 0 where nobody said. */
	helpers: number;
	/** Days ahead stand against root work: it is said above why. */
	stopped: boolean;
}

/** So many people are there unless somebody says otherwise. */
const USUAL_PEOPLE = 2;

/** What of a log that was left in the middle can be read, field by field; null where there was none. */
export function readLog(left: string): Partial<LiftLog> | null {
	const kept: unknown = JSON.parse(left);
	if (typeof kept !== 'object' || kept === null) return null;
	return Object.fromEntries(
		Object.entries(liftLog.shape).flatMap(([key, part]) => {
			const one = part.safeParse((kept as Record<string, unknown>)[key]);
			return key in kept && one.success ? [[key, one.data]] : [];
		})
	);
}

/** A lift while it is planned and its log is written, and what follows from both. */
export class LiftState {
	of = $state.raw() as LiftOf;
	school = $state<BallSchool>('field');
	reading = $state<BallReading>('across');
	/** Ball to dig as somebody set it; null follows the school. */
	chosenMm = $state<number | null>(null);
	chosenDepthMm = $state<number | null>(null);
	startCm = $state(20);
	coupling = $state<Coupling>('fair');
	twistDeg = $state(0);
	plannedOn = $state('');
	people = $state(USUAL_PEOPLE);
	route = $state<Route>({ ...emptyRoute });
	ticks = $state<StepId[]>([]);
	log = $state<LiftLog | null>(null);
	/** Steps that were told elsewhere before: ticked with their day until somebody takes the tick off. */
	readonly told: readonly StepId[];

	constructor(of: LiftOf) {
		this.of = of;
		this.told = stepsTold({
			permission: of.known.permission.value,
			protectedSpecies: of.known.protectedSpecies.value,
			servicesLocated: of.known.servicesLocated.value
		});
		const { open } = this;
		this.school = open?.school ?? 'field';
		this.reading = open?.reading ?? 'across';
		this.chosenMm = this.begunMm.width || null;
		this.chosenDepthMm = this.begunMm.depth || null;
		this.plannedOn = open?.plannedOn ?? this.day.nextOn ?? of.today;
		this.people = open?.people ?? (of.helpers > 0 ? of.helpers + 1 : USUAL_PEOPLE);
		this.route = open ? { ...open.route } : { ...emptyRoute };
		this.ticks = [...(open?.ticks ?? this.told)];
	}

	/** The lift that is planned and not yet done. */
	get open(): Lift | null {
		return this.of.lifts.find((lift) => lift.log === null) ?? null;
	}
	/** The ball as it was meant before the work, where the lift is not planned yet; null where nobody said. */
	get meant(): { widthMm: number | null; depthMm: number | null; on: string } | null {
		const { ballWidthMm: width, ballDepthMm: depth } = this.of.known;
		const on = [width, depth].find(({ from }) => from?.record === 'decision')?.on ?? null;
		if (on === null || this.open) return null;
		const of = ({ from, value }: typeof width): number | null => (from?.record === 'decision' ? value : null);
		return { widthMm: of(width), depthMm: of(depth), on };
	}
	/** The ball it begins with, by the plan or as it was meant, which is to lie within reach; 0 where nobody said. */
	get begunMm(): { width: number; depth: number } {
		const { open, meant } = this;
		return {
			width: open?.ballDiameterMm ?? meant?.widthMm ?? 0,
			depth: open?.ballDepthMm ?? meant?.depthMm ?? 0
		};
	}
	get done(): Lift[] {
		return this.of.lifts.filter((lift) => lift.log !== null);
	}
	get size() {
		return ballSize(this.of.tree.trunkDiameterMm, this.school, this.reading, this.of.values);
	}
	get diameterMm(): number {
		return this.chosenMm ?? Math.round((this.size.leastDiameterMm + this.size.mostDiameterMm) / 2);
	}
	get depthMm(): number {
		return this.chosenDepthMm ?? Math.round(this.size.depthMm);
	}
	get mass() {
		return ballMass(this.diameterMm, this.depthMm, this.of.values);
	}
	get reachCm(): number {
		return Math.round(reachWithBallCm(this.diameterMm, this.of.values));
	}
	/** What one person may lift, held and turned like this. */
	get limit() {
		const { reachCm, startCm, twistDeg, coupling } = this;
		const travelCm = this.of.values['lifting.travel-cm'];
		return liftLimit({ reachCm, startCm, travelCm, twistDeg, coupling }, this.of.values);
	}
	get usual() {
		return handling(this.mass.usualKg, this.limit.kg);
	}
	/** In wet clay. */
	get most() {
		return handling(this.mass.mostKg, this.limit.kg);
	}
	get tooFewHands(): boolean {
		return this.usual.way !== 'barrow or machine' && this.people < this.usual.people;
	}
	get day() {
		const { kind, place, known, stopped, today, values } = this.of;
		const leafy = leafCalendar(kind, place, values)(today);
		return liftDay(
			{ kind, place, leafy, newShoots: newShootsOn(known.buds, { kind, place }, today, values), stopped },
			today,
			values
		);
	}
	/** What is to be said of the day that it is planned for; nothing once it is out of the ground. */
	get plannedDay(): string {
		return this.log ? '' : plannedDaySaid(this.of, this.plannedOn, this.of.today, this.of.values);
	}
	/** What forbids to dig. */
	get stops(): string[] {
		const { known, tree } = this.of;
		return liftStops(known.permission.value ?? tree.permission, {
			protectedSpecies: known.protectedSpecies.value,
			servicesLocated: known.servicesLocated.value,
			pests: known.pests.value ?? 'unknown'
		});
	}
	get answers() {
		const { tree, values } = this.of;
		return judgeRoute(
			this.route,
			{
				diameterMm: this.diameterMm,
				depthMm: this.depthMm,
				mostKg: this.mass.mostKg,
				heightM: tree.heightM,
				way: this.usual.way,
				plantCount: tree.plantCount
			},
			values
		);
	}
	/** What the log so far says came along of its roots. */
	get kept() {
		return this.log && this.keptBy(this.log);
	}
	/** What a log says came along of its roots. */
	keptBy(log: LiftLog) {
		const { tree, mapBefore, values } = this.of;
		const of = { trunkDiameterMm: tree.trunkDiameterMm, crownWidthMm: usualCrownWidthMm(tree, values) };
		return liftKept(log, of, mapBefore, values);
	}
	get draft(): LiftInput {
		const { plannedOn, school, reading, people, route, ticks, log } = this;
		return {
			plannedOn,
			school,
			reading,
			ballDiameterMm: this.diameterMm,
			ballDepthMm: this.depthMm,
			people,
			route,
			ticks,
			log
		};
	}

	/** Another way to reckon the ball: its size follows again. */
	reckonBy(change: { school?: BallSchool; reading?: BallReading }): void {
		this.school = change.school ?? this.school;
		this.reading = change.reading ?? this.reading;
		this.chosenMm = null;
		this.chosenDepthMm = null;
	}
	tick(id: StepId, on: boolean): void {
		this.ticks = on
			? [...this.ticks.filter((one) => one !== id), id]
			: this.ticks.filter((one) => one !== id);
	}
	/** Day on which a ticked step was told elsewhere; null where it was ticked here. */
	toldOn(id: StepId): string | null {
		if (!this.told.includes(id) || !this.ticks.includes(id)) return null;
		const { servicesLocated, permission } = this.of.known;
		return id === 'services' ? servicesLocated.on : permission.on;
	}
	/** Begins the log with the plan: its sizes are assumed until somebody measures. */
	beginLog(): void {
		this.log = {
			liftedOn: this.of.today,
			ballDiameterMm: this.diameterMm,
			ballDepthMm: this.depthMm,
			massKg: null,
			cutRoots: [],
			outMinutes: null,
			soak: null,
			soakMinutes: 0,
			rooting: null,
			after: 'out',
			backfilled: this.ticks.includes('hole'),
			assumed: ['ballDiameterMm', 'ballDepthMm'],
			note: ''
		};
	}
	/** Takes a log back that was begun here and not kept: what of it can be read, as it was left; the rest as it begins. */
	takeBackLog(left: string): void {
		const read = readLog(left);
		if (!read) {
			this.log = null;
			return;
		}
		this.beginLog();
		if (this.log) Object.assign(this.log, read);
	}
}
