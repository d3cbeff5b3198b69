import type { Future } from './futures';
import type { PlayedWork, Prepared } from './prepared';
import type { RehearsalScene, ScenePot } from './scene';
import type { PlayedValues } from './played-values';

/** What people do to a tree that is played, day by day. */
export interface Hands {
	/** Root work of a day. @param phi its root function then, 0 … 1 */
	works(day: number, phi: number): readonly PlayedWork[];
	/** The pot it goes into on a day, how dry its mix is, and what planting it costs in log-odds. */
	replants(day: number): { pot: ScenePot; dryness: number; odds: number } | null;
	/** Of the water that is missing so much is poured. @param dryness of its pot, 0 drained … 1 dry */
	pours(day: number, dryness: number): number;
	/** It was watered. */
	poured(day: number): void;
	/** Waterings ask nothing of how dry it is. */
	readonly byTheCalendar: boolean;
	shades(day: number): boolean;
	/** Whether it is under cover on a night too cold for it. @param isIn it stands there already */
	carries(day: number, isIn: boolean): boolean;
	/** Its crown is cut to what its roots can feed. */
	readonly balances: boolean;
	/** Nothing is poured before this day. */
	readonly restUntil: number;
}

/** Hands that do what a plan says, as far as its future lets them. */
export class PlannedHands implements Hands {
	readonly byTheCalendar: boolean;
	readonly balances: boolean;
	readonly restUntil: number;
	/** Work that is still to be done, with its day; it may have been put off. */
	private readonly due: { day: number; work: PlayedWork }[];
	/** Its roots were cut or lifted before. */
	private workedBefore: boolean;
	private lastWater = -1;

	constructor(
		private readonly scene: RehearsalScene,
		private readonly to: Prepared,
		private readonly future: Pick<Future, 'missed' | 'heeded' | 'bias'>,
		private readonly values: PlayedValues
	) {
		this.due = to.works.map((work) => ({ day: work.day, work }));
		this.workedBefore = scene.lastCutOn !== null;
		this.byTheCalendar = to.plan.water === 'every-days';
		this.balances = to.plan.crown === 'balance';
		this.restUntil = to.restUntil;
	}

	/** Stages that are still to be worked. */
	get stagesLeft(): number {
		return this.due.length;
	}

	/** A later stage waits until the tree has paid back the last one. */
	works(day: number, phi: number): readonly PlayedWork[] {
		if (this.due.length === 0) return [];
		const today: PlayedWork[] = [];
		for (const one of [...this.due]) {
			if (one.day !== day) continue;
			const left = today.reduce((roots, work) => roots * (1 - work.share), phi);
			if (this.workedBefore && left < this.values['rehearse.stageRoots']) {
				one.day += Math.round(this.values['rehearse.waitDays']);
				continue;
			}
			this.due.splice(this.due.indexOf(one), 1);
			today.push(one.work);
			this.workedBefore = true;
		}
		return today;
	}

	replants(day: number): { pot: ScenePot; dryness: number; odds: number } | null {
		const { replantDay, potAfter, replantOdds, plan } = this.to;
		if (day !== replantDay || !potAfter) return null;
		return {
			pot: potAfter,
			dryness: plan.water === 'dry-first' ? this.scene.wetnessTrigger : 0,
			odds: replantOdds
		};
	}

	pours(day: number, dryness: number): number {
		if (this.future.missed[day] === 1 || day < this.restUntil) return 0;
		const { plan } = this.to;
		const wants =
			plan.water === 'every-days'
				? this.lastWater < 0 || day - this.lastWater >= plan.everyDays
				: dryness + this.future.bias >= this.scene.wetnessTrigger;
		return wants ? 1 : 0;
	}

	poured(day: number): void {
		this.lastWater = day;
	}

	shades(day: number): boolean {
		return day >= this.to.shade[0] && day < this.to.shade[1];
	}

	/** Who has carried it in leaves it there as long as nights stay cold. */
	carries(day: number, isIn: boolean): boolean {
		return this.to.plan.warnings && (isIn || this.future.heeded[day] === 1);
	}
}
