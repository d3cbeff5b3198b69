<script lang="ts">
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/maths/circular';
	import { planPoint, type PlanPoint } from '$core/roots/map/geometry';
	import { outlineRing, stemsOf } from '$core/roots/map/outline';
	import { ribbon, ribbonOutline } from '$core/roots/map/ribbon';
	import type { Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';
	import CourseHandles from './CourseHandles.svelte';
	import { drawRoot, onPage, pathOf, type DrawnRoot, type MapScale } from './draw-root';
	import MapGround from './MapGround.svelte';
	import { MapZoom } from './map-zoom.svelte';
	import RootMarks from './RootMarks.svelte';
	import RootShape from './RootShape.svelte';
	import type { RootsState } from './roots-state.svelte';
	import ZoneLabels from './ZoneLabels.svelte';
	import ZoomButtons from './ZoomButtons.svelte';

	interface Props {
		roots: RootsState;
		/** The picture under the map, turned to it; null where none lies there. */
		under?: { address: string; reachMm: number } | null;
	}
	let { roots, under = null }: Props = $props();
	const format = useFormat();
	const uid = $props.id();

	const SIZE = 500;
	const RING = 222;
	let svg = $state<SVGSVGElement>();
	let ground = $state<SVGGElement>();
	const zoom = new MapZoom();
	const map = $derived(roots.map);
	const stems = $derived(stemsOf(roots.map));
	const widest = $derived(
		Math.max(...stems.flatMap((stem) => outlineRing(stem).map(({ x, y }) => Math.hypot(x, y))))
	);
	/** Bare roots may reach farther than the ball is wide. */
	const farthest = $derived(
		Math.max(0, ...roots.map.segments.flatMap(({ course }) => course.map(({ radiusMm }) => radiusMm)))
	);
	/** The front of a container is drawn at 6 o'clock, north of the ground at 12. */
	const scale = $derived<MapScale>({
		px:
			(RING - 26) /
			Math.max(
				roots.map.ballRadiusMm,
				widest * 1.6,
				roots.map.frame === 'container' ? Math.min(farthest, 4 * roots.map.ballRadiusMm) : 0
			),
		sign: roots.map.frame === 'container' ? -1 : 1
	});
	$effect(() => {
		// In the ground the view opens as far as the protection area, in a shared pot as far as the others.
		const least =
			roots.map.frame === 'ground'
				? Math.min(1, RING / (12 * roots.map.trunkDiameterMm * scale.px))
				: roots.mates.length > 0
					? 0.4
					: 1;
		return svg && zoom.attach(svg, () => least);
	});

	const screen = (azimuthDeg: number, radiusPx: number): PlanPoint =>
		onPage(planPoint({ azimuthDeg, radiusMm: radiusPx }), { px: 1, sign: scale.sign });
	function arcPath(fromDeg: number, toDeg: number, radiusPx: number): string {
		const a = screen(fromDeg, radiusPx);
		const b = screen(toDeg, radiusPx);
		return `M${a.x.toFixed(1)} ${a.y.toFixed(1)}A${radiusPx} ${radiusPx} 0 ${toDeg - fromDeg > 180 ? 1 : 0} 1 ${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
	}

	/** A root that did not change is not drawn anew: two hundred stay smooth while one is dragged. */
	const drawnBefore = new WeakMap<Segment, { scale: MapScale; cut: string; drawn: DrawnRoot }>();
	/** Where it is cut, or is to be. */
	const cutOn = (segment: Segment): { atMm: number; done: boolean } | null => {
		const treated = roots.treatment(segment);
		return treated.kind === 'cut' ? { atMm: treated.cut.atMm, done: treated.cut.state === 'done' } : null;
	};
	/** Deepest first, so that an upper root breaks the one it crosses. */
	const drawn = $derived.by((): DrawnRoot[] => {
		const deepest = [...map.segments].sort((a, b) => meanDepth(b) - meanDepth(a));
		return deepest.map((segment) => {
			const known = drawnBefore.get(segment);
			const place = cutOn(segment);
			const cut = place ? `${place.atMm} ${place.done}` : '';
			if (known?.scale === scale && known.cut === cut) return known.drawn;
			const made = drawRoot(segment, scale, place);
			drawnBefore.set(segment, { scale, cut, drawn: made });
			return made;
		});
	});
	/** The root whose point is dragged. */
	const moving = $derived.by(() => {
		const segment =
			roots.draft && roots.drawnMap.segments.find((candidate) => candidate.id === roots.draft?.id);
		return segment ? drawRoot(segment, scale, cutOn(segment)) : null;
	});
	const meanDepth = (segment: Segment): number =>
		segment.course.reduce((sum, point) => sum + point.depthMm, 0) / segment.course.length;
	const cutDone = (segment: Segment): boolean => {
		const treated = roots.treatment(segment);
		return treated.kind === 'cut' && treated.cut.state === 'done';
	};
	const handled = $derived(roots.selected && !cutDone(roots.selected) ? roots.selected : undefined);

	function planOf(event: PointerEvent): PlanPoint | null {
		const matrix = ground?.getScreenCTM()?.inverse();
		if (!matrix) return null;
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
		return { x: (point.x / scale.px) * scale.sign, y: (point.y / scale.px) * scale.sign };
	}

	/** A side root drawn off the chosen root, while it is dragged. */
	let side = $state.raw<{ attachMm: number; from: PlanPoint; to: PlanPoint } | null>(null);
	const SIDE_FROM_PX = 10;
	const sideLong = $derived(
		side !== null &&
			Math.hypot(side.to.x - side.from.x, side.to.y - side.from.y) * scale.px * zoom.k > SIDE_FROM_PX
	);
	function beginSide(event: PointerEvent & { currentTarget: Element }, root: DrawnRoot): void {
		if (root.segment.id !== handled?.id || event.button !== 0) return;
		const at = planOf(event);
		if (!at) return;
		const near = root.points.reduce((best, point) =>
			Math.hypot(point.x - at.x, point.y - at.y) < Math.hypot(best.x - at.x, best.y - at.y) ? point : best
		);
		event.currentTarget.setPointerCapture(event.pointerId);
		side = { attachMm: Math.round(near.alongMm), from: near, to: at };
	}
	function drawSide(event: PointerEvent): void {
		const to = side && planOf(event);
		if (side && to) side = { ...side, to };
	}
	function endSide(): void {
		if (side && sideLong && handled) roots.addSide(handled.id, { attachMm: side.attachMm, to: side.to });
		side = null;
	}

	const windows = $derived(roots.standing.ledger.windows);
	const clocks = Array.from({ length: 12 }, (_, i) => i * 30);
	/** Where there is room between the roots for a label. */
	const gapMiddle = $derived(
		roots.standing.ledger.before.gapFromDeg + roots.standing.ledger.before.gapDeg / 2
	);
	const selectedCarries = $derived(
		roots.selected ? (roots.standing.ledger.carried.get(roots.selected.id) ?? 0) : 0
	);
	/** Where the name of a tree that stands at the edge of the drawing is whole in sight. */
	const inView = ({ x, y }: PlanPoint): PlanPoint => {
		const within = (at: number, shift: number, room: number): number =>
			Math.abs(at * zoom.k + shift) > SIZE / 2 + 24
				? at
				: (Math.max(-SIZE / 2 + room, Math.min(SIZE / 2 - room, at * zoom.k + shift)) - shift) / zoom.k;
		return { x: within(x, zoom.x, 22), y: within(y, zoom.y, 14) };
	};
	const LABEL_LONG = 130;
	/** A label is whole in sight there, and does not lie across the ring. */
	const inSight = (at: PlanPoint): boolean => {
		const [x, y] = [zoom.x + at.x * zoom.k, zoom.y + at.y * zoom.k];
		const middled = Math.abs(at.x) * zoom.k < 40;
		const long = LABEL_LONG / zoom.k;
		const ends = middled ? [at.x - long / 2, at.x + long / 2] : [at.x, at.x - Math.sign(at.x) * long];
		const far = ends.map((end) => Math.hypot(end, at.y));
		const across = ends.some((end) => end > 0) && ends.some((end) => end < 0);
		return (
			Math.abs(x) < SIZE / 2 - (middled ? LABEL_LONG / 2 : 10) &&
			Math.abs(y) < SIZE / 2 - 14 &&
			(Math.max(...far) < RING - 6 ||
				Math.min(...far, across ? Math.abs(at.y) : Infinity) > RING + 10 / zoom.k)
		);
	};
	const front = $derived(roots.plan.setting?.frontDeg ?? 0);
</script>

{#snippet pressing(segment: Segment)}
	{@const girdle = roots.girdling.get(segment.id)}
	{#if girdle && girdle.severity !== 'none' && !roots.standing.ledger.gone.has(segment.id)}
		{#each girdle.stretches as stretch, index (index)}
			<path d={pathOf(stretch, scale, false)} fill="none" class="stroke-oxide" stroke-width={6 / zoom.k} />
		{/each}
	{/if}
{/snippet}

<div class="relative">
	<!-- Its arcs change with every move of a root: on a layer of their own, so that the roots are not painted again. -->
	<svg
		viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
		class={[
			'pointer-events-none absolute inset-x-0 top-0 mx-auto block w-full max-w-[34rem]',
			roots.draft && 'will-change-transform'
		]}
		aria-hidden="true"
	>
		<g transform={zoom.transform}>
			{#each windows as window (window.azimuthDeg)}
				{@const share = window.left}
				<path
					d={arcPath(window.azimuthDeg - 12.5, window.azimuthDeg + 12.5, RING)}
					fill="none"
					class={window.short ? 'stroke-oxide' : 'stroke-bark'}
					stroke-width={share === null ? 1 : 1.5 + share * 8}
					stroke-dasharray={window.short ? '6 4' : share === null ? '1 4' : undefined}
					opacity={window.short ? 1 : 0.75}
				/>
			{/each}
		</g>
	</svg>
	<svg
		bind:this={svg}
		viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
		class={['relative mx-auto block w-full max-w-[34rem]', zoom.k === 1 ? '' : 'cursor-move']}
		style:touch-action={zoom.k === 1 ? 'pan-x pan-y' : 'none'}
		role="group"
		aria-label="Roots seen from above, {map.segments.length} mapped"
	>
		<defs>
			<pattern
				id="{uid}-doubt"
				width="6"
				height="6"
				patternUnits="userSpaceOnUse"
				patternTransform="rotate(45) scale({1 / zoom.k})"
			>
				<rect width="6" height="6" class="fill-sapwood" /><path
					d="M0 0v6"
					class="stroke-bark"
					stroke-width="2.4"
				/>
			</pattern>
		</defs>
		<g bind:this={ground} transform={zoom.transform}>
			{#if under}
				{@const far = under.reachMm * scale.px}
				<image
					href={under.address}
					x={-far}
					y={-far}
					width={2 * far}
					height={2 * far}
					transform="scale({scale.sign})"
					opacity="0.85"
				/>
			{/if}
			<MapGround {map} {scale} values={roots.options.values} zoom={zoom.k} ends={roots.options.ends} />

			{#each roots.mates as mate (mate.id)}
				<a
					href={resolve('/trees/[id]/roots', { id: mate.id })}
					aria-label="{mate.tag} {mate.name}, in the same pot"
					class="opacity-55"
				>
					{#each mate.segments as segment (segment.id)}
						<path
							d={pathOf(ribbonOutline(ribbon(segment)), scale)}
							class="fill-none stroke-slate"
							stroke-width={1.3 / zoom.k}
							stroke-dasharray="{1.5 / zoom.k} {2.5 / zoom.k}"
						/>
					{/each}
					{#each mate.stems as stem (stem.id)}
						<path
							d={pathOf(outlineRing(stem), scale)}
							class="fill-line stroke-slate"
							stroke-width={1.5 / zoom.k}
						/>
						{@const middle = inView(onPage(planPoint(stem.centre), scale))}
						<text
							transform="translate({middle.x} {middle.y + 4}) scale({1 / zoom.k})"
							text-anchor="middle"
							font-size="12.5"
							font-weight="650"
							class="fill-ink">{mate.tag}</text
						>
					{/each}
				</a>
			{/each}
			{#each clocks as azimuth (azimuth)}
				{@const p = screen(azimuth, RING + 18)}
				{@const hour = clockOf(azimuth, map.frame)}
				<text
					x={p.x}
					y={p.y + 5}
					text-anchor="middle"
					class={hour % 3 === 0 ? 'fill-ink font-display' : 'fill-slate'}
					font-size={hour % 3 === 0 ? 16 : 13}
					font-weight={hour % 3 === 0 ? 650 : 400}>{hour}</text
				>
			{/each}
			{#if front !== 0 && map.frame === 'container'}
				{@const eye = screen(front, RING + 2)}
				<path
					d="M{eye.x} {eye.y}m-8 0a9 6 0 0 1 16 0a9 6 0 0 1-16 0"
					class="fill-paper stroke-rain"
					stroke-width="2"
				/>
				<circle cx={eye.x} cy={eye.y} r="2.6" class="fill-rain"
					><title>The front that was chosen</title></circle
				>
			{/if}

			{#each drawn as root (root.segment.id)}
				{@const gone = roots.standing.ledger.gone.has(root.segment.id)}
				{@const chosen = roots.selectedId === root.segment.id}
				<!-- By keyboard the list and j/k choose. -->
				<g
					class={[chosen ? 'cursor-crosshair touch-none' : 'cursor-pointer']}
					role="presentation"
					data-drag={chosen ? '' : undefined}
					onclick={() => (roots.selectedId = root.segment.id)}
					onpointerdown={(event) => beginSide(event, root)}
					onpointermove={drawSide}
					onpointerup={endSide}
					onpointercancel={() => (side = null)}
					opacity={moving && chosen ? 0.15 : chosen ? 1 : gone ? (cutDone(root.segment) ? 0.38 : 0.7) : 1}
				>
					<title>{roots.describe(root.segment, format())}</title>
					<path
						d={root.centre}
						fill="none"
						stroke="transparent"
						stroke-width={Math.max(16 / zoom.k, root.segment.diameterStartMm * scale.px + 8 / zoom.k)}
					/>
					<RootShape {root} {scale} zoom={zoom.k} {chosen} doubt="{uid}-doubt" />
				</g>
			{/each}

			{#each stems as stem (stem.id)}
				{@const middle = onPage(planPoint(stem.centre), scale)}
				{@const ring = outlineRing(stem)}
				<path d={pathOf(ring, scale)} class="fill-bark stroke-paper" stroke-width={2 / zoom.k} />
				{#each [0.78, 0.55, 0.3] as part (part)}
					<path
						d={pathOf(ring, scale)}
						transform="translate({middle.x * (1 - part)} {middle.y * (1 - part)}) scale({part})"
						fill="none"
						class="stroke-paper"
						stroke-opacity="0.45"
						stroke-width={1 / zoom.k / part}
					/>
				{/each}
			{/each}
			{#each map.segments as segment (segment.id)}
				{#if segment.id !== moving?.segment.id}{@render pressing(segment)}{/if}
			{/each}

			{#each drawn as root (root.segment.id)}
				<RootMarks {roots} {root} zoom={zoom.k} />
			{/each}
			<ZoneLabels
				{map}
				{scale}
				values={roots.options.values}
				zoom={zoom.k}
				labelDeg={gapMiddle}
				seen={inSight}
			/>
		</g>
	</svg>
	<!-- What moves while it is dragged lies on a layer of its own, so that the other roots are not painted again. -->
	<svg
		viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
		class="no-print pointer-events-none absolute inset-x-0 top-0 mx-auto block w-full max-w-[34rem] will-change-transform"
		role="group"
		aria-label="Points of the chosen root"
	>
		<g transform={zoom.transform}>
			{#if moving}
				<RootShape root={moving} {scale} zoom={zoom.k} chosen doubt="{uid}-doubt" />
				{@render pressing(moving.segment)}
			{/if}
			{#if side && sideLong}
				{@const [a, b] = [onPage(side.from, scale), onPage(side.to, scale)]}
				<path
					d="M{a.x} {a.y}L{b.x} {b.y}"
					class="stroke-rain"
					stroke-width={4 / zoom.k}
					stroke-dasharray="{6 / zoom.k} {4 / zoom.k}"
				/>
			{/if}
			{#if handled}
				<g class="pointer-events-auto">
					<CourseHandles {roots} segment={handled} {map} {scale} zoom={zoom.k} {planOf} />
				</g>
			{/if}
		</g>
	</svg>
	<div class="no-print absolute top-1 right-0 flex flex-col" role="group" aria-label="Zoom of the map">
		<ZoomButtons {zoom} whole="Whole map" />
	</div>
	<p class="min-h-10 text-center text-sm text-slate" aria-live="polite">
		{#if roots.selected}
			<strong class="text-ink">{roots.describe(roots.selected, format())}</strong>; carries {format().percent(
				selectedCarries,
				1
			)} of the living root
		{:else}
			{map.frame === 'container' ? 'Front at 6' : 'North at 12'}; the ring is the anchorage of each direction
		{/if}
	</p>
</div>
