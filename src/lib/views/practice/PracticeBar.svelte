<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { PracticeNow } from '$core/practice/moves';
	import { inUnit, rangeInUnit } from '$core/text/measured';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';
	import AtTheTree from './AtTheTree.svelte';
	import { makeMove } from './move';

	/** Over every page of a practice tree: its day, and what moves it on. */
	interface Props {
		practice: PracticeNow;
	}
	let { practice }: Props = $props();
	const format = useFormat();
	let open = $state(false);
	let busy = $state(false);
	const weather = $derived(practice.weather);

	async function pass(days: number): Promise<void> {
		busy = true;
		await makeMove(practice.id, { move: 'days', days });
		busy = false;
	}
</script>

<section aria-label="Practice" class="border-t-2 border-dashed border-ochre bg-leaf">
	<div class="page flex flex-wrap items-center gap-x-4 gap-y-1.5 py-1.5 text-sm">
		<p>
			<strong>Practice tree</strong>, day {practice.day} of {practice.days}: {format().date(
				practice.on
			)}{#if weather}<span class="text-slate"
					>, {format().inWords(rangeInUnit(weather.minC, weather.maxC, '°C'))}{weather.rainMm > 0
						? `, rain ${format().inWords(inUnit(weather.rainMm, 'mm'))}`
						: ', no rain'}</span
				>{/if}
			{#if practice.day === 0 && practice.story}<span class="block text-slate">{practice.story}</span>{/if}
		</p>
		<div class="ml-auto flex flex-wrap items-center gap-1.5">
			{#if practice.over}
				<a class="chalk font-semibold" href={resolve('/practice/[round]', { round: practice.id })}
					>How it was judged</a
				>
			{:else}
				<Button size="small" tone="solid" onclick={() => (open = true)}>At the tree</Button>
				<Button size="small" disabled={busy} onclick={() => void pass(1)}>Next day</Button>
				<Button size="small" disabled={busy} onclick={() => void pass(7)}>Next week</Button>
			{/if}
			<form method="POST" action="/practice?/leave" use:enhance>
				<Button type="submit" size="small" tone="quiet">Leave</Button>
			</form>
		</div>
	</div>
</section>
{#key practice.id}<AtTheTree bind:open {practice} />{/key}
