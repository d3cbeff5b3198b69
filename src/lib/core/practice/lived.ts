import { worldParts } from '../examine/diagnosis/worlds';
import { disturbanceFactor } from '../examine/diagnosis/act-now';
import { conditionIds, conditionOf, type ConditionId } from '../vocabulary/conditions';
import type { ProcedureId } from '../vocabulary/procedures';
import { signOf } from '../vocabulary/signs';
import { seasonFit } from '../climate/windows';
import { MONTH_DAYS, addDays } from '../maths/calendar';
import { rehearsedPlan } from '../recovery/rehearsal/plan';
import { causes, PlayedTree, type Cause } from '../rehearse/played-tree';
import { prepared } from '../rehearse/prepared';
import type { ScenePot } from '../rehearse/scene';
import type { Values } from '../values/values';
import type { PracticeTree } from './practice-tree';
import { remediesOf, wantPeace, type PracticeAct, type Remedy } from './round';
import { PractisedHands } from './trainee';

/** How one day left it. */
export interface PracticeDay {
	/** 0 for the day it was taken in. */
	day: number;
	dryness: number;
	roots: number;
	/** Log-odds lost so far by what befell it, by its faults, and by what was done to it. */
	odds: { water: number; weather: number; faults: number; hands: number };
	watered: boolean;
	/** Its roots lacked air, or water beyond what it bears. */
	airless: boolean;
	parched: boolean;
	minC: number;
	maxC: number;
}

/** What a fault has come to. */
export interface Fault {
	conditionId: ConditionId;
	/** 1 as it was, 0 gone. */
	left: number;
	/** Day on which it was treated last; null where it never was. */
	treatedOn: number | null;
	by: Remedy | null;
	/** It wanted peace and was disturbed. */
	disturbed: boolean;
	/** Log-odds that it cost. */
	odds: number;
}

/** Whether a fault shows on a day. @param day of the round, from 0 */
export const stillShows = ({ left, treatedOn }: Fault, day: number, values: Values): boolean =>
	left >= values['practice.signsFrom'] ||
	(treatedOn !== null && day - treatedOn < values['practice.mendDays']);

const asItIs = rehearsedPlan.parse({ name: 'practice' });

/** Log-odds that a share of its chance to live counts as. @param share 0 … 1 */
const oddsOfLoss = (share: number, values: Values): number =>
	values['practice.perLoss'] * Math.log(Math.max(0.01, 1 - Math.min(1, share)));

/** Remedies that go at its roots or its pot. */
const atRoots: ReadonlySet<Remedy> = new Set([
	'cut-rot',
	'free-roots',
	'open-ball',
	'new-mix',
	'smaller-pot',
	'larger-pot'
]);

/** A round that is being played. */
export class LivedRound {
	readonly days: PracticeDay[] = [];
	readonly faults: Fault[];
	minutes = 0;
	faultsOdds = 0;
	readonly hands: PractisedHands;
	readonly played: PlayedTree;
	private readonly opened = new Map<ProcedureId, number>();
	lastHurt = { cut: -Infinity, burnt: -Infinity };
	private potChanged = false;
	/** The pot it stands in. */
	pot: ScenePot | null;

	constructor(
		private readonly tree: PracticeTree,
		cuts: readonly Extract<PracticeAct, { what: 'cut' }>[]
	) {
		const { truth, stage, future, values } = tree;
		const { scene } = stage;
		this.pot = scene.pots[0] ?? null;
		this.faults = truth.conditions.map((conditionId) => ({
			conditionId,
			left: 1,
			treatedOn: null,
			by: null,
			disturbed: false,
			odds: 0
		}));
		const to = prepared(
			{
				...scene,
				stages: cuts.map(({ day, share, rot, girdles }) => ({
					on: addDays(truth.startOn, day + 1),
					share,
					rot,
					girdles
				}))
			},
			asItIs,
			stage.calendar.days,
			values
		);
		this.hands = new PractisedHands(scene.wetnessTrigger, future.bias);
		this.played = new PlayedTree(scene, to, this.hands, future, truth.roots, stage.played);
	}

	private on(day: number): string {
		return addDays(this.tree.truth.startOn, day);
	}

	/** How much root work counts on a day, by season and vigour. */
	private factor(day: number): number {
		const { kind, place, vigour } = this.tree.truth;
		return disturbanceFactor(
			seasonFit(kind, place, this.on(day), this.tree.values),
			vigour,
			this.tree.values
		);
	}

	private bear(odds: number): void {
		this.played.bear('roots', odds);
	}

	/** Roots or pot were touched: what wanted peace begins anew, and is the worse for it. */
	private disturb(): void {
		for (const fault of this.faults)
			if (wantPeace.includes(fault.conditionId)) {
				fault.left = 1;
				fault.disturbed = true;
			}
	}

