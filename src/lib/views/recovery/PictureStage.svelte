<script lang="ts">
	import type { Point2 } from '$core/examine/pictures/plane';
	import type { Picture } from '$core/take-in/picture';
	import { arrowStep } from '$ui/arrow-step';
	import { useFormat } from '$ui/format';
	import type { Snippet } from 'svelte';

	/** Points that were touched in a picture, and can be moved. */
	interface Touched {
		/** What they are, in one word. */
		name: string;
		points: readonly Point2[];
		tone: 'size' | 'thing' | 'light' | 'dark';
		/** Said of each in place of its number. */
		says?: string;
	}
	/** A picture in which is touched under a glass, what was touched, and what is drawn over it. */
	interface Props {
		picture: Picture;
		source: string;
		/** How wide it is shown, px of the screen. */
		shownWidthPx: number;
		groups: readonly Touched[];
		touch: (at: Point2) => void;
		move: (name: string, index: number, to: Point2) => void;
		/** Drawn over it, in pixels of the picture; so many of them to one of the screen. */
		over: Snippet<[number]>;
	}
	let { picture, source, shownWidthPx = $bindable(), groups, touch, move, over }: Props = $props();
	const format = useFormat();
	let stage = $state<HTMLElement>();
	/** Where the glass stands, px of the picture. */
	let glass = $state.raw<Point2 | null>(null);
	let held = $state.raw<{ name: string; index: number } | null>(null);
	const scale = $derived(shownWidthPx > 0 ? picture.widthPx / shownWidthPx : 1);
	const tones: Record<Touched['tone'], string> = {
		size: 'fill-rain stroke-paper',
		thing: 'fill-oxide stroke-paper',
		light: 'fill-[#fffaeb] stroke-[#262624]',
		dark: 'fill-[#262624] stroke-[#fffaeb]'
	};
	const GLASS_PX = 132;
	const GLASS_ZOOM = 3;

	function at(event: PointerEvent): Point2 | null {
		const box = stage?.getBoundingClientRect();
		if (!box) return null;
		return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale };
	}
	function press(event: PointerEvent): void {
		if (event.button !== 0) return;
		stage?.setPointerCapture(event.pointerId);
		glass = at(event);
		event.preventDefault();
	}
	function slide(event: PointerEvent): void {
		if (glass === null) return;
		glass = at(event);
		if (held && glass) move(held.name, held.index, glass);
	}
	function lift(event: PointerEvent): void {
		const to = at(event);
		if (glass !== null && to && !held) touch(to);
		glass = held = null;
	}
	function nudge(event: KeyboardEvent, { name, points }: Touched, index: number): void {
		const step = arrowStep(event.key);
		const point = points[index];
		if (!step || !point) return;
		const by = (event.shiftKey ? 20 : 2) * scale;
		move(name, index, { x: point.x + step[0] * by, y: point.y + step[1] * by });
		event.preventDefault();
	}
</script>

<div
	bind:this={stage}
	bind:clientWidth={shownWidthPx}
	class="relative mt-2 touch-none overflow-hidden rounded-sm border select-none"
	style="aspect-ratio: {picture.widthPx} / {picture.heightPx}; max-width: calc(max(30rem, 100vh - 18rem) * {picture.widthPx /
		picture.heightPx})"
	onpointerdown={press}
	onpointermove={slide}
	onpointerup={lift}
	onpointercancel={() => (glass = held = null)}
	role="presentation"
>
	<img
		src={source}
		alt="{picture.view}, {format().date(picture.takenOn)}"
		class="pointer-events-none size-full"
		draggable="false"
	/>
	<svg viewBox="0 0 {picture.widthPx} {picture.heightPx}" class="absolute inset-0 size-full">
		{@render over(scale)}
		{#each groups as group (group.name)}
			{#each group.points as { x, y }, i (i)}
				<circle
					cx={x}
					cy={y}
					r={7 * scale}
					class="cursor-grab touch-none {tones[group.tone]}"
					stroke-width={2 * scale}
					role="button"
					tabindex="0"
					aria-label="{group.says ?? `${group.name} ${i + 1} of ${group.points.length}`}: arrow keys move it"
					onpointerdown={() => (held = { name: group.name, index: i })}
					onkeydown={(event) => nudge(event, group, i)}
				/>
			{/each}
		{/each}
	</svg>
	{#if glass}
		<div
			class="pointer-events-none absolute rounded-full border-2 border-ink bg-duff"
			style="width: {GLASS_PX}px; height: {GLASS_PX}px; {glass.x < picture.widthPx / 2
				? 'right'
				: 'left'}: 8px; top: 8px; background-image: url({source}); background-size: {shownWidthPx *
				GLASS_ZOOM}px auto; background-position: {GLASS_PX / 2 - (glass.x / scale) * GLASS_ZOOM}px {GLASS_PX /
				2 -
				(glass.y / scale) * GLASS_ZOOM}px"
			aria-hidden="true"
		>
			<span class="absolute top-1/2 left-1/2 h-px w-6 -translate-x-1/2 bg-oxide"></span>
			<span class="absolute top-1/2 left-1/2 h-6 w-px -translate-y-1/2 bg-oxide"></span>
		</div>
	{/if}
</div>
