import type { RehearsalInput } from '$core/recovery/rehearsal/kept';
import { PLANS_MOST, type RehearsedPlan } from '$core/recovery/rehearsal/plan';
import { keptOf, type PlanOutcome, type Rehearsal } from '$core/rehearse/rehearse';
import type { RehearsalScene } from '$core/rehearse/scene';
import type { Values } from '$core/values/values';
import { createRehearser, type Rehearser } from '$lib/workers/rehearser';

/** The seed of a rehearsal: the same plans give the same answer each time that one comes back. */
const SEED = 20_260_418;
/** A choice that is changed is followed after so long, so that the next touch need not wait for it. */
const FOLLOWS_MS = 500;

/** Plans of one tree side by side, and what came of playing them. */
export class RehearseState {
	plans = $state.raw<readonly RehearsedPlan[]>([]);
	result = $state.raw<Rehearsal | null>(null);
	/** The plans that the result is of; another list means that it is being played anew. */
	played = $state.raw<readonly RehearsedPlan[] | null>(null);
	running = $state<'' | 'other' | 'play'>('');
	progress = $state(0);
	/** Why nothing came of it, for the person; empty while nothing went wrong. */
	failed = $state('');
	/** Nothing was found that is better than the plan as it stands. */
	noOther = $state(false);
	stopped = $state(false);
	#rehearser: Rehearser | null = null;
	#timer: ReturnType<typeof setTimeout> | undefined;
	readonly #makeRehearser: () => Rehearser;

	constructor(
		readonly scene: RehearsalScene,
		planned: RehearsedPlan,
		readonly values: Values,
		makeRehearser: () => Rehearser = createRehearser
	) {
		this.plans = [planned];
		this.#makeRehearser = makeRehearser;
	}

	/** The outcome of a plan as it stands; null while it was not played so. */
	outcomeOf(index: number): PlanOutcome | null {
		const plan = this.plans[index];
		const at = this.played?.indexOf(plan as RehearsedPlan) ?? -1;
		return at < 0 ? null : (this.result?.outcomes[at] ?? null);
	}
	/** Whether the result is of the plans as they stand. */
	get current(): boolean {
		return this.played === this.plans && this.result !== null;
	}
	get full(): boolean {
		return this.plans.length >= PLANS_MOST;
	}

	/** Looks for the strongest other plan, then plays both. */
	async begin(): Promise<void> {
		const [planned] = this.plans;
		if (!planned) return;
		const other = await this.#run('other', (rehearser) =>
			rehearser.other(this.scene, planned, SEED, this.values, (share) => (this.progress = share))
		);
		if (other === undefined) return;
		this.noOther = other === null;
		if (other !== null) this.plans = [planned, other];
		await this.play();
	}

	/** Plays the plans as they stand. */
	async play(): Promise<void> {
		const { plans } = this;
		const result = await this.#run('play', (rehearser) =>
			rehearser.play(this.scene, plans, { seed: SEED }, this.values, (share) => (this.progress = share))
		);
		if (result === undefined) return;
		this.result = result;
		this.played = plans;
	}

	/** @returns undefined where it was stopped or went wrong */
	async #run<T>(what: 'other' | 'play', work: (rehearser: Rehearser) => Promise<T>): Promise<T | undefined> {
		this.#halt();
		const rehearser = this.#makeRehearser();
		this.#rehearser = rehearser;
		this.running = what;
		this.progress = 0;
		this.failed = '';
		this.stopped = false;
		try {
			const made = await work(rehearser);
			return this.#rehearser === rehearser ? made : undefined;
		} catch (cause) {
			console.error(cause);
			if (this.#rehearser === rehearser)
				this.failed = 'It could not be played. Load the page again and try once more.';
			return undefined;
		} finally {
			if (this.#rehearser === rehearser) this.#halt();
		}
	}

	#halt(): void {
		clearTimeout(this.#timer);
		this.#rehearser?.stop();
		this.#rehearser = null;
		this.running = '';
	}

	/** Stops what is under way; what was played before stays. */
	stop(): void {
		this.stopped = this.running !== '';
		this.#halt();
	}

	/** Changes a plan, and plays all of them anew in a moment. @param index of the plan, from 0 */
	change(index: number, change: Partial<RehearsedPlan>): void {
		this.plans = this.plans.map((plan, i) => (i === index ? { ...plan, ...change } : plan));
		this.#soon();
	}

	/** A plan is called by what it was changed to until a person names it. @param index of the plan, from 0 */
	rename(index: number, name: string): void {
		const named = name.trim();
		if (named === '') return;
		const before = this.plans;
		this.plans = before.map((plan, i) => (i === index ? { ...plan, name: named } : plan));
		// A name changes nothing of what came of it.
		if (this.played === before && this.result) {
			this.played = this.plans;
			this.result = {
				...this.result,
				outcomes: this.result.outcomes.map((outcome, i) => ({
					...outcome,
					plan: this.plans[i] ?? outcome.plan
				}))
			};
		}
	}

	/** Sets one more plan beside the others, as the last one stands. */
	add(): void {
		const last = this.plans.at(-1);
		if (!last || this.full) return;
		this.plans = [...this.plans, { ...last, name: `Plan ${this.plans.length + 1}` }];
		this.#soon();
	}

	/** Takes a plan away; one always stays. @param index of the plan, from 0 */
	remove(index: number): void {
		if (this.plans.length < 2) return;
		this.plans = this.plans.filter((_, i) => i !== index);
		this.#soon();
	}

	#soon(): void {
		this.#halt();
		this.#timer = setTimeout(() => void this.play(), FOLLOWS_MS);
	}

	/**
	 * What is kept where a plan is taken over: every plan with what came of it.
	 * @param index of the plan that is taken, from 0
	 * @returns null while the plans are not played as they stand
	 */
	kept(index: number, today: string): RehearsalInput | null {
		return this.current && this.result ? keptOf(this.result, index, today) : null;
	}

	/** Lets go of the thread. */
	close(): void {
		this.#halt();
	}
}
