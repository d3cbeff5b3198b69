<script lang="ts">
	import { addDays, daysBetween } from '$core/maths/calendar';
	import type { LineMark, LineOfCare } from '$core/tree/line-of-care';
	import { useFormat } from '$ui/format';
	import {
		area,
		curveMonotoneX,
		line as lineShape,
		scaleUtc,
		select,
		utcYear,
		utcMonth,
		zoom,
		zoomIdentity,
		type D3ZoomEvent,
		type ZoomBehavior
	} from 'd3';

	interface Props {
		care: LineOfCare;
	}
	let { care }: Props = $props();
	const format = useFormat();

	/** Without a curve to show the line takes only the room of its marks. */
	const HEIGHT = $derived(care.leafCover.length > 0 || care.expected.length > 0 ? 118 : 66);
	const AXIS = 30;
	const CURVE = { top: 66, bottom: 112 };
	let width = $state(1240);
	let svg = $state<SVGSVGElement>();
	let transform = $state.raw(zoomIdentity);
	let behaviour: ZoomBehavior<SVGSVGElement, unknown> | null = null;

	const closedOn = $derived(care.marks.find((mark) => mark.kind === 'verdict')?.on);
	const at = (date: string): Date => new Date(`${date}T00:00:00Z`);
	const base = $derived.by(() => {
		const narrow = width < 640;
		// On a phone the line shrinks to the present year, or to the last one of a closed case.
		const [back, ahead] = closedOn ? [305, 60] : [150, 215];
		const middle = closedOn ?? care.today;
		const later = (a: string, b: string): string => (a > b ? a : b);
		const from = narrow ? later(care.span.from, addDays(middle, -back)) : care.span.from;
		const end = addDays(middle, ahead);
		const to = narrow && end < care.span.to ? end : care.span.to;
		return scaleUtc()
			.domain([at(from), at(to)])
			.range([14, width - 14]);
	});
	const x = $derived(transform.rescaleX(base));
	const years = $derived(x.ticks(utcYear));
	const months = $derived.by(() => {
		const [from, to] = x.domain();
		return from && to && +to - +from < 500 * 86_400_000
			? x.ticks(utcMonth).filter((tick) => tick.getUTCMonth() !== 0)
			: [];
	});
	const shares = (value: number): number => CURVE.bottom - value * (CURVE.bottom - CURVE.top);
	const band = $derived(
		area<LineOfCare['expected'][number]>()
			.x((point) => x(at(point.on)))
			.y0((point) => shares(point.low))
			.y1((point) => shares(point.high))
			.curve(curveMonotoneX)(care.expected) ?? ''
	);
	const middle = $derived(
		lineShape<LineOfCare['expected'][number]>()
			.x((point) => x(at(point.on)))
			.y((point) => shares(point.expected))
			.curve(curveMonotoneX)(care.expected) ?? ''
	);
	const cover = $derived(
		lineShape<{ on: string; value: number }>()
			.x((point) => x(at(point.on)))
			.y((point) => shares(point.value))
			// A winter without leaves, or a long time without a look, breaks the line.
			.defined((point, index, all) => {
				const before = all[index - 1];
				return !before || daysBetween(before.on, point.on) < 120;
			})(care.leafCover) ?? ''
	);
	const named: LineMark['kind'][] = [
		'verdict',
		'stage-done',
		'stage-planned',
		'planted',
		'taken-in',
		'examined'
	];
	const todayX = $derived(x(at(care.today)));
	const endX = $derived(closedOn ? x(at(closedOn)) : todayX);
	/** Labels under the line, most telling first, none over another. */
	const labels = $derived.by(() => {
		const taken: [number, number][] = [[todayX - 24, todayX + 24]];
		const placed: { x: number; text: string; key: string }[] = [];
		const ordered = [...care.marks]
			.filter((mark) => named.includes(mark.kind))
			.sort((a, b) => named.indexOf(a.kind) - named.indexOf(b.kind));
		for (const mark of ordered) {
			const middleX = x(at(mark.on));
			const half = mark.label.length * 3.5 + 5;
			const left = Math.max(half, Math.min(width - half, middleX));
			if (middleX < 0 || middleX > width || taken.some(([a, b]) => left + half > a && left - half < b))
				continue;
			taken.push([left - half, left + half]);
			placed.push({ x: left, text: mark.label, key: mark.kind + mark.on + mark.label });
		}
		return placed;
	});

	$effect(() => {
		if (!svg) return;
		behaviour = zoom<SVGSVGElement, unknown>()
			.scaleExtent([0.3, 14])
			.filter((event: Event) => {
				// The page keeps its own scrolling: the wheel zooms only with Ctrl or Shift held.
				if (event.type === 'wheel') return (event as WheelEvent).ctrlKey || (event as WheelEvent).shiftKey;
				return event.type !== 'dblclick';
			})
			.on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => (transform = event.transform));
		select(svg).call(behaviour).style('touch-action', 'pan-y');
	});
	function onkeydown(event: KeyboardEvent): void {
		if (!svg || !behaviour || event.ctrlKey || event.metaKey) return;
		const line = select(svg);
		if (event.key === '+' || event.key === '=') behaviour.scaleBy(line, 1.5, [todayX, 0]);
		else if (event.key === '-') behaviour.scaleBy(line, 1 / 1.5, [todayX, 0]);
		else if (event.key === 'ArrowLeft') behaviour.translateBy(line, 80 / transform.k, 0);
		else if (event.key === 'ArrowRight') behaviour.translateBy(line, -80 / transform.k, 0);
		else if (event.key === '0') behaviour.transform(line, zoomIdentity);
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	const summary = $derived(
		`Line of care. ${care.marks
			.filter((mark) => named.includes(mark.kind))
			.map((mark) => `${format().day(mark.on)}: ${mark.label}`)
			.join('; ')}.`
	);
</script>

<div bind:clientWidth={width}>
	<!-- It zooms by keyboard. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={svg}
		viewBox="0 0 {width} {HEIGHT}"
		{width}
		height={HEIGHT}
		class="block w-full cursor-grab overflow-hidden active:cursor-grabbing"
		role="img"
		aria-label={summary}
		tabindex="0"
		{onkeydown}
	>
		{#each care.seasons as season (season.from)}
			<rect
				x={x(at(season.from))}
				y={AXIS - 12}
				width={Math.max(0, x(at(season.to)) - x(at(season.from)))}
				height="24"
				class="fill-duff"
			/>
		{/each}
		{#each months as tick (+tick)}
			<path d="M{x(tick)} {AXIS - 4}v8" class="stroke-line" />
		{/each}
		{#each years as tick (+tick)}
			<path d="M{x(tick)} {AXIS - 18}v36" class="stroke-slate" stroke-width="1" />
			{@const last = x(tick) > width - 40}
			<text
				x={x(tick) + (last ? -5 : 5)}
				y={AXIS - 15}
				text-anchor={last ? 'end' : 'start'}
				font-size="12.5"
				class="fill-slate">{tick.getUTCFullYear()}</text
			>
		{/each}
		<path
			d="M{x(at(care.span.from))} {AXIS}H{Math.max(x(at(care.span.from)), endX)}"
			class="stroke-ink"
			stroke-width="4"
		/>
		<path
			d="M{endX} {AXIS}H{Math.max(endX, x(at(care.span.to)))}"
			class="stroke-slate"
			stroke-width="2"
			stroke-dasharray="1 6"
			stroke-linecap="round"
		/>

		<path d={band} class="fill-lichen" opacity="0.22" />
		<path d={middle} fill="none" class="stroke-lichen" stroke-width="1.5" stroke-dasharray="5 4" />
		<path d={cover} fill="none" class="stroke-lichen" stroke-width="2.5" />
		{#each care.leafCover as point, i (i)}
			<circle cx={x(at(point.on))} cy={shares(point.value)} r="1.8" class="fill-lichen" />
		{/each}

		{#each care.marks as mark, index (mark.kind + mark.on + index)}
			{@const px = x(at(mark.on))}
			<g transform="translate({px} {AXIS})">
				<title>{format().day(mark.on)}: {mark.label}</title>
				{#if mark.kind === 'look'}
					<circle r="3.4" class="fill-paper stroke-ink" stroke-width="1.6" />
				{:else if mark.kind === 'picture'}
					<path d="M-4.5-21h9v7h-9z" class="fill-paper stroke-slate" stroke-width="1.4" />
				{:else if mark.kind === 'taken-in' || mark.kind === 'examined'}
					<circle r="6" class="fill-ink stroke-paper" stroke-width="1.5" />
				{:else if mark.kind === 'planted'}
					<path d="M-6-5h12l-2 11h-8z" class="fill-paper stroke-ink" stroke-width="2" />
				{:else if mark.kind === 'due'}
					<circle r="4" class="fill-paper stroke-ink" stroke-width="1.5" />
				{:else if mark.kind === 'stage-done'}
					<path d="M-5-12L6 12" class="stroke-oxide" stroke-width="5" stroke-linecap="round" />
				{:else if mark.kind === 'stage-planned'}
					<path d="M-5-12L6 12" class="stroke-oxide" stroke-width="5" stroke-dasharray="5 4" />
				{:else}
					<path d="M0-11L9 0L0 11L-9 0Z" class="fill-paper stroke-lichen" stroke-width="2.5" />
				{/if}
			</g>
		{/each}
		{#each labels as label (label.key)}
			<text
				x={label.x}
				y={AXIS + 27}
				text-anchor="middle"
				font-size="12.5"
				class="fill-slate stroke-paper"
				stroke-width="3"
				paint-order="stroke">{label.text}</text
			>
		{/each}
		<path d="M{todayX} {AXIS - 22}V{HEIGHT - 4}" class="stroke-oxide" stroke-width="2" />
		<text
			x={todayX}
			y={AXIS + 27}
			text-anchor={todayX > width - 40 ? 'end' : 'middle'}
			font-size="12.5"
			font-weight="650"
			class="fill-oxide stroke-paper"
			stroke-width="4"
			paint-order="stroke">today</text
		>
		{#if care.leafCover.length > 0 || care.expected.length > 0}
			<text
				x={Math.min(width - 8, Math.max(todayX + 10, 60))}
				y={HEIGHT - 5}
				font-size="12.5"
				class="fill-lichen stroke-paper"
				stroke-width="3"
				paint-order="stroke"
			>
				{#if todayX < width - 330}
					{care.leafCover.length > 0 ? 'line: leaf cover measured' : ''}{care.leafCover.length > 0 &&
					care.expected.length > 0
						? '; '
						: ''}{care.expected.length > 0 ? 'band: root function expected' : ''}
				{/if}
			</text>
		{/if}
	</svg>
</div>
