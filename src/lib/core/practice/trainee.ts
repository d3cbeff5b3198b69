import type { Hands } from '../rehearse/hands';
import type { PlayedWork } from '../rehearse/prepared';
import type { ScenePot } from '../rehearse/scene';
import { careRule, type CareRule } from './round';

/** The hands of a trainee: what was done day by day, and between it the care that was chosen. */
export class PractisedHands implements Hands {
	byTheCalendar = false;
	readonly balances = false;
	/** Whoever cares for it keeps to its dry rest; by hand it can be watered all the same. */
	restUntil = 0;
	rule: CareRule = careRule.parse({});
	/** Share of the missing water that was poured by hand today; −1 where nobody did. */
	byHand = -1;
	cuts: PlayedWork[] = [];
	pot: { pot: ScenePot; dryness: number; odds: number } | null = null;
	shadedUntil = -1;
	shelteredUntil = -1;
	private lastWater = -1;
	wateredToday = false;

	constructor(
		private readonly trigger: number,
		private readonly bias: number
	) {}

	works(): readonly PlayedWork[] {
		return this.cuts;
	}
	replants(): { pot: ScenePot; dryness: number; odds: number } | null {
		return this.pot;
	}
	pours(day: number, dryness: number): number {
		if (this.byHand >= 0) return this.byHand;
		if (day < this.restUntil) return 0;
		const { water, everyDays } = this.rule;
		if (water === 'by-hand') return 0;
		if (water === 'every-days') return this.lastWater < 0 || day - this.lastWater >= everyDays ? 1 : 0;
		return dryness + this.bias >= this.trigger ? 1 : 0;
	}
	poured(day: number): void {
		this.lastWater = day;
		this.wateredToday = true;
	}
	shades(day: number): boolean {
		return day < this.shadedUntil;
	}
	carries(day: number): boolean {
		return this.rule.covers || day < this.shelteredUntil;
	}
}
