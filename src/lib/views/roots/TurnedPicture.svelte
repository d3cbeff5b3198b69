<script lang="ts">
	import type { Point2 } from '$core/examine/pictures/plane';
	import { barkRadiusMm } from '$core/roots/map/outline';
	import { arrowStep } from '$ui/arrow-step';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';
	import { MapZoom } from './map-zoom.svelte';
	import type { OnOffer, PictureRoots } from './picture-roots.svelte';
	import ZoomButtons from './ZoomButtons.svelte';

	/** The picture turned to its plane, as the map lies, with the roots that were read in it. */
	interface Props {
		from: PictureRoots;
		/** Address of the turned picture. */
		turned: string;
		/** Place of a root in words. */
		placeOf: (one: OnOffer) => string;
	}
	let { from, turned, placeOf }: Props = $props();
	const format = useFormat();
	let svg = $state<SVGSVGElement>();
	let ground = $state<SVGGElement>();
	const zoom = new MapZoom();
	$effect(() => svg && zoom.attach(svg, () => 1));

	const reach = $derived(from.read?.flat.reachMm ?? 100);
	/** The front of a container is drawn at the foot, as on the map. */
	const sign = $derived(from.map.frame === 'container' ? -1 : 1);
	/** Millimetres to a pixel of the screen, about. */
	const px = $derived((2 * reach) / 560 / zoom.k);
	const chosen = $derived(from.offers.find(({ id }) => id === from.chosenId) ?? null);
	/** The course of the chosen root while one of its points is dragged. */
	let mended = $state.raw<{ index: number; course: readonly Point2[] } | null>(null);
	const shownCourse = (one: OnOffer): readonly Point2[] =>
		mended && one.id === from.chosenId ? mended.course : one.root.course;
	const path = (points: readonly Point2[]): string =>
		points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join('');
	const tones: Record<OnOffer['says'], string> = {
		open: 'stroke-ochre',
		yes: 'stroke-lichen',
		no: 'stroke-slate',
		there: 'stroke-rain'
	};

	function planOf(event: PointerEvent | MouseEvent): Point2 | null {
		const matrix = ground?.getScreenCTM()?.inverse();
		if (!matrix) return null;
		const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
		return { x, y };
	}
	function hold(event: PointerEvent & { currentTarget: Element }, index: number): void {
		if (!chosen || event.button !== 0) return;
		event.stopPropagation();
		event.currentTarget.setPointerCapture(event.pointerId);
		mended = { index, course: chosen.root.course };
	}
	function drag(event: PointerEvent): void {
		const to = mended && planOf(event);
		if (mended && to)
			mended = { ...mended, course: mended.course.map((at, i) => (i === mended?.index ? to : at)) };
	}
	function letGo(): void {
		if (mended && chosen) void from.mend(chosen.id, mended.course);
		mended = null;
	}
	function nudge(event: KeyboardEvent, index: number): void {
		const step = arrowStep(event.key);
		if (!step || !chosen) return;
		event.preventDefault();
		const by = (event.shiftKey ? 10 : 2) * sign;
		const course = chosen.root.course.map((at, i) =>
			i === index ? { x: at.x + step[0] * by, y: at.y + step[1] * by } : at
		);
		void from.mend(chosen.id, course);
	}
	/** Base and end of a root that is traced by keys, mm of the map; null while none is. */
	let byKeys = $state.raw<readonly [Point2, Point2] | null>(null);
	const endNames = ['Base', 'End'] as const;
	function beginByKeys(): void {
		const far = barkRadiusMm(from.map, 0);
		from.base = null;
		byKeys = [
			{ x: 0, y: -far },
			{ x: 0, y: -Math.min(reach, far + 60) }
		];
	}
	function moveEnd(event: KeyboardEvent, which: number): void {
		if (event.key === 'Enter') {
			event.preventDefault();
			void readByKeys();
			return;
		}
		const step = arrowStep(event.key);
		if (!step || !byKeys) return;
		event.preventDefault();
		const by = (event.shiftKey ? 20 : 2) * sign;
		const moved = byKeys.map((at, i) =>
			i === which ? { x: at.x + step[0] * by, y: at.y + step[1] * by } : at
		);
		byKeys = [moved[0] ?? byKeys[0], moved[1] ?? byKeys[1]];
	}
	async function readByKeys(): Promise<void> {
		if (!byKeys) return;
		const [base, end] = byKeys;
		from.base = null;
		await from.trace(base);
		await from.trace(end);
		if (!from.problem) byKeys = null;
	}
	/** A press that was not a drag touches the base or the end of a root. */
	function touch(event: MouseEvent): void {
		if ((event.target as Element).closest('[data-root]')) return;
		const at = planOf(event);
		if (at) void from.trace(at);
	}
	const bark = $derived(
		Array.from({ length: 72 }, (_, i) => {
			const far = barkRadiusMm(from.map, i * 5);
			const turn = (i * 5 * Math.PI) / 180;
			return { x: far * Math.sin(turn), y: -far * Math.cos(turn) };
		})
	);
