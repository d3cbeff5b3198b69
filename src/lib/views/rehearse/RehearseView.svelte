<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { KeptRehearsal } from '$core/recovery/rehearsal/kept';
	import type { RehearsedPlan } from '$core/recovery/rehearsal/plan';
	import type { CameLine } from '$core/rehearse/came';
	import type { RehearsalScene } from '$core/rehearse/scene';
	import { findingWords, orderWords } from '$core/rehearse/words';
	import type { TreeRecords } from '$core/tree/case';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import Progress from '$ui/Progress.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import Plus from '@lucide/svelte/icons/plus';
	import { onMount, untrack } from 'svelte';
	import PlanColumn from './PlanColumn.svelte';
	import PlansChart from './PlansChart.svelte';
	import RehearsedBefore from './RehearsedBefore.svelte';
	import { letterOf } from './plan-marks';
	import { RehearseState } from './rehearse-state.svelte';

	/** Plans for a tree side by side, played through the seasons ahead before one of them is lived. */
	interface Props {
		records: TreeRecords;
		of: { scene: RehearsalScene; planned: RehearsedPlan } | null;
		before: readonly { kept: KeptRehearsal; came: CameLine[] }[];
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { records, of, before, values, today, refused }: Props = $props();
	const tree = $derived(records.tree);
	const planVersion = $derived(records.plan?.version ?? null);
	let rehearsal = $state.raw<RehearseState | null>(
		untrack(() => of && new RehearseState(of.scene, of.planned, values))
	);
	let shown = $state<'established' | 'alive' | 'roots'>('established');
	let looked = $state<number | null>(null);
	onMount(() => {
		void rehearsal?.begin();
		return () => rehearsal?.close();
	});
	// What was written down meanwhile, a plan taken over first of all, makes another scene: it is rehearsed anew.
	const asked = $derived(JSON.stringify(of));
	let askedBefore = untrack(() => asked);
	$effect(() => {
		if (asked === askedBefore) return;
		askedBefore = asked;
		untrack(() => {
			rehearsal?.close();
			rehearsal = of && new RehearseState(of.scene, of.planned, values);
			looked = null;
			void rehearsal?.begin();
		});
	});
	const result = $derived(rehearsal?.result ?? null);
	const words = $derived(result ? orderWords(result) : null);
	const finding = $derived(result ? findingWords(result) : []);
	const best = $derived(result?.order[0] ?? 0);
	/** Plans that are the best, or not told from it. */
	const bestOnes = $derived(
		new Set(
			result
				? result.order.filter(
						(index) =>
							index === best ||
							result.pairs.some(
								(pair) =>
									!pair.differ &&
									((pair.a === index && pair.b === best) || (pair.a === best && pair.b === index))
							)
					)
				: []
		)
	);
	const lookedAt = $derived(looked !== null && looked < (result?.outcomes.length ?? 0) ? looked : best);
	const titles = {
		established: 'Chance to be re-established by then',
		alive: 'Chance to be alive then',
		roots: 'Root function'
	} as const;
	const columns = $derived(
		['', 'lg:grid-cols-1', 'lg:grid-cols-2', 'lg:grid-cols-3', 'lg:grid-cols-4'][rehearsal?.plans.length ?? 1]
	);
</script>

<div class="page pt-5 pb-20">
	<div class="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
		<h2 class="text-xl">Rehearse the next two years</h2>
		<nav class="flex flex-wrap gap-x-5 gap-y-1 text-sm" aria-label="Plans of this tree">
			<a class="chalk" href={resolve('/trees/[id]/roots', { id: tree.id })}>Plan of its roots</a>
			<a class="chalk" href={resolve('/trees/[id]/replant', { id: tree.id })}>Planting</a>
			<a class="chalk" href={resolve('/trees/[id]/aftercare', { id: tree.id })}>Aftercare</a>
		</nav>
	</div>

	{#if !of || !rehearsal}
		<p class="mt-3 max-w-prose">
			{tree.state === 'in-care'
				? 'It is not known what this tree stands in. Write down its planting or its place first; then its plans can be played forward.'
				: 'Its case is closed: there is nothing ahead to rehearse.'}
		</p>
	{:else}
		<p class="mt-1 max-w-prose text-slate">
			Each plan goes through the same futures: drawn weather of this place, luck, and everything that nobody
			knows of this tree. It is a rehearsal of our model, not a promise.
		</p>

		<div class="mt-4 flex flex-wrap items-center gap-3">
			{#if rehearsal.running !== ''}
				<Progress
					label={rehearsal.running === 'other' ? 'Looking for the strongest other plan' : 'Playing'}
					value={Math.round(rehearsal.progress * 100)}
					max={100}
					class="w-48"
				/>
				<span class="text-sm text-slate"
					>{rehearsal.running === 'other'
						? 'Looking for the strongest other plan …'
						: 'Playing the plans …'}</span
				>
				<Button size="small" onclick={() => rehearsal?.stop()}>Stop</Button>
			{:else}
				{#if !rehearsal.current}<Button size="small" tone="solid" onclick={() => void rehearsal?.play()}
						>Play the plans</Button
					>{/if}
				<Button size="small" disabled={rehearsal.full} onclick={() => rehearsal?.add()}
					><Plus size={16} /> Set another plan beside</Button
				>
				{#if rehearsal.stopped}<span class="text-sm text-slate">Stopped.</span>{/if}
			{/if}
		</div>
		{#if rehearsal.failed !== ''}<p class="mt-2 font-semibold text-oxide" role="alert">
				{rehearsal.failed}
			</p>{/if}

		<div role="status" aria-live="polite" class={['mt-4', !rehearsal.current && 'opacity-60']}>
			{#if words}
				<p class="max-w-3xl font-display text-2xl leading-snug">{words.headline}</p>
				{#each words.against as sentence (sentence)}<p class="mt-1 max-w-prose">{sentence}</p>{/each}
				{#if rehearsal.noOther}<p class="mt-1 max-w-prose">
						No single change of what is planned makes it better.
					</p>{/if}
				{#each finding as sentence (sentence)}<p class="mt-2 max-w-prose">
						<strong>Find out first.</strong>
						{sentence}
					</p>{/each}
			{/if}
		</div>
		<Problem {refused} />

		<div class="mt-5 grid gap-x-8 gap-y-8 sm:grid-cols-2 {columns}">
			{#each rehearsal.plans as plan, index (index)}
				<PlanColumn
					{index}
					{plan}
					outcome={rehearsal.outcomeOf(index)}
					best={rehearsal.current && bestOnes.has(index)}
					scene={rehearsal.scene}
					{values}
					to={result?.to ?? today}
					removable={rehearsal.plans.length > 1}
					onchange={(change) => rehearsal?.change(index, change)}
					onrename={(name) => rehearsal?.rename(index, name)}
					onremove={() => rehearsal?.remove(index)}
				>
					{#snippet take()}
						<form method="post" action="?/take" use:enhance={act()}>
							<input type="hidden" name="planVersion" value={planVersion ?? ''} />
							<input
								type="hidden"
								name="rehearsal"
								value={JSON.stringify(rehearsal?.kept(index, today) ?? null)}
							/>
							<Button type="submit" disabled={!rehearsal?.current}>Take plan {letterOf(index)} over</Button>
						</form>
					{/snippet}
				</PlanColumn>
			{/each}
		</div>

		{#if result}
			<section class="mt-8" aria-labelledby="courses-title">
				<div class="flex flex-wrap items-center justify-between gap-3">
					<h3 id="courses-title" class="text-lg">{titles[shown]}</h3>
					<div class="flex flex-wrap gap-3">
						<Choice
							label="What is drawn"
							hideLabel
							size="small"
							options={[
								{ value: 'established', label: 'Re-established' },
								{ value: 'alive', label: 'Alive' },
								{ value: 'roots', label: 'Root function' }
							]}
							bind:value={shown}
						/>
						<Choice
							label="Plan whose band is drawn"
							hideLabel
							size="small"
							options={result.outcomes.map((_, index) => ({ value: String(index), label: letterOf(index) }))}
							bind:value={() => String(lookedAt), (value) => (looked = Number(value))}
						/>
					</div>
				</div>
				<PlansChart
					what={titles[shown]}
					courses={result.outcomes.map((outcome) => outcome[shown])}
					looked={lookedAt}
				/>
				<p class="text-xs text-slate">
					Lines: the mean of {result.futures} futures under each plan. Band: four of five futures of plan {letterOf(
						lookedAt
					)}. Wind, pests and accidents are not played.
				</p>
			</section>
		{/if}
	{/if}

	{#if before.length > 0}<RehearsedBefore {before} {today} />{/if}
</div>
