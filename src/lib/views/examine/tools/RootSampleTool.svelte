<script lang="ts">
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/maths/circular';
	import { nextSamplePlace, rootSample, sampleSaid } from '$core/examine/measuring/root-sample';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import type { ToolProps } from './tool';

	let { tree, values, onread }: ToolProps = $props();
	const format = useFormat();
	/** Roots in the order drawn; true is alive. */
	let drawn = $state<boolean[]>([]);
	const alive = $derived(drawn.filter(Boolean).length);
	const result = $derived(
		drawn.length > 0 ? rootSample({ alive, dead: drawn.length - alive }, values) : null
	);
	const place = $derived(nextSamplePlace(drawn.length));
	const depth = $derived(
		place.depthShare < 0.34 ? 'near the top' : place.depthShare < 0.67 ? 'half way down' : 'near the floor'
	);
	$effect(() => onread(drawn.length > 0 ? { tool: 'root-sample', alive, dead: drawn.length - alive } : null));
	const some = $derived(1 - values['measuring.dead-some']);
	const many = $derived(1 - values['measuring.dead-many']);
	const pc = (share: number): string => `${share * 100}%`;
</script>

<p>
	Take the next root at <strong
		>{format().clock(clockOf(place.azimuthDeg, tree.situation === 'in-ground' ? 'ground' : 'container'))}, {depth}</strong
	>. Pull gently: alive is firm, pale inside, and its skin stays on; dead is dark, soft, or slips like a sock.
</p>
<p class="mt-2 text-sm">
	Or from a picture of the wall of its ball, measured in: <a
		class="chalk"
		href={resolve('/trees/[id]/recovery/pictures', { id: tree.id })}>the pictures</a
	>.
</p>
<div class="mt-4 grid grid-cols-2 gap-3">
	<button
		type="button"
		class="min-h-28 rounded-md border-2 border-lichen font-display text-3xl font-semibold text-lichen hover:bg-lichen/15 active:bg-lichen/30"
		onclick={() => drawn.push(true)}>Alive<span class="block text-2xl">{alive}</span></button
	>
	<button
		type="button"
		class="min-h-28 rounded-md border-2 border-dashed border-oxide font-display text-3xl font-semibold text-oxide hover:bg-oxide/15 active:bg-oxide/30"
		onclick={() => drawn.push(false)}>Dead<span class="block text-2xl">{drawn.length - alive}</span></button
	>
</div>
<div class="mt-2 flex gap-2">
	<Button size="small" disabled={drawn.length === 0} onclick={() => drawn.pop()}>Last one back</Button>
	<Button size="small" tone="quiet" disabled={drawn.length === 0} onclick={() => (drawn = [])}
		>Begin again</Button
	>
</div>
{#if result}
	<div class="mt-5 max-w-xl">
		<p class="text-lg">
			<Workings
				label="Living share of the roots"
				formula="Wilson 95 % interval of alive ÷ drawn"
				lines={[
					{ label: 'Alive, drawn', value: `${alive} of ${drawn.length}` },
					{ label: 'From', value: format().percent(result.low) },
					{ label: 'To', value: format().percent(result.high) },
					{
						label: 'Some are dead from',
						value: format().percent(values['measuring.dead-some']),
						mark: markOf('measuring.dead-some')
					},
					{
						label: 'Many are dead from',
						value: format().percent(values['measuring.dead-many']),
						mark: markOf('measuring.dead-many')
					}
				]}
				changes="Wilson 1927. More roots make the interval narrower; drawing where it looks worst makes it wrong."
				><strong>{format().percent(result.liveShare)}</strong></Workings
			>
			alive, between {format().percent(result.low)} and {format().percent(result.high)}.
		</p>
		<div class="relative mt-2 h-8" aria-hidden="true">
			<div class="absolute inset-x-0 top-3 h-2 rounded-sm bg-duff"></div>
			<span
				class="absolute top-3 h-2 rounded-sm bg-lichen"
				style="left: {pc(result.low)}; width: {pc(result.high - result.low)}"
			></span>
			<span
				class="absolute top-1.5 h-5 w-1 -translate-x-1/2 rounded-sm bg-ink"
				style="left: {pc(result.liveShare)}"
			></span>
			{#each [some, many] as limit (limit)}
				<span class="absolute top-0 h-8 border-l-2 border-dashed border-ochre" style="left: {pc(limit)}"
				></span>
			{/each}
		</div>
		<div class="relative h-5 text-xs text-slate" aria-hidden="true">
			<span class="absolute -translate-x-1/2" style="left: {pc(many / 2)}">many dead</span>
			<span class="absolute -translate-x-1/2" style="left: {pc((some + many) / 2)}">some</span>
		</div>
		<p class="mt-2 font-semibold" role="status">
			{sampleSaid(result)}
		</p>
	</div>
{/if}
