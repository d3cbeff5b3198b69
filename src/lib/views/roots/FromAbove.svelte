<script lang="ts">
	import { rootProtectionArea, structuralRootZoneRadiusM } from '$core/ground/zones';
	import { courseLengthMm, planPoint, polarOf, type PlanPoint } from '$core/roots/geometry';
	import { roman } from '$core/roots/plan';
	import { rootFlawNames, type CoursePoint, type Segment } from '$core/roots/root-map';
	import { ribbon, ribbonAt, ribbonOutline } from '$core/roots/ribbon';
	import { useFormat } from '$ui/format';
	import { clockOf } from '$core/circular/circular';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	const uid = $props.id();

	const SIZE = 500;
	const RING = 222;
	/** The course of a root while one of its points is dragged; it becomes a step when it is let go. */
	let drag = $state.raw<{ id: string; index: number; course: CoursePoint[] } | null>(null);
	const map = $derived(
		drag
			? {
					...roots.map,
					segments: roots.map.segments.map((segment) =>
						segment.id === drag?.id ? { ...segment, course: drag.course } : segment
					)
				}
			: roots.map
	);
	const trunkR = $derived(map.trunkDiameterMm / 2);
	const px = $derived((RING - 26) / Math.max(map.ballRadiusMm, trunkR * 1.6));
	/** The front of a container is drawn at 6 o'clock, north of the ground at 12. */
	const half = $derived(map.frame === 'container' ? 180 : 0);

	const at = (point: PlanPoint): PlanPoint => {
		const sign = half === 180 ? -1 : 1;
		return { x: point.x * px * sign, y: point.y * px * sign };
	};
	const screen = (azimuthDeg: number, radiusPx: number): PlanPoint =>
		planPoint({ azimuthDeg: azimuthDeg + half, radiusMm: radiusPx });
	const path = (points: PlanPoint[], closed = true): string =>
		points
			.map((p, i) => {
				const q = at(p);
				return `${i === 0 ? 'M' : 'L'}${q.x.toFixed(1)} ${q.y.toFixed(1)}`;
			})
			.join('') + (closed ? 'Z' : '');
	function arcPath(fromDeg: number, toDeg: number, radiusPx: number): string {
		const a = screen(fromDeg, radiusPx);
		const b = screen(toDeg, radiusPx);
		return `M${a.x.toFixed(1)} ${a.y.toFixed(1)}A${radiusPx} ${radiusPx} 0 ${toDeg - fromDeg > 180 ? 1 : 0} 1 ${b.x.toFixed(1)} ${b.y.toFixed(1)}`;
	}

	interface Drawn {
		segment: Segment;
		body: string;
		dead: string;
		centre: string;
		tips: string[];
		end: PlanPoint;
		mark: PlanPoint;
		across: [PlanPoint, PlanPoint];
		disc: PlanPoint;
	}
	/** Deepest first, so that an upper root breaks the one it crosses. */
	const drawn = $derived.by((): Drawn[] => {
		const deepest = [...map.segments].sort((a, b) => meanDepth(b) - meanDepth(a));
		return deepest.map((segment) => {
			const known = drawnBefore.get(segment);
			if (known?.px === px && known.half === half) return known.drawn;
			const made = drawRoot(segment);
			drawnBefore.set(segment, { px, half, drawn: made });
			return made;
		});
	});
	/** A root that did not change is not drawn anew: two hundred stay smooth while one is dragged. */
	const drawnBefore = new WeakMap<Segment, { px: number; half: number; drawn: Drawn }>();
	function drawRoot(segment: Segment): Drawn {
		const points = ribbon(segment);
		const total = points.at(-1)?.alongMm ?? 0;
		const deadFrom = segment.condition === 'dead' ? (segment.deadFromMm ?? 0) : Infinity;
		const cutAt =
			deadFrom < Infinity && deadFrom > 0
				? deadFrom
				: Math.min(total * 0.5, segment.diameterStartMm * 1.1 + 10 / px);
		const place = ribbonAt(points, cutAt) ?? points[0];
		const reach = (place?.halfWidthMm ?? 4) + 7 / px;
		const tilt = 0.35;
		const along = place ? { x: -place.ny, y: place.nx } : { x: 0, y: 0 };
		const stroke = (sign: 1 | -1): PlanPoint => ({
			x: (place?.x ?? 0) + sign * reach * ((place?.nx ?? 0) + tilt * along.x),
			y: (place?.y ?? 0) + sign * reach * ((place?.ny ?? 0) + tilt * along.y)
		});
		const end = points.at(-1) ?? { x: 0, y: 0 };
		const keepAt = ribbonAt(points, Math.min(total * 0.55, total)) ?? end;
		return {
			segment,
			body: deadFrom > 0 ? path(ribbonOutline(points, 0, Math.min(deadFrom, total))) : '',
			dead: deadFrom < total ? path(ribbonOutline(points, deadFrom, total)) : '',
			centre: path(points, false),
			tips: deadFrom < total ? [] : fineRoots(segment, points),
			end,
			mark: keepAt,
			across: [stroke(1), stroke(-1)],
			disc: { x: stroke(1).x + (place?.nx ?? 0) * (9 / px), y: stroke(1).y + (place?.ny ?? 0) * (9 / px) }
		};
	}
	const cutDone = (segment: Segment): boolean => {
		const treated = roots.treatment(segment);
		return treated.kind === 'cut' && treated.cut.state === 'done';
	};
	const meanDepth = (segment: Segment): number =>
		segment.course.reduce((sum, point) => sum + point.depthMm, 0) / segment.course.length;

	/** A few wandering hairs at the end of a living root, more where it carries more fine roots. */
	function fineRoots(segment: Segment, points: ReturnType<typeof ribbon>): string[] {
		const end = points.at(-1);
		const before = points.at(-3);
		if (!end || !before || segment.fineScore === 0) return [];
		const heading = Math.atan2(end.y - before.y, end.x - before.x);
		const count = segment.fineScore + 1;
		const reach = (10 + 3 * segment.fineScore) / px;
		return Array.from({ length: count }, (_, i) => {
			const spread = (i - (count - 1) / 2) * 0.42;
			const a = heading + spread;
			const b = heading + spread * 1.7 + (i % 2 ? 0.35 : -0.3);
			const mid = { x: end.x + Math.cos(a) * reach * 0.55, y: end.y + Math.sin(a) * reach * 0.55 };
			const tip = { x: mid.x + Math.cos(b) * reach * 0.5, y: mid.y + Math.sin(b) * reach * 0.5 };
			const [p, q, r] = [at(end), at(mid), at(tip)];
			return `M${p.x.toFixed(1)} ${p.y.toFixed(1)}Q${q.x.toFixed(1)} ${q.y.toFixed(1)} ${r.x.toFixed(1)} ${r.y.toFixed(1)}`;
		});
	}

	let svg = $state<SVGSVGElement>();
	const handled = $derived(
		drag
			? map.segments.find((segment) => segment.id === drag?.id)
			: roots.selected && !cutDone(roots.selected)
				? roots.selected
				: undefined
	);
	const handles = $derived((handled?.course ?? []).map((point) => at(planPoint(point))));
	const between = $derived(
		handles.slice(1).map((b, i) => {
			const a = handles[i] ?? b;
			return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
		})
	);
	/** A point of the course moved to a place in plan; where it leaves the trunk it stays on the bark. */
	function moved(
		course: readonly CoursePoint[],
		index: number,
		to: PlanPoint,
		ofTrunk: boolean
	): CoursePoint[] {
		return course.map((point, i) => {
			if (i !== index) return point;
			const { azimuthDeg, radiusMm } = polarOf(to);
			// The turn nearest to where it was, so that a course round the trunk stays one piece.
			const turn = ((((azimuthDeg - point.azimuthDeg) % 360) + 540) % 360) - 180;
			const near = point.azimuthDeg + turn;
			return {
				...point,
				azimuthDeg: near > 720 ? near - 360 : near < -360 ? near + 360 : near,
				radiusMm: ofTrunk && index === 0 ? Math.max(trunkR, 1) : Math.min(20_000, radiusMm)
			};
		});
	}
	function planOf(event: PointerEvent): PlanPoint | null {
		const matrix = svg?.getScreenCTM()?.inverse();
		if (!matrix) return null;
		const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
		const sign = half === 180 ? -1 : 1;
		return { x: (point.x / px) * sign, y: (point.y / px) * sign };
	}
	function grab(event: PointerEvent & { currentTarget: Element }, index: number, insert = false): void {
		if (!handled) return;
		event.currentTarget.setPointerCapture(event.pointerId);
		event.preventDefault();
		const { id, course } = handled;
		const [a, b] = [course[index], course[index + 1]];
		drag =
			insert && a && b
				? {
						id,
						index: index + 1,
						course: [
							...course.slice(0, index + 1),
							{
								azimuthDeg: (a.azimuthDeg + b.azimuthDeg) / 2,
								radiusMm: (a.radiusMm + b.radiusMm) / 2,
								depthMm: (a.depthMm + b.depthMm) / 2
							},
							...course.slice(index + 1)
						]
					}
				: { id, index, course };
	}
	function follow(event: PointerEvent): void {
		const to = drag && planOf(event);
		if (drag && to && handled)
			drag = { ...drag, course: moved(drag.course, drag.index, to, handled.parentId === null) };
	}
	function letGo(): void {
		if (drag && handled && handled.course.length <= 60) {
			const before = roots.map.segments.find((segment) => segment.id === drag?.id);
			if (before?.course !== drag.course && courseLengthMm(drag.course) >= 1)
				roots.change(drag.id, { course: drag.course });
		}
		drag = null;
	}
	/** Arrow keys move a point over the page; Delete takes it out. */
	function nudge(event: KeyboardEvent, index: number): void {
		const steps: Record<string, [number, number]> = {
			ArrowLeft: [-1, 0],
			ArrowRight: [1, 0],
			ArrowUp: [0, -1],
			ArrowDown: [0, 1]
		};
		const step = steps[event.key];
		const point = handled?.course[index];
		if (!handled || !point) return;
		if (step) {
			const by = (event.shiftKey ? 20 : 5) * (half === 180 ? -1 : 1);
			const from = planPoint(point);
			const to = { x: from.x + step[0] * by, y: from.y + step[1] * by };
			roots.change(handled.id, { course: moved(handled.course, index, to, handled.parentId === null) });
		} else if (event.key === 'Delete' && index > 0 && handled.course.length > 2)
			roots.change(handled.id, { course: handled.course.filter((_, i) => i !== index) });
		else return;
		event.preventDefault();
		event.stopPropagation();
	}

	const windows = $derived(roots.standing.ledger.windows);
	const clocks = Array.from({ length: 12 }, (_, i) => i * 30);
	/** Where there is room between the roots for a label. */
	const gapMiddle = $derived(
		roots.standing.ledger.before.gapFromDeg + roots.standing.ledger.before.gapDeg / 2
	);
	const zones = $derived.by(() => {
		if (map.frame !== 'ground') return [];
		const trunkM = map.trunkDiameterMm / 1000;
		const { values } = roots.options;
		return [
			{
				name: `${values['ground.noCutTrunkDiameters']} trunk diameters`,
				radiusMm: values['ground.noCutTrunkDiameters'] * map.trunkDiameterMm
			},
			{ name: 'structural root zone', radiusMm: structuralRootZoneRadiusM(trunkM, values) * 1000 },
			{ name: 'root protection area', radiusMm: rootProtectionArea(trunkM, values).radiusM * 1000 }
		].filter((zone) => zone.radiusMm * px < RING);
	});
	const describe = (segment: Segment): string => {
		const treated = roots.treatment(segment);
		return [
			`${format().clock(roots.clock(segment))}, ${format().measure(segment.diameterStartMm, 'mm')} ${segment.rootClass}`,
			segment.condition === 'dead' ? 'dead' : '',
			segment.flaws.map((flaw) => rootFlawNames[flaw]).join(', '),
			treated.kind === 'cut' ? `cut, stage ${roman(treated.cut.stage)}` : treated.kind
		]
			.filter(Boolean)
			.join('; ');
	};
	const selectedCarries = $derived(
		roots.selected ? (roots.standing.ledger.carried.get(roots.selected.id) ?? 0) : 0
	);
