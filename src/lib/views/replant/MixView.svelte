<script lang="ts">
	import { counted } from '$core/text/plural';
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { componentIds, componentOf, type ComponentId } from '$core/replant/mixes/components';
	import { mixIds, mixOf } from '$core/replant/mixes/mixes';
	import { mixInWords } from '$core/replant/mixes/reach';
	import { againstRange } from '$core/replant/mixes/ranges';
	import { mixBody } from '$core/replant/mixes/retention';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Chips from '$ui/Chips.svelte';
	import Choice from '$ui/Choice.svelte';
	import ComboField from '$ui/ComboField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Slider from '$ui/Slider.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import { untrack } from 'svelte';
	import BenchTest from './BenchTest.svelte';
	import { planningOf } from './drafts';
	import { MixState } from './mix-state.svelte';
	import type { ReplantOf } from './replant-state.svelte';
	import WaterAndAir from './WaterAndAir.svelte';

	/** Two mixes side by side in the same pot: water and air by depth, what is wanted, and a mix that reaches it. */
	interface Props {
		of: ReplantOf;
		refused?: Refused | null;
	}
	let { of, refused }: Props = $props();
	const format = useFormat();
	/** The planting that is being planned: its pot, its mix and its layers, as they were left. */
	const planning = untrack(() => planningOf(of));
	$effect.pre(() => {
		planning.of = of;
	});
	const tree = $derived(of.records.tree);
	const today = $derived(of.today);
	const yard = $derived(of.stock);
	const { values } = untrack(() => of);
	const bench = new MixState(planning);
	const { planting } = bench;
	const { sides, made, layer, pot, ranges, wish, keptAt, found, stock } = $derived(bench);
	const percent = (share: number): string => format().percent(share);
	const mm = (value: number): string => format().measure(value, 'mm');
	const letters = ['A', 'B'];
</script>

