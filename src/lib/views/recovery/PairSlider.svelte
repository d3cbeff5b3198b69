<script lang="ts">
	import { resolve } from '$app/paths';
	import type { Picture } from '$core/take-in/picture';
	import { useFormat } from '$ui/format';

	/** Two pictures of one view, the later over the earlier, parted by a slider. */
	interface Props {
		before: Picture;
		after: Picture;
	}
	let { before, after }: Props = $props();
	const format = useFormat();
	let at = $state(50);
	const source = (picture: Picture): string => resolve('/pictures/[file]', { file: `${picture.hash}.jpg` });
</script>

<figure>
	<div
		class="relative overflow-hidden rounded-sm border bg-duff"
		style="aspect-ratio: {before.widthPx} / {before.heightPx}"
	>
		<img
			src={source(before)}
			alt="{before.view}, {format().date(before.takenOn)}"
			class="absolute inset-0 size-full object-cover"
		/>
		<img
			src={source(after)}
			alt="{after.view}, {format().date(after.takenOn)}"
			class="absolute inset-0 size-full object-cover"
			style="clip-path: inset(0 0 0 {at}%)"
		/>
		<span class="absolute inset-y-0 w-0.5 bg-paper" style="left: {at}%" aria-hidden="true"></span>
	</div>
	<input
		type="range"
		min="0"
		max="100"
		bind:value={at}
		aria-label="How much of the earlier picture is seen"
		class="mt-2 h-8 w-full accent-lichen"
	/>
	<figcaption class="flex justify-between text-sm">
		<span>{format().date(before.takenOn)}</span><span>{format().date(after.takenOn)}</span>
	</figcaption>
</figure>
