<script lang="ts">
	import { enhance } from '$app/forms';
	import {
		asPot,
		isRound,
		isStraight,
		potShapeNames,
		potShapes,
		potVolumeL,
		type PotShape
	} from '$core/replant/pots/volume';
	import { potMaterials, type StockPot } from '$core/replant/kit/stock';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';

	interface Props {
		pot?: StockPot;
		refused?: Refused | null;
		done?: () => void;
	}
	let { pot, refused, done }: Props = $props();
	const format = useFormat();
	let shape = $state<PotShape>(untrack(() => pot?.pot.shape ?? 'round'));
	let sizes = $state(
		untrack(() => ({
			topLengthMm: pot?.pot.topLengthMm ?? null,
			topWidthMm: pot?.pot.topWidthMm ?? null,
			bottomLengthMm: pot?.pot.bottomLengthMm ?? null,
			bottomWidthMm: pot?.pot.bottomWidthMm ?? null,
			heightMm: pot?.pot.heightMm ?? null
		})) as Record<
			'topLengthMm' | 'topWidthMm' | 'bottomLengthMm' | 'bottomWidthMm' | 'heightMm',
			number | null
		>
	);
	const whole = $derived.by(() => {
		const { topLengthMm, heightMm } = sizes;
		if (!topLengthMm || !heightMm) return null;
		return asPot(shape, {
			topLengthMm,
			heightMm,
			topWidthMm: sizes.topWidthMm ?? topLengthMm,
			bottomLengthMm: sizes.bottomLengthMm ?? topLengthMm,
			bottomWidthMm: sizes.bottomWidthMm ?? sizes.bottomLengthMm ?? topLengthMm
		});
	});
	let fillMm = $state<number | null>(null);
</script>

{#snippet size(key: keyof typeof sizes, label: string)}
	<MeasureField
		name="pot.{key}~typed"
		{label}
		unit="mm"
		value={sizes[key]}
		oninput={(value) => (sizes[key] = value)}
		{refused}
	/>
{/snippet}

<form
	method="POST"
	action="?/pot"
	use:enhance={act({ done, keep: true })}
	{@attach keepTyped(`pot.${pot?.id ?? 'new'}`)}
	class="flex flex-col gap-4"
	novalidate
>
	<Problem {refused} />
	{#if pot}<input type="hidden" name="id" value={pot.id} /><input
			type="hidden"
			name="version"
			value={pot.version}
		/>{/if}
	<div class="grid gap-3 sm:grid-cols-2">
		<TextField name="name" label="Name" value={pot?.name ?? ''} placeholder="Ash box, large" {refused} />
		<SelectField
			name="pot.shape"
			label="Shape"
			value={shape}
			onchange={(event) => {
				shape = potShapes.find((word) => word === event.currentTarget.value) ?? 'round';
			}}
			options={potShapes.map((value) => ({ value, label: potShapeNames[value] }))}
		/>
		{@render size(
			'topLengthMm',
			isRound(shape) ? 'Diameter at the rim, inside' : 'Length at the rim, inside'
		)}
		{#if !isRound(shape)}{@render size('topWidthMm', 'Width at the rim')}{/if}
		{#if !isStraight(shape)}
			{@render size('bottomLengthMm', isRound(shape) ? 'Diameter at the floor' : 'Length at the floor')}
			{#if !isRound(shape)}{@render size('bottomWidthMm', 'Width at the floor')}{/if}
		{/if}
		{@render size('heightMm', 'Depth, inside')}
		{#each ['topLengthMm', 'topWidthMm', 'bottomLengthMm', 'bottomWidthMm', 'heightMm'] as const as key (key)}
			<input type="hidden" name="pot.{key}" value={whole ? whole[key] : (sizes[key] ?? '')} />
		{/each}
	</div>
	{#if whole}
		<p class="text-sm">
			Holds <strong>{format().measure(potVolumeL(whole), 'L')}</strong> to the rim{fillMm
				? `, ${format().measure(potVolumeL(whole, 0, fillMm), 'L')} filled to ${format().measure(fillMm, 'mm')}`
				: ''}.
		</p>
		<MeasureField
			name="fill"
			label="Filled to a height of"
			unit="mm"
			value={fillMm}
			oninput={(value) => (fillMm = value)}
			optional
		/>
	{/if}
	<div class="grid gap-3 sm:grid-cols-3">
		<MeasureField name="count" label="At hand" unit="" value={pot?.count ?? 1} {refused} />
		<MeasureField name="holes" label="Drain holes" unit="" value={pot?.holes ?? 1} {refused} />
		<MeasureField name="holeMm" label="each" unit="mm" value={pot?.holeMm ?? 15} {refused} />
		<MeasureField name="massKg" label="Empty" unit="kg" value={pot?.massKg ?? null} optional {refused} />
		<SelectField
			name="material"
			label="Of"
			value={pot?.material ?? 'plastic'}
			options={potMaterials.map((value) => ({ value, label: value }))}
			{refused}
		/>
		<MeasureField name="price" label="Price of one" unit="" value={pot?.price ?? null} optional {refused} />
	</div>
	<TextField name="note" label="Note" value={pot?.note ?? ''} optional {refused} />
	<div><Button type="submit" tone="solid">{pot ? 'Keep the changes' : 'Add the pot'}</Button></div>
</form>
