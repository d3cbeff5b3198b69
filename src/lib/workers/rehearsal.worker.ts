import { rehearse, type Rehearsal, type RehearsalOptions } from '$core/rehearse/rehearse';
import { strongestOther } from '$core/rehearse/propose';
import type { RehearsedPlan } from '$core/recovery/rehearsal/plan';
import type { RehearsalScene } from '$core/rehearse/scene';
import type { Values } from '$core/values/values';
import { expose } from 'comlink';

/** The rehearsal in a thread of its own, so that the page stays at hand and it can be stopped. */
const rehearser = {
	play: (
		scene: RehearsalScene,
		plans: RehearsedPlan[],
		options: Omit<RehearsalOptions, 'onProgress'>,
		values: Values,
		onProgress: (share: number) => void
	): Rehearsal => rehearse(scene, plans, { ...options, onProgress: now(onProgress) }, values),
	other: (
		scene: RehearsalScene,
		plan: RehearsedPlan,
		seed: number,
		values: Values,
		onProgress: (share: number) => void
	): RehearsedPlan | null => strongestOther(scene, plan, { seed, onProgress: now(onProgress) }, values)
};
export type RehearserThread = typeof rehearser;

/** Tells progress in steps that the eye can follow, not of every future. */
function now(tell: (share: number) => void): (share: number) => void {
	let told = -1;
	return (share) => {
		const step = Math.floor(share * 40);
		if (step === told) return;
		told = step;
		tell(share);
	};
}

expose(rehearser);
