import { z } from 'zod';
import { measured, measuredPair } from '../../text/measured';
import { percent } from '../../text/percent';
import { readingsOf, woodFell, type Observation } from '../../examine/looks/observation';
import type { Values } from '../../values/values';
import type { PlanInput } from './plan';

/** Whether the tree has paid back the last stage, by what was measured since. */
export const stageGateOutput = z.object({
	stage: z.number().describe('The stage that waits'),
	answer: z.enum(['met', 'not-met', 'unknown']),
	because: z.array(z.string()).describe('The evidence, in sentences')
});
export type StageGate = z.infer<typeof stageGateOutput>;

/**
 * Before a later root stage is opened, growth must be regained: shoots since the last stage against the best before it
 * or those of a reference; where none were measured, leaf cover together with white root tips; and no wood may have
 * died back meanwhile. What was not measured is unknown and never counts as met.
 * @param evergreen it keeps its leaves, so that their share tells nothing of growth: opening buds do, with white tips
 * @returns null while no stage was worked, or none is left
 */
export function stageGate(
	plan: Pick<PlanInput, 'cuts'>,
	observations: readonly Observation[],
	referenceShootMm: number | null,
	evergreen: boolean,
	values: Values
): StageGate | null {
	const done = plan.cuts.flatMap((cut) => (cut.doneOn ? [cut.doneOn] : [])).sort();
	const lastOn = done.at(-1);
	const open = plan.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage);
	const worked = plan.cuts.filter((cut) => cut.state === 'done').map((cut) => cut.stage);
	if (lastOn === undefined || open.length === 0) return null;
	const stage = Math.min(...open);
	// What is left of a stage in hand waits for nothing.
	if (worked.includes(stage)) return null;
	const since = observations.filter((look) => look.observedOn > lastOn);
	const before = observations.filter((look) => look.observedOn <= lastOn);
	const most = (looks: readonly Observation[]): number | null => {
		const shoots = readingsOf(looks, 'shootExtensionMm').map((reading) => reading.value);
		return shoots.length > 0 ? Math.max(...shoots) : null;
	};
	const because: string[] = [];
	let bad = false;

	const limits = readingsOf(since, 'diebackLimitMm');
	const limitBefore = readingsOf(before, 'diebackLimitMm').at(-1) ?? limits[0];
	const limit = limits.at(-1);
	if (limit && limitBefore && woodFell(limitBefore.value, limit.value, values)) {
		bad = true;
		because.push(
			`Living wood went down ${measuredPair(limitBefore.value, ' to ', limit.value, 'mm')} since.`
		);
	}
	const loose = since.filter((look) => look.firmness !== null).at(-1)?.firmness;
	if (loose !== undefined && loose !== null && loose !== 'firm') {
		bad = true;
		because.push('It was not firm at the last look.');
	}

	const shoot = most(since);
	const against = Math.max(most(before) ?? 0, referenceShootMm ?? 0);
	const cover = readingsOf(since, 'leafCover').at(-1);
	const tips = since.some((look) => look.whiteTips === true);
	let regained: boolean | null = null;
	if (shoot !== null && against > 0) {
		const wanted = values['stages.regainedShoot'];
		regained = shoot >= wanted * against;
		because.push(
			`Shoots of ${measured(shoot, 'mm')} since, against ${measured(against, 'mm')}: ${percent(shoot / against)}, wanted ${percent(wanted)}.`
		);
	} else if (evergreen) {
		const moved = since.some((look) => look.buds === 'open');
		const fell =
			cover !== undefined &&
			before.length > 0 &&
			cover.value < (readingsOf(before, 'leafCover').at(-1)?.value ?? 0) - values['stages.evergreenFell'];
		regained = fell ? false : moved && tips ? true : null;
		because.push(
			fell
				? `It dropped leaves since: ${percent(cover.value)} of the crown is in leaf.`
				: `${moved ? 'Its buds opened since' : 'New leaves were not seen since'}; ${tips ? 'white root tips were seen' : 'whether roots grow was not seen'}.`
		);
	} else if (cover) {
		const wanted = values['stages.regainedCover'];
		regained = cover.value < wanted ? false : tips ? true : null;
		because.push(
			`Leaf cover ${percent(cover.value)}, wanted ${percent(wanted)}${tips ? '; white root tips were seen' : '; whether roots grow was not seen'}.`
		);
	} else because.push('No shoots and no leaf cover were measured since the last stage.');
	return { stage, answer: bad || regained === false ? 'not-met' : regained ? 'met' : 'unknown', because };
}
