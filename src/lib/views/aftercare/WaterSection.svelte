<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { TreeWater } from '$core/water/tree-water';
	import { weighingAdvice } from '$core/water/root-function';
	import { wateringWayNames, wateringWays, type Watering } from '$core/water/watering';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Droplet from '@lucide/svelte/icons/droplet';
	import FunctionChart from './FunctionChart.svelte';

	/** When and how it is watered next, from weight and weather, and what its roots do. */
	interface Props {
		treeId: string;
		water: TreeWater;
		waterings: Watering[];
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { treeId, water, waterings, values, today, refused }: Props = $props();
	const format = useFormat();
	let writing = $state(false);
	const next = $derived(water.next);
	const now = $derived(water.course.at(-1) ?? null);
	const L = (litres: number): string => format().measure(litres, 'L', litres < 1 ? 2 : 1);
	const advice = $derived(weighingAdvice(water.pairs, now, today));
	const rests: Record<TreeWater['from'], string> = {
		watering: 'since it was last watered',
		weighing: 'from the last weighing',
		planting: 'since it was planted, taken as full then',
		assumed: 'nobody wrote down a watering or a weighing; it is taken as full yesterday'
	};
	const recent = $derived([...waterings].reverse().slice(0, 6));
</script>

<section aria-labelledby="water-title" class="border-b pb-6">
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h2 id="water-title" class="text-lg">Water</h2>
		<Button tone="solid" onclick={() => (writing = true)}><Droplet size={18} /> Watered or weighed</Button>
	</div>
	<p class="mt-1 font-display text-2xl font-bold">
		{#if next.on === null}
			No water needed as far as the weather is known
		{:else if next.on <= today}
			{water.from === 'assumed' ? 'Look at it and weigh it' : 'Water it now'}
		{:else}
			Next water about {format().day(next.on, today)}
		{/if}
	</p>
	<p class="mt-1">
		{#if next.earliest && next.latest && next.earliest !== next.latest}
			Between {format().day(next.earliest, today)} and {format().day(next.latest, today)}, as its roots are
			known.
		{:else if next.earliest && !next.latest}
			From {format().day(next.earliest, today)} on, or much later: its roots are hardly known.
		{/if}
		<Workings
			label="Dryness of the pot"
			formula="1 − water left ÷ water when drained"
			lines={[
				{ label: 'rooted mix holds', value: L(water.stores.rootedMostL), mark: markOf('water.ballHeld') },
				{
					label: 'mix without roots',
					value: L(water.stores.unrootedMostL),
					mark: markOf('water.insideDrawn')
				},
				{
					label: 'a full crown over ET₀',
					value: `× ${values['water.crownFactor']}`,
					mark: markOf('water.crownFactor')
				},
				{
					label: 'open mix over ET₀',
					value: `× ${values['water.surfaceFactor']}`,
					mark: markOf('water.surfaceFactor')
				},
				{ label: 'root function', value: format().percent(now?.phi ?? 1) }
			]}
			changes="Weather, leaves, and the next weighing: it corrects all of this."
			><strong>{format().percent(next.dryness)} dry</strong></Workings
		>, {rests[water.from]}. {next.litres > 0 ? `Then ${L(next.litres)}, ${wateringWayNames[next.way]}.` : ''}
		{next.reason}
	</p>
	{#each water.alarms as alarm (alarm.text)}
		<div class="mt-2"><Caution title="Its water">{alarm.text}</Caution></div>
	{/each}
	<div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_15rem]">
		<div>
			<FunctionChart course={water.course} {today} />
		</div>
		<div class="text-sm">
			<p>
				Root function <strong>{now ? format().percent(now.phi) : 'not known'}</strong>{now
					? `, ${format().percent(now.low)} to ${format().percent(now.high)}`
					: ''}
				<span class="text-slate"
					>(1 = before the damage; a filter over {water.pairs.length} pairs of weighings)</span
				>
			</p>
			{#if advice}<p class="mt-1 text-slate">{advice}</p>{/if}
			{#if recent.length > 0}
				<ul class="mt-2 divide-y border-y" aria-label="Last waterings">
					{#each recent as one (one.id)}
						<li class="py-1">
							{format().day(one.wateredOn, today)}{one.litres === null
								? ''
								: `: ${L(one.litres)}`}{one.beforeKg === null
								? ''
								: `, ${format().measure(one.beforeKg, 'kg')}`}{one.afterKg === null
								? ''
								: ` → ${format().measure(one.afterKg, 'kg')}`}
						</li>
					{/each}
				</ul>
			{/if}
			<p class="mt-2"><a class="chalk" href={resolve('/yard/weather')}>Weather behind it</a></p>
		</div>
	</div>
</section>

<Sheet bind:open={writing} title="Watered or weighed">
	<form
		method="POST"
		action="?/water"
		use:enhance={act({ done: () => (writing = false) })}
		class="flex flex-col gap-3"
		novalidate
	>
		<Problem {refused} />
		<input type="hidden" name="treeId" value={treeId} />
		<TextField name="wateredOn" label="On" type="date" value={today} max={today} {refused} />
		<div class="grid gap-3 sm:grid-cols-2">
			<MeasureField name="beforeKg" label="Weight before" unit="kg" optional {refused} />
			<MeasureField name="afterKg" label="after, when nothing drips" unit="kg" optional {refused} />
			<MeasureField
				name="litres"
				label="Poured"
				unit="L"
				optional
				value={Math.round(next.litres * 100) / 100}
				{refused}
			/>
			<MeasureField name="ranOutL" label="Ran out" unit="L" optional {refused} />
		</div>
		<SelectField
			name="way"
			label="How"
			value={next.way}
			options={wateringWays.map((value) => ({ value, label: wateringWayNames[value] }))}
			{refused}
		/>
		<TextField name="note" label="Note" optional {refused} />
		<p class="text-sm text-slate">
			The weight before the next water tells how much its roots drink. A weighing without water is kept under
			<a class="chalk" href={resolve('/trees/[id]/examine/measure', { id: treeId })}>Measure</a>.
		</p>
		<Button type="submit" tone="solid">Keep it</Button>
	</form>
</Sheet>
