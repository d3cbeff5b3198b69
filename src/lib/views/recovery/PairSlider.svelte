<script lang="ts">
	import { resolve } from '$app/paths';
	import type { Picture } from '$core/take-in/picture';
	import { useFormat } from '$ui/format';
	import LinedUpSlider from './LinedUpSlider.svelte';

	/** Two pictures of one view, the later over the earlier, parted by a slider. */
	interface Props {
		before: Picture;
		after: Picture;
		/** The earlier as it lies over the later, once the two are lined up. */
		over?: string;
	}
	let { before, after, over = '' }: Props = $props();
	const format = useFormat();
	let at = $state(50);
	const source = (picture: Picture): string => resolve('/pictures/[file]', { file: `${picture.hash}.jpg` });
</script>

<figure>
	<div
		class="relative overflow-hidden rounded-sm border bg-duff"
		style="aspect-ratio: {after.widthPx} / {after.heightPx}"
	>
		<img
			src={over || source(before)}
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
	<figcaption>
		<LinedUpSlider bind:at before={format().date(before.takenOn)} after={format().date(after.takenOn)} />
	</figcaption>
</figure>
