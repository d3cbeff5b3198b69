<script lang="ts">
	import { rootWayNames, waterRuleNames, type RehearsedPlan } from '$core/recovery/rehearsal/plan';
	import type { PlanOutcome } from '$core/rehearse/rehearse';
	import type { RehearsalScene } from '$core/rehearse/scene';
	import { diesWords } from '$core/rehearse/words';
	import { chanceSaid } from '$core/text/percent';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import SelectField from '$ui/SelectField.svelte';
	import { useFormat } from '$ui/format';
	import X from '@lucide/svelte/icons/x';
	import { onMount, type Snippet } from 'svelte';
	import { letterOf, strokes } from './plan-marks';

	/** One plan of a rehearsal: what came of it, and what it does. */
	interface Props {
		index: number;
		plan: RehearsedPlan;
		outcome: PlanOutcome | null;
		/** It comes out best, alone or with others. */
		best: boolean;
		scene: RehearsalScene;
		values: Values;
		to: string;
		removable: boolean;
		onchange: (change: Partial<RehearsedPlan>) => void;
		onrename: (name: string) => void;
		onremove: () => void;
		/** Button that takes it over. */
		take: Snippet;
	}
	let {
		index,
		plan,
		outcome,
		best,
		scene,
		values,
		to,
		removable,
		onchange,
		onrename,
		onremove,
		take
	}: Props = $props();
	const format = useFormat();
	const said = (chance: number): string => chanceSaid(chance, format().percent);
	const hours = (minutes: number): string =>
		minutes < 90 ? counted(Math.round(minutes), 'minute') : `${format().number(minutes / 60)} hours`;
	const name = $derived(`plan-${index}`);
	const rootWays = $derived(
		(scene.stages.length > 0
			? (['as-planned', 'half-now', 'wait'] as const)
			: (['as-planned', 'treat'] as const)
		).map((value) => ({
			value: value as string,
			label: scene.stages.length === 0 && value === 'as-planned' ? 'nothing' : rootWayNames[value]
		}))
	);
	const dies = $derived(outcome ? diesWords(outcome, values) : []);
	let unfolded = $state(false);
	onMount(() => (unfolded = matchMedia('(min-width: 40rem)').matches));
</script>

<article
	class="flex min-w-0 flex-col gap-3 border-t-3 pt-3 {best ? 'border-lichen' : 'border-line'}"
	aria-labelledby="{name}-title"
