import type { Rehearsal, RehearsalOptions } from '$core/rehearse/rehearse';
import type { RehearsedPlan } from '$core/recovery/rehearsal/plan';
import type { RehearsalScene } from '$core/rehearse/scene';
import type { Values } from '$core/values/values';
import { proxy, wrap } from 'comlink';
import type { RehearserThread } from './rehearsal.worker';

/** Plays plans away from the page. */
export interface Rehearser {
	play(
		scene: RehearsalScene,
		plans: readonly RehearsedPlan[],
		options: Omit<RehearsalOptions, 'onProgress'>,
		values: Values,
		onProgress: (share: number) => void
	): Promise<Rehearsal>;
	/** The strongest other plan; null where there is none. */
	other(
		scene: RehearsalScene,
		plan: RehearsedPlan,
		seed: number,
		values: Values,
		onProgress: (share: number) => void
	): Promise<RehearsedPlan | null>;
	/** Stops what is under way; its promise never settles. */
	stop(): void;
}

/** A rehearser with a thread of its own. */
export function createRehearser(): Rehearser {
	const worker = new Worker(new URL('./rehearsal.worker.ts', import.meta.url), { type: 'module' });
	const thread = wrap<RehearserThread>(worker);
	return {
		play: (scene, plans, options, values, onProgress) =>
			thread.play(scene, [...plans], options, { ...values }, proxy(onProgress)),
		other: (scene, plan, seed, values, onProgress) =>
			thread.other(scene, plan, seed, { ...values }, proxy(onProgress)),
		stop: () => worker.terminate()
	};
}