	private treat(day: number, remedy: Remedy, share = 1): void {
		const { values } = this.tree;
		for (const fault of this.faults) {
			if (!remediesOf[fault.conditionId].includes(remedy)) continue;
			const averts = values[`diagnosis.averts.${fault.conditionId}`];
			// Done twice it averts no more than once done whole.
			fault.left = Math.min(fault.left, 1 - averts * share);
			fault.treatedOn = day;
			fault.by = remedy;
		}
	}

	/** What remedies cost by themselves on a day, whether they were the right ones or not: as much as the worst of them. */
	private cost(day: number, done: readonly Remedy[]): void {
		const { values } = this.tree;
		const bare = Math.max(
			0,
			...conditionIds
				.filter((id) => done.some((remedy) => remediesOf[id][0] === remedy))
				.map((id) => values[`diagnosis.disturbance.${id}`])
		);
		const touched = done.some((remedy) => atRoots.has(remedy));
		this.bear(oddsOfLoss(bare * (touched ? this.factor(day) : 1), values));
		if (touched) this.disturb();
	}

	/** Harm of looking by a procedure: paid once a day for all that is seen by it. */
	private look(day: number, procedure: ProcedureId): void {
		if (this.opened.get(procedure) === day) return;
		this.opened.set(procedure, day);
		const { values } = this.tree;
		this.bear(oddsOfLoss(values[`diagnosis.harm.${procedure}`] * this.factor(day), values));
	}

	act(act: PracticeAct): void {
		const { values, stage } = this.tree;
		const { hands } = this;
		switch (act.what) {
			case 'check':
				this.minutes += values[`diagnosis.minutes.${act.signId}`];
				this.look(act.day, signOf(act.signId).procedure);
				break;
			case 'read':
				if (act.reading === 'roots') {
					this.minutes += values['practice.minutes.roots'];
					this.bear(oddsOfLoss(values['practice.rootsHarm'] * this.factor(act.day), values));
					this.disturb();
				} else this.minutes += values['rehearse.minutes.look'] / 2;
				break;
			case 'cut': {
				const fits = seasonFit(this.tree.truth.kind, this.tree.truth.place, this.on(act.day), values);
				hands.cuts.push({
					on: this.on(act.day),
					day: act.day,
					share: act.share,
					rot: 0,
					girdles: 0,
					seasonOdds: values[`triage.season.${fits}`] * Math.min(1, act.share / values['rehearse.seasonAt'])
				});
				this.minutes += values['rehearse.minutes.roots'];
				this.lastHurt.cut = act.day;
				const parts = [
					['cut-rot', act.rot],
					['free-roots', act.girdles],
					['open-ball', act.bound]
				] as const;
				const done = parts.filter(([, part]) => part > 0);
				this.cost(
					act.day,
					done.map(([remedy]) => remedy)
				);
				// Also a cut that treats nothing touches the roots.
				this.disturb();
				for (const [remedy, part] of done) this.treat(act.day, remedy, part);
				break;
			}
			case 'plant': {
				const before = this.pot;
				this.pot = act.pot;
				hands.pot = {
					pot: act.pot,
					dryness: act.restUntilDay === null ? 0 : stage.scene.wetnessTrigger,
					odds: 0
				};
				this.potChanged = true;
				hands.restUntil = act.restUntilDay ?? 0;
				this.cost(act.day, ['new-mix']);
				this.minutes += values['practice.minutes.treat'];
				this.treat(act.day, 'new-mix');
				const room = (pot: ScenePot): number => pot.rootedMostL + pot.unrootedMostL;
				const unrooted = (pot: ScenePot): number => pot.unrootedMostL / Math.max(0.001, room(pot));
				if (before && room(act.pot) > room(before)) this.treat(act.day, 'larger-pot');
				if (before && unrooted(act.pot) < unrooted(before)) this.treat(act.day, 'smaller-pot');
				break;
			}
			case 'water':
				hands.byHand = Math.max(hands.byHand, act.share);
				break;
			case 'treat':
				// What ends with the day it begins is taken off, not put on.
				if (act.untilDay === null || act.untilDay > act.day) {
					this.cost(act.day, [act.remedy]);
					this.minutes += values['practice.minutes.treat'];
					this.treat(act.day, act.remedy);
				}
				if (act.remedy === 'shade') hands.shadedUntil = act.untilDay ?? Infinity;
				if (act.remedy === 'shelter') hands.shelteredUntil = act.untilDay ?? Infinity;
				if (act.remedy === 'soak' || act.remedy === 'flush') hands.byHand = 1;
				if (act.loss > 0) {
					this.bear(values['forecast.lossOdds'] * act.loss);
					this.lastHurt.cut = act.day;
				}
				break;
			case 'crown':
				this.played.crown = Math.max(0, this.played.crown * (1 - act.share));
				break;
			case 'care':
				hands.rule = act.rule;
				hands.byTheCalendar = act.rule.water === 'every-days';
				break;
			case 'say':
			case 'decide':
				break;
		}
	}