>
	<header class="flex items-center gap-2">
		<svg width="34" height="24" viewBox="0 0 34 24" class="shrink-0" aria-hidden="true">
			<path
				d="M2 12H32"
				class={best ? 'stroke-lichen' : 'stroke-ink'}
				stroke-width="3"
				stroke-dasharray={strokes[index]}
			/>
		</svg>
		<h3 id="{name}-title" class="sr-only">Plan {letterOf(index)}: {plan.name}</h3>
		<span class="font-display text-lg font-bold" aria-hidden="true">{letterOf(index)}</span>
		<input
			class="min-h-11 min-w-0 flex-1 border-b border-transparent bg-transparent font-display text-lg leading-tight font-semibold hover:border-edge"
			aria-label="Name of plan {letterOf(index)}"
			value={plan.name}
			maxlength="60"
			onchange={(event) => {
				onrename(event.currentTarget.value);
				event.currentTarget.value = plan.name;
			}}
		/>
		{#if removable}<button
				type="button"
				class="grid size-11 shrink-0 place-items-center rounded-md hover:bg-duff"
				aria-label="Take plan {letterOf(index)} away"
				onclick={onremove}><X size={18} /></button
			>{/if}
	</header>

	<div aria-live="off" class="min-h-40">
		{#if outcome}
			<p>
				<strong class="font-display text-4xl">{said(outcome.end.established)}</strong>
				<span class="text-slate">re-established by {format().monthYear(to)}</span>
			</p>
			<p class="mt-1">
				<strong>{said(outcome.end.alive)}</strong> alive,
				<strong>{said(outcome.end.stands)}</strong> coming through{#if plan.backups + scene.backupsAlive > 0};
					it or a young one of it lives:
					<strong>{said(outcome.end.line)}</strong>{/if}.
			</p>
			{#if outcome.worksLater}<p class="mt-1 text-sm text-ochre">
					Root work is left beyond the end, so that it cannot be re-established by then.
				</p>{/if}
			{#if dies.length > 0}
				<p class="mt-2 text-sm font-semibold">What it dies of</p>
				<ul class="text-sm">
					{#each dies as one (one.what)}
						<li class="flex justify-between gap-3">
							<span
								>{format().inWords(one.what)}{#if one.showsOn}<span class="text-slate"
										>, shows from {format().monthYear(one.showsOn)}</span
									>{/if}</span
							><span class="whitespace-nowrap">{said(one.chance)}</span>
						</li>
					{/each}
				</ul>
			{/if}
			<p class="mt-2 text-sm">
				Asks for {counted(Math.round(outcome.costs.visits), 'visit')}, {counted(
					Math.round(outcome.costs.waterings),
					'watering'
				)} among them: about {hours(outcome.costs.minutes)} in all.
			</p>
		{:else}
			<p class="text-slate">Not played yet.</p>
		{/if}
	</div>

	<div>{@render take()}</div>

	<!-- On a phone what came of it is read first; what it does unfolds. -->
	<details class="border-t pt-2" bind:open={unfolded}>
		<summary class="min-h-11 py-2 font-semibold">What plan {letterOf(index)} does</summary>
		<div class="mt-1 grid gap-3">
			<SelectField
				name="{name}-roots"
				label="Root work"
				options={rootWays}
				bind:value={() => plan.roots, (value) => onchange({ roots: value as RehearsedPlan['roots'] })}
			/>
			{#if scene.stages.length > 0 || plan.roots === 'treat'}<SelectField
					name="{name}-crown"
					label="Crown"
					options={[
						{ value: 'keep-leaves', label: 'keep the leaves' },
						{ value: 'balance', label: 'balance it with its roots' }
					]}
					bind:value={() => plan.crown, (value) => onchange({ crown: value as RehearsedPlan['crown'] })}
				/>{/if}
			{#if scene.pots.length > 0}<SelectField
					name="{name}-pot"
					label="Pot and mix"
					options={scene.pots.map((pot) => ({ value: pot.id, label: pot.label }))}
					bind:value={
						() => plan.potId ?? scene.pots[0]?.id ?? '',
						(value) => onchange({ potId: value === scene.pots[0]?.id ? null : value })
					}
				/>{/if}
			<SelectField
				name="{name}-place"
				label="Place"
				options={scene.places.map((place, i) => ({
					value: place.id,
					label: i === 0 ? `${place.label}, as now` : place.label
				}))}
				bind:value={
					() => plan.placeId ?? scene.places[0]?.id ?? '',
					(value) => onchange({ placeId: value === scene.places[0]?.id ? null : value })
				}
			/>
			<SelectField
				name="{name}-water"
				label="Water"
				options={Object.entries(waterRuleNames).map(([value, label]) => ({ value, label }))}
				bind:value={() => plan.water, (value) => onchange({ water: value as RehearsedPlan['water'] })}
			/>
			{#if plan.water === 'every-days'}
				<label class="flex items-center gap-2"
					>Every
					<input
						class="input w-20"
						type="number"
						inputmode="numeric"
						min="1"
						max="60"
						value={plan.everyDays}
						onchange={(event) => {
							const days = Math.round(Number(event.currentTarget.value));
							if (days >= 1 && days <= 60) onchange({ everyDays: days });
							else event.currentTarget.value = String(plan.everyDays);
						}}
					/> days</label
				>
			{/if}
			<label class="flex min-h-11 items-center gap-3"
				><input
					type="checkbox"
					class="size-5 accent-lichen"
					checked={plan.shade}
					onchange={(event) => onchange({ shade: event.currentTarget.checked })}
				/> Shade cloth at first</label
			>
			<label class="flex min-h-11 items-center gap-3"
				><input
					type="checkbox"
					class="size-5 accent-lichen"
					checked={plan.warnings}
					onchange={(event) => onchange({ warnings: event.currentTarget.checked })}
				/> Under cover on nights too cold for it</label
			>
			<label class="flex min-h-11 items-center justify-between gap-3"
				>Cuttings taken first
				<input
					class="input w-20"
					type="number"
					inputmode="numeric"
					min="0"
					max="200"
					value={plan.backups}
					onchange={(event) => {
						const count = Math.round(Number(event.currentTarget.value));
						if (count >= 0 && count <= 200) onchange({ backups: count });
						else event.currentTarget.value = String(plan.backups);
					}}
				/></label
			>
		</div>
	</details>
</article>