</script>

<div class="relative mt-2">
	<!-- By keyboard a root is traced with the two points that the button below begins. -->
	<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={svg}
		viewBox="{-reach} {-reach} {2 * reach} {2 * reach}"
		class="block w-full cursor-crosshair rounded-sm border bg-duff"
		style="max-height: calc(100vh - 14rem); touch-action: {zoom.k === 1 ? 'pan-x pan-y' : 'none'}"
		role="group"
		aria-label="The picture turned to its plane, {from.offers.length} roots read"
		onclick={touch}
	>
		<g transform={zoom.transform}>
			<g bind:this={ground} transform="scale({sign})">
				<image href={turned} x={-reach} y={-reach} width={2 * reach} height={2 * reach} />
				<path d="{path(bark)}Z" class="fill-none stroke-paper" stroke-width={2 * px} />
				{#each from.offers as one (one.id)}
					{@const course = shownCourse(one)}
					{@const isChosen = one.id === from.chosenId}
					<g
						data-root=""
						class="cursor-pointer"
						role="presentation"
						onclick={() => (from.chosenId = one.id)}
						opacity={one.says === 'no' ? 0.5 : 1}
					>
						<title>{placeOf(one)}</title>
						<path d={path(course)} class="fill-none stroke-transparent" stroke-width={14 * px} />
						<path
							d={path(course)}
							class="fill-none stroke-ink"
							stroke-opacity="0.65"
							stroke-width={(isChosen ? 7 : 5) * px}
							stroke-linecap="round"
						/>
						<path
							d={path(course)}
							class="fill-none {tones[one.says]}"
							stroke-width={(isChosen ? 4.5 : 2.5) * px}
							stroke-linecap="round"
							stroke-dasharray={one.says === 'open'
								? `${7 * px} ${5 * px}`
								: one.says === 'no'
									? `${px} ${6 * px}`
									: undefined}
						/>
					</g>
				{/each}
				{#if chosen && chosen.says !== 'there'}
					{#each shownCourse(chosen) as { x, y }, i (i)}
						<circle
							cx={x}
							cy={y}
							r={6 * px}
							data-root=""
							data-drag=""
							class="cursor-grab touch-none fill-oxide stroke-paper"
							stroke-width={1.5 * px}
							role="button"
							tabindex="0"
							aria-label="Point {i + 1} of {chosen.root.course.length} of the root: arrow keys move it"
							onpointerdown={(event) => hold(event, i)}
							onpointermove={drag}
							onpointerup={letGo}
							onpointercancel={() => (mended = null)}
							onkeydown={(event) => nudge(event, i)}
						/>
					{/each}
				{/if}
				{#if byKeys}
					<line
						x1={byKeys[0].x}
						y1={byKeys[0].y}
						x2={byKeys[1].x}
						y2={byKeys[1].y}
						class="stroke-oxide"
						stroke-width={2 * px}
						stroke-dasharray="{5 * px} {4 * px}"
					/>
					{#each byKeys as { x, y }, i (i)}
						<circle
							cx={x}
							cy={y}
							r={7 * px}
							data-root=""
							class="fill-oxide stroke-paper"
							stroke-width={2 * px}
							role="button"
							tabindex="0"
							aria-label="{endNames[
								i
							]} of the root that is traced: arrow keys move it, Enter reads the root between the two"
							onkeydown={(event) => moveEnd(event, i)}
						/>
					{/each}
				{/if}
				{#if from.base && !byKeys}
					<circle
						cx={from.base.x}
						cy={from.base.y}
						r={6 * px}
						class="fill-none stroke-oxide"
						stroke-width={3 * px}
					/>
				{/if}
			</g>
		</g>
	</svg>
	<div class="absolute top-1 right-1 flex flex-col rounded-md bg-leaf/85" role="group" aria-label="Zoom">
		<ZoomButtons {zoom} whole="Whole picture" />
	</div>
	<div class="mt-2 flex flex-wrap gap-2">
		{#if byKeys}
			<Button size="small" tone="solid" onclick={() => void readByKeys()}
				>Read the root between the two</Button
			>
			<Button size="small" onclick={() => (byKeys = null)}>Trace none</Button>
		{:else}
			<Button size="small" onclick={beginByKeys}>Trace a root by keys</Button>
		{/if}
	</div>
	<p class="mt-1 text-sm text-slate">
		{from.map.frame === 'container' ? 'The front is at the foot' : 'North is up'}; the ring is the trunk as it
		was measured, {format().measure(from.map.trunkDiameterMm, 'mm')}.
	</p>
</div>
