<script lang="ts">
	import { azimuthOf, clockOf } from '$core/maths/circular';
	import {
		cutWayNames,
		cutWays,
		liftAfterNames,
		liftAfters,
		soakNames,
		soaks,
		type LiftLog
	} from '$core/replant/lifting/lift';
	import { rootingNames, rootings } from '$core/replant/lifting/lift';
	import { type LiftKept } from '$core/replant/lifting/lift-cost';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Trash2 from '@lucide/svelte/icons/trash-2';

	/** The log of a lift: the ball as it came out, roots that were cut, time out of the ground, soak. */
	interface Props {
		log: LiftLog;
		/** What of its roots came along, by what the log says so far. */
		kept: LiftKept | null;
		/** It was kept before, and tells of then. */
		past?: boolean;
		refused?: Refused | null;
	}
	let { log = $bindable(), kept, past = false, refused }: Props = $props();
	const format = useFormat();
	const sizes = [
		{ key: 'ballDiameterMm', label: 'Ball as lifted, width' },
		{ key: 'ballDepthMm', label: 'Ball as lifted, depth' }
	] as const;
	const measuredIt = (key: (typeof sizes)[number]['key']): void => {
		log.assumed = log.assumed.filter((one) => one !== key);
	};
	let clock = $state<number | null>(null);
	let thickMm = $state<number | null>(null);
	let how = $state<LiftLog['cutRoots'][number]['how']>('saw');
	function add(): void {
		if (clock === null || thickMm === null || clock < 0 || clock > 12 || thickMm < 1) return;
		log.cutRoots = [...log.cutRoots, { azimuthDeg: azimuthOf(clock, 'ground'), diameterMm: thickMm, how }];
		[clock, thickMm] = [null, null];
	}
</script>

<div class="grid gap-3 sm:grid-cols-2">
	<DateField
		name="log.liftedOn"
		label="Lifted on"
		value={log.liftedOn}
		oninput={(day) => (log.liftedOn = day)}
		{refused}
	/>
	{#each sizes as { key, label } (key)}
		<MeasureField
			name="log.{key}"
			{label}
			unit="mm"
			value={log[key] === 0 ? null : log[key]}
			guess={log.assumed.includes(key)}
			onconfirm={() => measuredIt(key)}
			oninput={(value) => {
				log[key] = value ?? 0;
				measuredIt(key);
			}}
			{refused}
		/>
	{/each}
	<MeasureRow
		bind:of={log}
		prefix="log."
		measures={[
			{ key: 'massKg', label: 'Weighed', unit: 'kg', optional: true },
			{ key: 'outMinutes', label: 'Minutes out of the ground', unit: '', optional: true },
			...(log.soak === 'stood-in-water'
				? [{ key: 'soakMinutes' as const, label: 'Minutes in water', unit: '' as const, empty: 0 }]
				: [])
		]}
		{refused}
	/>
</div>
<Choice
	label="Roots meanwhile"
	size="small"
	value={log.soak ?? ''}
	onchange={(value) => {
		log.soak = value;
		if (value !== 'stood-in-water') log.soakMinutes = 0;
	}}
	options={soaks.map((value) => ({ value, label: soakNames[value] }))}
/>
<SelectField
	name="log.rooting"
	label="How its roots lay"
	value={log.rooting ?? ''}
	onchange={(event) => {
		log.rooting = rootings.find((word) => word === event.currentTarget.value) ?? null;
	}}
	options={[
		{ value: '', label: 'not looked at' },
		...rootings.map((value) => ({ value, label: rootingNames[value] }))
	]}
/>
<Choice
	label={past ? 'Then it was' : 'Now it is'}
	size="small"
	value={log.after}
	onchange={(value) => (log.after = value)}
	options={liftAfters.map((value) => ({ value, label: liftAfterNames[value] }))}
/>
<div>
	<h4 class="text-base">Roots cut</h4>
	<ul class="divide-y border-y text-sm" aria-label="Roots cut at the lift">
		{#each log.cutRoots as root, at (at)}
			<li class="flex items-center justify-between gap-2 py-1">
				{format().clock(clockOf(root.azimuthDeg, 'ground'))}: {format().measure(root.diameterMm, 'mm')}, {cutWayNames[
					root.how
				]}
				<Button
					tone="quiet"
					size="small"
					aria-label="Take root {at + 1} off the log"
					onclick={() => (log.cutRoots = log.cutRoots.filter((_, i) => i !== at))}
					><Trash2 size={16} /></Button
				>
			</li>
		{/each}
	</ul>
	<div class="mt-2 grid grid-cols-[1fr_1fr_1.4fr_auto] items-end gap-2">
		<MeasureField
			name="root.clock"
			label="Clock, north 12"
			unit=""
			value={clock}
			oninput={(value) => (clock = value)}
		/>
		<MeasureField
			name="root.diameterMm"
			label="Thick"
			unit="mm"
			value={thickMm}
			oninput={(value) => (thickMm = value)}
		/>
		<SelectField
			name="root.how"
			label="How"
			value={how}
			onchange={(event) => {
				how = cutWays.find((way) => way === event.currentTarget.value) ?? 'saw';
			}}
			options={cutWays.map((value) => ({ value, label: cutWayNames[value] }))}
		/>
		<Button onclick={add}>Add</Button>
	</div>
</div>
{#if kept}
	<p class="border-l-4 border-lichen py-1 pl-3" aria-live="polite">
		About <strong>{format().percent(kept.share)}</strong> of its absorbing roots came along,
		{format().percent(kept.low)} to {format().percent(kept.high)}:
		{kept.from === 'map'
			? 'by the map of its roots'
			: 'by its ball against how far roots of such a tree reach'}.
	</p>
{/if}
<label class="flex items-center gap-2"
	><input type="checkbox" class="size-5" name="backfilled" bind:checked={log.backfilled} />The hole is filled
	and safe</label
>
<TextField
	name="log.note"
	label="What else was seen"
	optional
	value={log.note}
	oninput={(event) => (log.note = event.currentTarget.value)}
	{refused}
/>
