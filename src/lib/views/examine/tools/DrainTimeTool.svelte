<script lang="ts">
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import type { ToolProps } from './tool';

	let { values, onread }: ToolProps = $props();
	const format = useFormat();
	let minutes = $state<number | null>(null);
	let startedAt = $state<number | null>(null);
	let elapsedS = $state(0);
	$effect(() => {
		if (startedAt === null) return;
		const from = startedAt;
		const timer = setInterval(() => (elapsedS = (Date.now() - from) / 1000), 250);
		return () => clearInterval(timer);
	});
	$effect(() => onread(minutes === null ? null : { tool: 'drain-time', minutes }));
	function stop(): void {
		if (startedAt === null) return;
		minutes = Math.round((Date.now() - startedAt) / 600) / 100;
		startedAt = null;
	}
	const clock = $derived(
		`${Math.floor(elapsedS / 60)}:${String(Math.floor(elapsedS % 60)).padStart(2, '0')}`
	);
</script>

<p class="mb-3">Pour once over the whole surface, a finger deep; take the time until no water stands.</p>
<div class="flex flex-wrap items-end gap-4">
	{#if startedAt === null}
		<Button size="large" onclick={() => ((elapsedS = 0), (startedAt = Date.now()))}>Start, I pour now</Button>
	{:else}
		<span class="font-display text-4xl font-semibold" role="timer">{clock}</span>
		<Button size="large" tone="solid" onclick={stop}>It has sunk</Button>
		<Button tone="quiet" onclick={() => (startedAt = null)}>Stop without a reading</Button>
	{/if}
	<MeasureField
		name="raw.minutes"
		label="Or the minutes it took"
		unit=""
		value={minutes}
		fieldClass="w-48"
		oninput={(value) => (minutes = value)}
	/>
</div>
<p class="mt-3 text-sm text-slate">
	<Workings
		label="Standing water"
		formula="minutes until none stands, against two limits"
		lines={[
			{
				label: 'Sinks at once within',
				value: `${format().number(values['measuring.sinks-min'], 1)} min`,
				mark: markOf('measuring.sinks-min')
			},
			{
				label: 'Stands after',
				value: `${format().number(values['measuring.stands-min'], 1)} min`,
				mark: markOf('measuring.stands-min')
			}
		]}
		>Up to {format().number(values['measuring.sinks-min'], 1)} min it sinks at once, from {format().number(
			values['measuring.stands-min'],
			1
		)} min it stands.</Workings
	>
</p>