<div class="page pt-5 pb-20">
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h2 class="text-xl">Water and air in the pot</h2>
		<a class="chalk" href={resolve('/trees/[id]/replant', { id: tree.id })}>Back to Replant</a>
	</div>
	<p class="mt-1 max-w-3xl text-slate">
		After watering through, water stands highest at the floor of the pot and the more of it the shallower the
		pot. Worked out from grain sizes; bags differ, and a bench test knows better.
	</p>
	<div class="mt-3 grid max-w-3xl gap-1">
		<Slider
			label="Depth of the fill"
			value={bench.depthMm}
			min={30}
			max={600}
			step={5}
			shown={mm(bench.depthMm)}
			oninput={(value) => (bench.depthMm = value)}
		/>
		<Slider
			label="Coarse layer"
			value={bench.coarseLayerMm}
			min={0}
			max={Math.max(10, Math.round(bench.depthMm / 2))}
			step={5}
			shown={mm(layer.coarseLayerMm)}
			oninput={(value) => (bench.coarseLayerMm = value)}
		/>
		{#if layer.coarseLayerMm > 0}
			<Slider
				label="of grains from"
				value={bench.coarseGrainMm}
				min={2}
				max={40}
				shown={mm(bench.coarseGrainMm)}
				oninput={(value) => (bench.coarseGrainMm = value)}
			/>
			<p class="text-sm text-slate">
				Grains at the floor keep the holes clear and roots off the mesh. They do not drain the mix: its wet
				zone stands on top of them, and {mm(layer.coarseLayerMm)} of rooting depth are gone.
			</p>
		{/if}
		<div class="mt-1">
			<Choice
				label="What is wanted"
				size="small"
				bind:value={bench.aim}
				options={[
					{
						value: 'recovering',
						label: `recovering roots, air ${percent(ranges.recovering.airFrom)}–${percent(ranges.recovering.airTo)}`
					},
					{
						value: 'nursery',
						label: `nursery mixes, air ${percent(ranges.nursery.airFrom)}–${percent(ranges.nursery.airTo)}`
					}
				]}
			/>
		</div>
	</div>

	<div class="mt-5 grid gap-8 lg:grid-cols-2">
		{#each sides as side, index (index)}
			{@const letter = letters[index] ?? ''}
			{@const found = made[index]}
			<section aria-label="Mix {letter}">
				<SelectField
					name="mix-{letter}"
					label="Mix {letter}, begun from"
					value={side.from}
					onchange={(event) => bench.begin(index, event.currentTarget.value)}
					options={[
						...(planting ? [{ value: 'used', label: planting.mix.name, group: 'In this plan or pot' }] : []),
						...yard.mixes.map((mix) => ({ value: `own-${mix.id}`, label: mix.name, group: 'Our own' })),
						...mixIds.map((value) => ({ value, label: mixOf(value).name, group: 'Common in the trade' }))
					]}
				/>
				<ul class="mt-2 divide-y border-y">
					{#each side.mix.parts as part, at (part.componentId)}
						<li class="flex items-center gap-2 py-1">
							<span class="min-w-0 flex-1 truncate">{componentOf(part.componentId).name}</span>
							<input
								class="h-10 w-20 rounded-md border border-edge bg-leaf px-2 text-right"
								type="number"
								min="0"
								max="1000"
								step="0.5"
								aria-label="Parts of {componentOf(part.componentId).name} in mix {letter}"
								value={part.parts}
								oninput={(event) => {
									const parts = event.currentTarget.valueAsNumber;
									if (parts >= 0 && parts <= 1000)
										bench.setParts(
											index,
											side.mix.parts.map((other, i) => (i === at ? { ...other, parts } : other))
										);
								}}
							/>
							<Button
								tone="quiet"
								size="small"
								aria-label="Take {componentOf(part.componentId).name} out of mix {letter}"
								onclick={() =>
									bench.setParts(
										index,
										side.mix.parts.filter((_, i) => i !== at)
									)}><Trash2 size={16} /></Button
							>
						</li>
					{/each}
				</ul>
				{#key side.mix.parts.length}<ComboField
						name="add-{letter}"
						label="Add to mix {letter}"
						immediate
						placeholder="A component: pumice, bark …"
						fieldClass="mt-2"
						onchange={(id) =>
							bench.setParts(index, [...side.mix.parts, { componentId: id as ComponentId, parts: 1 }])}
						options={componentIds
							.filter((id) => !side.mix.parts.some((part) => part.componentId === id))
							.map((id) => ({ value: id, label: componentOf(id).name }))}
					/>{/key}
				<Button
					disabled={!side.mix.parts.some((part) => part.parts > 0)}
					aria-label="Plant in mix {letter}"
					onclick={() => {
						planning.mix = side.mix;
						planning.coarseLayerMm = layer.coarseLayerMm;
						void goto(resolve('/trees/[id]/replant', { id: tree.id }));
					}}>Plant in it</Button
				>
				{#if side.mix.measured}
					<p class="mt-2 text-sm">
						Measured {format().date(side.mix.measured.measuredOn)} at {mm(side.mix.measured.depthMm)}: its
						numbers are those of the test.
						<button
							type="button"
							class="chalk"
							onclick={() => bench.setMix(index, { ...side.mix, measured: null })}>Back to grain sizes</button
						>
					</p>
				{/if}
				{#if found}
					{@const { result, body, dryDays } = found}
					{@const air = againstRange(result.airSpace, wish.airFrom, wish.airTo)}
					<div class="mt-3">
						<WaterAndAir
							name="Mix {letter}"
							{result}
							fillMm={bench.depthMm}
							coarseLayerMm={layer.coarseLayerMm}
						/>
					</div>
					<dl class="mt-1 grid grid-cols-[1fr_auto] gap-x-4 text-sm">
						<dt>Air space</dt>
						<dd class={['text-right font-semibold', air === 'within' ? 'text-lichen' : 'text-oxide']}>
							<Workings
								label="Air space of mix {letter}"
								formula="pores {percent(result.porosity)} − water {percent(result.containerCapacity)}"
								lines={[
									{ label: 'pores between the grains', value: percent(body.between) },
									{ label: 'inside them', value: percent(body.inside) },
									{ label: 'pore that rules', value: format().measure(body.poreMm, 'mm', 2) },
									{
										label: 'pores, of the fine end of the grains',
										value: String(values['mix.poreOfGrain']),
										mark: markOf('mix.poreOfGrain')
									},
									{
										label: 'wanted from',
										value: percent(wish.airFrom),
										mark: markOf(bench.aim === 'recovering' ? 'mix.recoveringAirFrom' : 'mix.airFrom')
									}
								]}
								changes="Water at a height by van Genuchten 1980, with the capillary rise of the pores; component properties are from memory until a bench test replaces them."
								>{format().percent(result.airSpace, 1)}</Workings
							>{air === 'within' ? '' : `, ${air} what is wanted`}
						</dd>
						<dt>Water it holds</dt>
						<dd class="text-right">
							{percent(result.containerCapacity)}{'depthMm' in pot
								? ''
								: `, ${format().measure(result.waterL, 'L')}`}
						</dd>
						<dt>Water roots take easily</dt>
						<dd class="text-right">{percent(result.easilyAvailable)}</dd>
						<dt>Waterlogged layer at the bottom</dt>
						<dd class="text-right">{mm(result.saturatedMm)}</dd>
						<dt>A litre of its parts makes</dt>
						<dd class="text-right">{format().measure(body.yield, 'L', 2)}</dd>
						<dt>pH, about</dt>
						<dd class="text-right">{format().number(body.ph, 1)}</dd>
						<dt>Lasts</dt>
						<dd class="text-right">
							{body.lifeYears === null
								? 'it does not break down'
								: `about ${counted(body.lifeYears, 'year')}`}
						</dd>
						{#if dryDays !== null}
							<dt>From full to its next water, without rain</dt>
							<dd class="text-right">
								{Number.isFinite(dryDays)
									? `about ${counted(format().number(dryDays, dryDays < 10 ? 1 : 0), 'day')}`
									: 'nothing draws on it'}
							</dd>
						{/if}
						{#if !('depthMm' in pot)}
							<dt>Wet, in this pot</dt>
							<dd class="text-right">{format().measure(result.wetKg, 'kg', 1)}</dd>
						{/if}
					</dl>
				{:else}
					<div class="mt-3">
						<Caution title="Nothing in it">Give at least one part more than nothing.</Caution>
					</div>
				{/if}
			</section>
		{/each}
	</div>

	<section aria-labelledby="reach-title" class="mt-8 max-w-3xl border-t pt-4">
		<h3 id="reach-title" class="text-lg">Mix from what you have</h3>
		<p class="mt-1 text-sm text-slate">
			Choose up to six components. Bruntle tries every mix of them in tenths and lists those that hold the air
			and water you want. Prices come from your stock.
		</p>
		<div class="mt-2">
			<Chips
				label="At hand"
				name="stock"
				options={componentIds.map((id) => ({ value: id, label: componentOf(id).name }))}
				value={stock}
				onchange={(chosen) => bench.choose(chosen)}
			/>
		</div>
		<div class="mt-3 flex flex-wrap items-end gap-4">
			<Choice
				label="Prefer"
				size="small"
				bind:value={bench.prefer}
				onchange={() => (bench.found = null)}
				options={[
					{ value: 'change', label: 'closest to mix A' },
					{ value: 'cost', label: 'cheapest' }
				]}
			/>
			<Button tone="solid" disabled={stock.length === 0} onclick={() => bench.find()}>Find a mix</Button>
		</div>
		{#if found}
			<ol class="mt-3 divide-y border-y" aria-label="Mixes found">
				{#each found as one, at (at)}
					<li class="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
						<span class="min-w-0 flex-1">
							<strong>{mixInWords(one.parts)}</strong><br /><span class="text-sm text-slate"
								>air {percent(one.airSpace)}, water {percent(one.containerCapacity)}; {one.miss < 0.0005
									? 'as wanted'
									: `misses by ${percent(one.miss)}`}; {percent(one.change)} of mix A changed; {one.costPerL ===
								null
									? 'cost not known'
									: `${format().number(one.costPerL, 2)} a litre`}</span
							>
						</span>
						<Button
							size="small"
							aria-label="Take mix {at + 1} as mix B"
							onclick={() => bench.setParts(1, one.parts)}>As mix B</Button
						>
					</li>
				{/each}
			</ol>
		{/if}
	</section>

	<section aria-labelledby="test-title" class="mt-8 max-w-3xl border-t pt-4">
		<h3 id="test-title" class="text-lg">Test mix A at the bench</h3>
		<div class="mt-2">
			<BenchTest
				{today}
				modelPorosity={sides[0]?.mix.parts.some((part) => part.parts > 0)
					? mixBody(sides[0].mix.parts, values).porosity
					: 0.6}
				onmeasured={(measured) => {
					const mix = sides[0]?.mix;
					if (mix) bench.setMix(0, { ...mix, measured });
				}}
			/>
		</div>
	</section>

	<section aria-labelledby="keep-title" class="mt-8 max-w-3xl border-t pt-4">
		<h3 id="keep-title" class="text-lg">Keep mix A as one of our own</h3>
		<form
			method="POST"
			action="?/keepMix"
			use:enhance={act({ keep: true })}
			class="mt-2 flex flex-col gap-3"
			novalidate
		>
			<Problem {refused} />
			<TextField
				name="name"
				label="Name"
				value={bench.keepName}
				oninput={(event) => (bench.keepName = event.currentTarget.value)}
				{refused}
				hint={keptAt ? 'Stands already; it will be changed' : 'It then stands in every list of mixes'}
			/>
			<label class="flex items-center gap-2"
				><input type="checkbox" class="size-5" bind:checked={bench.afterRot} />Stays airy enough after rot</label
			>
			<input
				type="hidden"
				name="mix"
				value={JSON.stringify({
					...sides[0]?.mix,
					parts: sides[0]?.mix.parts.filter((part) => part.parts > 0),
					name: bench.keepName,
					afterRot: bench.afterRot,
					note: ''
				})}
			/>
			<input type="hidden" name="id" value={keptAt?.id ?? ''} />
			<input type="hidden" name="version" value={keptAt?.version ?? ''} />
			<div><Button type="submit" tone="solid">Keep the mix</Button></div>
		</form>
	</section>
</div>
