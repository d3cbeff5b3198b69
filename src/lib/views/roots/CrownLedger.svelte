<script lang="ts">
	import { usualCrownSchool } from '$core/aftercare/crown/crown';
	import {
		crownCourse,
		crownShapeNames,
		crownShapes,
		heightForCrownShare,
		woodFirst,
		type CrownStage
	} from '$core/aftercare/crown/crown-course';
	import { roman } from '$core/roots/plan/plan';
	import type { CrownSchool } from '$core/vocabulary/words';
	import { markOf } from '$core/values/values';
	import Choice from '$ui/Choice.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import type { RootsState } from './roots-state.svelte';

	/** What the roots can feed and what the crown asks for, before and after each stage, by either school. */
	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	let school = $state<CrownSchool>(
		untrack(() =>
			roots.options.tree.situation === 'in-ground'
				? 'keep-leaves'
				: usualCrownSchool(roots.options.kind.group)
		)
	);
	const values = $derived(roots.options.values);
	/** What a lift left it of its roots, where it was lifted before this map was drawn. */
	const liftedTo = $derived(roots.options.liftLeft);
	const course = $derived(
		crownCourse(
			roots.standing.ledger.stages.map((stage) => stage.loss),
			school,
			values,
			liftedTo
		).filter((stage) => stage.stage === 0 || (roots.standing.ledger.stages[stage.stage]?.loss ?? 0) > 0.0005)
	);
	const most = $derived(
		Math.max(...course.map((stage) => (school === 'balance' ? stage.removeShare : 1 - stage.holdTo)))
	);
	const percent = (share: number): string => format().percent(share);
	/** Nobody shades a tree that stands in the ground: its soil is kept moist. */
	const held = (part: number, rest: boolean): string =>
		roots.options.tree.situation === 'in-ground'
			? `keep its soil moist: its roots feed ${percent(part)} of ${rest ? 'the rest' : 'what it asks'}`
			: `hold ${rest ? 'the rest' : 'demand'} to ${percent(part)} by shade and shelter`;
	const asked = ({ removeShare, holdTo }: CrownStage): string =>
		school === 'balance'
			? removeShare > 0.005
				? `take ${percent(removeShare)} of its leaves${holdTo < 0.995 ? `, and ${held(holdTo, true)}` : ''}`
				: 'nothing to take'
			: holdTo < 0.995
				? held(holdTo, false)
				: 'no shelter needed for it';
</script>

<section aria-label="Crown" class="text-sm">
	<h3 class="text-sm">Crown</h3>
	<div class="my-1.5">
		<Choice
			label="School on the crown"
			hideLabel
			size="small"
			bind:value={school}
			options={[
				{ value: 'balance', label: 'Balance it' },
				{ value: 'keep-leaves', label: 'Keep the leaves' }
			]}
		/>
	</div>
	<table class="w-full">
		<thead>
			<tr class="text-left text-slate"
				><th class="font-normal">stage</th><th class="text-right font-normal">roots feed</th><th
					class="text-right font-normal">crown asks</th
				></tr
			>
		</thead>
		<tbody class="divide-y border-t">
			{#each course as stage (stage.stage)}
				<tr class="align-top">
					<td class="pt-1">{roman(stage.stage)}</td>
					<td class="pt-1 pl-2 text-right whitespace-nowrap">
						<Workings
							label="Supply of the roots in stage {roman(stage.stage)}"
							formula="living root left × {values['crown.reserve']}, at most all"
							lines={[
								...(liftedTo < 1 ? [{ label: 'came along of the lift', value: percent(liftedTo) }] : []),
								{ label: 'before', value: percent(stage.supplyBefore) },
								{ label: 'after', value: percent(stage.supplyAfter) },
								{ label: 'reserve', value: `× ${values['crown.reserve']}`, mark: markOf('crown.reserve') },
								{
									label: 'grown back between stages',
									value: percent(values['stages.regrownShare']),
									mark: markOf('stages.regrownShare')
								}
							]}
							changes="Balance: crown to remove = 1 − supply ÷ demand. The other school keeps it all and holds demand down."
							>{percent(stage.supplyBefore)} → <strong>{percent(stage.supplyAfter)}</strong></Workings
						>
					</td>
					<td class="pt-1 pl-3 text-right whitespace-nowrap"
						>{percent(stage.demandBefore)} → {percent(stage.demandAfter * stage.holdTo)}</td
					>
				</tr>
				<tr class="!border-t-0"
					><td colspan="3" class="pb-1 text-slate first-letter:uppercase">{asked(stage)}</td></tr
				>
			{/each}
		</tbody>
	</table>
	{#if school === 'balance' && most > 0.005}
		<p class="mt-1">
			A height cut is not a crown share: {percent(most)} of the leaves from the top alone would be
			{#each crownShapes as shape, index (shape)}{index > 0 ? ', ' : ' '}{percent(
					heightForCrownShare(most, shape)
				)} of the height of a crown that is {crownShapeNames[shape]}{/each}.
		</p>
		<details class="mt-1">
			<summary class="min-h-7 cursor-pointer font-semibold">Which wood first</summary>
			<ol class="list-decimal pl-5">
				{#each woodFirst as { wood, why } (wood)}<li><strong>{wood}</strong>: {why}</li>{/each}
			</ol>
			<p class="text-slate">Common practice, no source.</p>
		</details>
	{/if}
</section>