	/** Plays the day that follows on what was done. */
	pass(day: number): void {
		const { tree, hands, played } = this;
		const { values, stage, future } = tree;
		const place = future.days[0];
		const weather = {
			on: stage.calendar.days[day] ?? '',
			minC: place?.minC[day] ?? 0,
			maxC: place?.maxC[day] ?? 0,
			et0Mm: place?.et0Mm[day] ?? 0,
			rainMm: place?.rainMm[day] ?? 0
		};
		hands.wateredToday = false;
		const burntBefore = played.odds[causes.indexOf('frost')] ?? 0;
		const scorchedBefore = played.odds[causes.indexOf('scorched')] ?? 0;
		played.day(day, weather);
		if (
			(played.odds[causes.indexOf('frost')] ?? 0) < burntBefore ||
			(played.odds[causes.indexOf('scorched')] ?? 0) < scorchedBefore
		)
			this.lastHurt.burnt = day;
		hands.cuts = [];
		hands.pot = null;
		hands.byHand = -1;
		if (hands.wateredToday) this.minutes += values['rehearse.minutes.water'];
		this.ail(day);
		const by = (cause: Cause): number => played.odds[causes.indexOf(cause)] ?? 0;
		this.days.push({
			day: day + 1,
			dryness: played.dryness,
			roots: played.phi,
			odds: {
				water: by('drowned') + by('dried'),
				weather: by('frost') + by('scorched'),
				faults: this.faultsOdds,
				hands: by('roots') + by('rot') - this.faultsOdds
			},
			watered: hands.wateredToday,
			airless: played.wetDays > 0,
			parched: played.dryDays > 0,
			minC: weather.minC,
			maxC: weather.maxC
		});
	}

	/** What its faults cost in a day. */
	private ail(day: number): void {
		const { values } = this.tree;
		for (const fault of this.faults) {
			const { conditionId } = fault;
			if (conditionId === 'dead') continue;
			const monthly = Math.min(0.95, values[`diagnosis.loss.${conditionId}`]);
			const worse = fault.disturbed ? values['practice.disturbed'] : 1;
			const odds = (oddsOfLoss(monthly, values) / MONTH_DAYS) * fault.left * worse;
			fault.odds += odds;
			this.faultsOdds += odds;
			const eaten = 1 - (1 - monthly) ** (1 / MONTH_DAYS);
			this.played.bear('roots', odds, eaten * values['practice.eats'] * fault.left);
			if (wantPeace.includes(conditionId)) fault.left *= Math.exp(-Math.LN2 / values['practice.fadeDays']);
			if (this.hands.wateredToday) {
				if (conditionId === 'drought') this.treatByWater(fault, day, 1 - values['diagnosis.averts.drought']);
				if (conditionId === 'dry-core')
					this.treatByWater(fault, day, fault.left * values['practice.wateringLeaves']);
			}
		}
	}

	private treatByWater(fault: Fault, day: number, left: number): void {
		if (left >= fault.left) return;
		fault.left = left;
		fault.treatedOn = day;
		fault.by = 'soak';
	}

	/** What it went through since and shows. */
	since(day: number): ConditionId[] {
		const { values, stage } = this.tree;
		const recent = (then: number): boolean => day - then < values['practice.lossDays'];
		return [
			...(recent(this.lastHurt.cut) ? (['recent-root-loss'] as const) : []),
			...(recent(this.lastHurt.burnt) ? (['weather-injury'] as const) : []),
			...(this.played.dryDays > values['rehearse.dryDays'] ? (['drought'] as const) : []),
			...(this.played.wetDays > values['rehearse.wetDays'] && stage.scene.ground === null
				? (['sour-root-zone'] as const)
				: [])
		];
	}

	/** How its root zone stands, as a world of the diagnosis. */
	world(day: number): number {
		const { truth, stage, values } = this.tree;
		const first = worldParts[truth.world] ?? [];
		if (first.includes('dead')) return truth.world;
		const shown = this.faults.filter((fault) => stillShows(fault, day, values));
		const asks = (way: string): boolean =>
			shown.some((fault) => conditionOf(fault.conditionId).asks?.water === way);
		const dry = this.played.dryDays > 0 || this.played.dryness > stage.scene.wetnessTrigger;
		const wet = this.played.wetDays > values['rehearse.wetDays'];
		const water =
			day === 0
				? first[0]
				: wet || (first.includes('wet') && asks('less') && !dry)
					? 'wet'
					: dry || (first.includes('dry') && asks('more'))
						? 'dry'
						: 'even';
		const room = this.potChanged ? 'usual' : first[1];
		return Math.max(
			0,
			worldParts.findIndex((parts) => parts[0] === water && parts[1] === room)
		);
	}
}