</script>

<div class="relative">
	<svg
		bind:this={svg}
		viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
		class="mx-auto block w-full max-w-[34rem]"
		role="group"
		aria-label="Roots seen from above, {map.segments.length} mapped"
	>
		<defs>
			<pattern
				id="{uid}-doubt"
				width="6"
				height="6"
				patternUnits="userSpaceOnUse"
				patternTransform="rotate(45)"
			>
				<rect width="6" height="6" class="fill-sapwood" /><path
					d="M0 0v6"
					class="stroke-bark"
					stroke-width="2.4"
				/>
			</pattern>
		</defs>
		{#if map.frame === 'container'}
			<circle r={map.ballRadiusMm * px} class="stroke-line" fill="none" stroke-width="2" />
		{/if}
		{#each zones as zone (zone.name)}
			<circle
				r={zone.radiusMm * px}
				fill="none"
				class="stroke-ochre"
				stroke-width="1.5"
				stroke-dasharray="2 5"
			/>
			{@const label = screen(gapMiddle, zone.radiusMm * px - 10)}
			<text
				x={label.x}
				y={label.y}
				text-anchor={Math.abs(label.x) < 40 ? 'middle' : label.x > 0 ? 'end' : 'start'}
				font-size="12.5"
				class="fill-ochre stroke-paper"
				stroke-width="3"
				paint-order="stroke">{zone.name}</text
			>
		{/each}

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

		{#each drawn as root (root.segment.id)}
			{@const gone = roots.standing.ledger.gone.has(root.segment.id)}
			{@const doubtful = root.segment.condition === 'doubtful'}
			<!-- By keyboard the list and j/k choose. -->
			<g
				class="cursor-pointer"
				role="presentation"
				onclick={() => (roots.selectedId = root.segment.id)}
				opacity={roots.selectedId === root.segment.id ? 1 : cutDone(root.segment) ? 0.38 : gone ? 0.7 : 1}
			>
				<title>{describe(root.segment)}</title>
				<path
					d={root.centre}
					fill="none"
					stroke="transparent"
					stroke-width={Math.max(16, root.segment.diameterStartMm * px + 8)}
				/>
				{#if roots.selectedId === root.segment.id}
					<path
						d={root.centre}
						fill="none"
						class="stroke-duff"
						stroke-width={root.segment.diameterStartMm * px + 18}
						stroke-linecap="round"
					/>
				{/if}
				{#if root.body}
					<path d={root.body} class="fill-paper stroke-paper" stroke-width="6" stroke-linejoin="round" />
				{/if}
				{#each root.tips as tip (tip)}
					<path d={tip} fill="none" class="stroke-bark" stroke-width="1.1" stroke-linecap="round" />
				{/each}
				{#if root.body}
					<path
						d={root.body}
						fill={doubtful ? `url(#${uid}-doubt)` : undefined}
						class={[doubtful ? '' : 'fill-sapwood', 'stroke-bark']}
						stroke-width={roots.selectedId === root.segment.id ? 2.8 : 1.6}
						stroke-linejoin="round"
					/>
				{/if}
				{#if root.dead}
					<path
						d={root.dead}
						class="fill-paper stroke-slate"
						fill-opacity="0.4"
						stroke-width="1.7"
						stroke-dasharray="2 4"
						stroke-linecap="round"
					/>
				{/if}
			</g>
		{/each}

		<circle r={trunkR * px} class="fill-bark stroke-paper" stroke-width="2" />
		{#each [0.78, 0.55, 0.3] as ring (ring)}
			<circle
				r={trunkR * px * ring}
				cx={trunkR * px * 0.06 * (1 - ring)}
				fill="none"
				class="stroke-paper"
				stroke-opacity="0.45"
				stroke-width="1"
			/>
		{/each}
		{#each map.segments as segment (segment.id)}
			{@const girdle = roots.girdling.get(segment.id)}
			{#if girdle && girdle.severity !== 'none' && !roots.standing.ledger.gone.has(segment.id)}
				{#each girdle.arcs as arc (arc.fromDeg)}
					<path
						d={arcPath(arc.fromDeg, arc.toDeg, trunkR * px)}
						fill="none"
						class="stroke-oxide"
						stroke-width="6"
					/>
				{/each}
			{/if}
		{/each}

		{#each drawn as root (root.segment.id)}
			{@const treated = roots.treatment(root.segment)}
			<g class="pointer-events-none">
				{#if treated.kind === 'cut'}
					{@const now = treated.cut.stage === 0}
					{@const a = at(root.across[0])}
					{@const b = at(root.across[1])}
					{@const c = at(root.disc)}
					<path d="M{a.x} {a.y}L{b.x} {b.y}" class="stroke-paper" stroke-width="9" stroke-linecap="round" />
					<path
						d="M{a.x} {a.y}L{b.x} {b.y}"
						class="stroke-oxide"
						stroke-width="5"
						stroke-linecap={now ? 'round' : 'butt'}
						stroke-dasharray={now ? undefined : '4 3'}
					/>
					<circle
						cx={c.x}
						cy={c.y}
						r="10.5"
						class={now ? 'fill-oxide stroke-paper' : 'fill-paper stroke-oxide'}
						stroke-width="2"
					/>
					<text
						x={c.x}
						y={c.y + 4.5}
						text-anchor="middle"
						font-size="12.5"
						font-weight="700"
						class={now ? 'fill-paper' : 'fill-oxide'}
					>
						{now ? (roots.cutNumbers.get(root.segment.id) ?? '') : roman(treated.cut.stage)}
					</text>
				{:else if treated.kind === 'trace'}
					{@const e = at(root.end)}
					<circle
						cx={e.x}
						cy={e.y}
						r="12"
						class="fill-paper stroke-ochre"
						stroke-width="2.2"
						stroke-dasharray="4 3"
					/>
					<text x={e.x} y={e.y + 5} text-anchor="middle" font-size="14" font-weight="700" class="fill-ochre"
						>?</text
					>
				{:else if treated.kind === 'keep'}
					{@const k = at(root.mark)}
					<!-- A small knot. -->
					<path
						d="M{k.x - 7} {k.y + 5}c0-8 14-8 14 0M{k.x + 7} {k.y - 4}c0 8-14 8-14 0"
						fill="none"
						class="stroke-paper"
						stroke-width="5"
						stroke-linecap="round"
					/>
					<path
						d="M{k.x - 7} {k.y + 5}c0-8 14-8 14 0M{k.x + 7} {k.y - 4}c0 8-14 8-14 0"
						fill="none"
						class="stroke-lichen"
						stroke-width="2.4"
						stroke-linecap="round"
					/>
				{/if}
			</g>
		{/each}
		{#if handled}
			<g data-handles>
				{#each between as point, index (index)}
					<circle
						cx={point.x}
						cy={point.y}
						r="5"
						class="cursor-copy touch-none fill-paper stroke-rain"
						stroke-width="1.5"
						stroke-dasharray="2.5 2"
						role="presentation"
						onpointerdown={(event) => grab(event, index, true)}
						onpointermove={follow}
						onpointerup={letGo}
						onpointercancel={() => (drag = null)}
					/>
				{/each}
				{#each handles as point, index (index)}
					<circle
						cx={point.x}
						cy={point.y}
						r="8"
						class="cursor-grab touch-none fill-rain stroke-paper"
						stroke-width="2"
						role="button"
						tabindex="0"
						aria-label="Point {index + 1} of {handles.length} of the root at {format().clock(
							roots.clock(handled)
						)}: arrow keys move it"
						onpointerdown={(event) => grab(event, index)}
						onpointermove={follow}
						onpointerup={letGo}
						onpointercancel={() => (drag = null)}
						onkeydown={(event) => nudge(event, index)}
					/>
				{/each}
			</g>
		{/if}
	</svg>
	<p class="min-h-10 text-center text-sm text-slate" aria-live="polite">
		{#if roots.selected}
			<strong class="text-ink">{describe(roots.selected)}</strong>; carries {format().percent(
				selectedCarries,
				1
			)} of the living root
		{:else}
			{map.frame === 'container' ? 'Front at 6' : 'North at 12'}; the ring is the anchorage of each direction
		{/if}
	</p>
</div>
