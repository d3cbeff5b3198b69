import { browser } from '$app/environment';
import { ofThePot } from '$core/tree/shared-pot';
import { standingOf } from '$core/tree/standing';
import { ReplantState, type ReplantOf } from './replant-state.svelte';

/** What a planting is planned from, as the pages of Replant load it. */
export const replantOf = ({
	yardPlaces: places,
	...of
}: Omit<ReplantOf, 'places'> & { yardPlaces: ReplantOf['places'] }): ReplantOf => ({ ...of, places });

/**
 * Plantings in the making, by tree: kept while other pages are visited, so that nothing typed is lost on the way to the mix, the stock or the
 * roots. In the browser only; a planting or plan that was recorded since begins a new one. Work or a look since begins
 * one that nobody had touched yet anew, with what it presets.
 */
const drafts = new Map<
	string,
	{ recorded: string; worked: string; ball: string; begun: string; state: ReplantState }
>();

/** The planting that is being planned for a tree: as it was left, with what was recorded since. */
export function planningOf(of: ReplantOf): ReplantState {
	const { records, today, values } = of;
	const recorded = JSON.stringify([
		records.replantPlan?.version ?? 0,
		ofThePot(records).plantings.at(-1)?.id ?? ''
	]);
	const worked = JSON.stringify([of.lastWork?.on ?? '', of.urgent?.on ?? '']);
	const { ballWidthMm, ballDepthMm } = standingOf(records, today, values);
	const ball = JSON.stringify([ballWidthMm.value, ballWidthMm.on, ballDepthMm.value, ballDepthMm.on]);
	const draft = browser ? drafts.get(records.tree.id) : undefined;
	const asBegun = draft !== undefined && JSON.stringify(draft.state.plan) === draft.begun;
	if (draft?.recorded === recorded && (draft.worked === worked || !asBegun)) {
		draft.state.of = of;
		if (draft.ball !== ball) draft.state.takeBall();
		draft.ball = ball;
		return draft.state;
	}
	const state = new ReplantState(of);
	if (browser)
		drafts.set(records.tree.id, { recorded, worked, ball, begun: JSON.stringify(state.plan), state });
	return state;
}
