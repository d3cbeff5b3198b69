<script lang="ts">
	import { resolve } from '$app/paths';
	import { mixHistories, mixHistoryNames } from '$core/replant/mixes/bench-test';
	import { componentIds, componentOf } from '$core/replant/mixes/components';
	import { mixIds, mixOf } from '$core/replant/mixes/mixes';
	import { firstWaterOfPot } from '$core/tree/shared-pot';
	import { mixInWords } from '$core/replant/mixes/reach';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import type { ReplantState } from './replant-state.svelte';

	/** Which mix, new or old, and the layers it is put in. */
	interface Props {
		state: ReplantState;
		refused?: Refused | null;
	}
	let { state: planning, refused }: Props = $props();
	const format = useFormat();
	const own = $derived(planning.of.stock.mixes);
	/** What its pot waits for already is no choice any more. */
	const potWater = $derived(firstWaterOfPot(planning.of.records, planning.plantedOn));
	const risky = $derived(planning.history !== 'new' && planning.history !== 'healthy');
	const coarse = componentIds.filter((id) => componentOf(id).fineMm >= 4);
	const set = (key: 'coarseLayerMm' | 'topLayerMm' | 'headspaceMm') => (value: number | null) => {
		planning[key] = value ?? 0;
	};
</script>

<fieldset class="flex flex-col gap-3">
	<legend class="mb-1 font-display text-lg font-semibold">Mix and layers</legend>
	<SelectField
		name="mix"
		label="Mix"
		value={planning.mixChoice}
		onchange={(event) => planning.takeMix(event.currentTarget.value)}
		options={[
			...(planning.mixChoice === 'used' ? [{ value: 'used', label: planning.mix.name }] : []),
			...own.map((mix) => ({ value: `own-${mix.id}`, label: mix.name, group: 'Our own' })),
			...mixIds.map((id) => ({ value: id, label: mixOf(id).name, group: 'Common in the trade' }))
		]}
		hint="{mixInWords(planning.mix.parts)}{planning.mix.measured
			? `; measured ${format().date(planning.mix.measured.measuredOn)}`
			: '; not measured'}"
	/>
	<p class="-mt-1 text-sm">
		<a class="chalk" href={resolve('/trees/[id]/replant/mix', { id: planning.of.records.tree.id })}
			>Change its parts, test it, or find one that reaches what is wanted</a
		>
	</p>
	{#if planning.rot && planning.mixAfterRot === false}<Caution title="After rot"
			>Usual here is a mix that stays airy, and never the old one again. This one holds more water.</Caution
		>{/if}
	<SelectField
		name="planting.reuse.history"
		label="Where it was before"
		value={planning.history}
		onchange={(event) => {
			planning.history = mixHistories.find((word) => word === event.currentTarget.value) ?? 'new';
		}}
		options={mixHistories.map((value) => ({ value, label: mixHistoryNames[value] }))}
		{refused}
	/>
	{#if risky}
		<Caution title="Not again"
			>Old mix after rot or pests, or from where is not known, is not used again: they travel in it. Bag it as
			local rules say. If it must be, say why.</Caution
		>
		<TextField
			name="planting.reuse.because"
			label="It goes in all the same, because"
			value={planning.because}
			oninput={(event) => (planning.because = event.currentTarget.value)}
			{refused}
		/>
	{/if}
	<div class="grid gap-3 sm:grid-cols-3">
		<MeasureField
			name="planting.coarseLayerMm"
			label="Coarse layer at the floor"
			unit="mm"
			value={planning.coarseLayerMm}
			oninput={set('coarseLayerMm')}
			{refused}
		/>
		<MeasureField
			name="planting.topLayerMm"
			label="Top layer"
			unit="mm"
			value={planning.topLayerMm}
			oninput={set('topLayerMm')}
			{refused}
		/>
		<MeasureField
			name="planting.headspaceMm"
			label="Left under the rim for water"
			unit="mm"
			value={planning.headspaceMm}
			oninput={set('headspaceMm')}
			{refused}
		/>
	</div>
	{#if planning.topLayerMm > 0}
		<SelectField
			name="topId"
			label="Top layer of"
			value={planning.topId ?? ''}
			onchange={(event) => {
				planning.topId = componentIds.find((id) => id === event.currentTarget.value) ?? null;
			}}
			options={[
				{ value: '', label: 'the mix itself' },
				...componentIds.map((id) => ({ value: id, label: componentOf(id).name }))
			]}
		/>
	{/if}
	{#if planning.coarseLayerMm > 0}
		<SelectField
			name="coarseId"
			label="Coarse layer of"
			value={planning.coarseId}
			onchange={(event) => {
				planning.coarseId = coarse.find((id) => id === event.currentTarget.value) ?? planning.coarseId;
			}}
			options={coarse.map((id) => ({ value: id, label: componentOf(id).name }))}
		/>
		<p class="text-sm text-slate">
			A coarse layer keeps the holes clear. It does not drain the mix above it, and costs {format().measure(
				planning.coarseLayerMm,
				'mm'
			)} of rooting depth; others use a screen only.
		</p>
	{/if}
	{#if potWater}
		<p>
			First water from {format().day(potWater.task.fromOn, planning.of.today)} on, with {potWater.tag}, which
			stands in the same pot.
		</p>
	{:else}<Choice
			label="First water"
			bind:value={planning.waterSchool}
			options={[
				{ value: 'at-once', label: 'at once' },
				{ value: 'dry-rest', label: 'after a dry rest' }
			]}
		/>
		<p class="-mt-1 text-sm text-slate">
			At once for woody, fine roots; dry first for fleshy ones and after rot surgery. It goes on the list with
			its dates.
		</p>{/if}
</fieldset>
