<script lang="ts">
	import { clockOf, turnDeg } from '$core/maths/circular';
	import { startAzimuth, type Segment } from '$core/roots/map/root-map';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { scaleLinear } from 'd3';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	const uid = $props.id();

	const WIDTH = 420;
	const HEIGHT = 168;
	const LEFT = 34;
	const map = $derived(roots.map);
	/** The front in the middle of a container; north in the middle in the ground. */
	const x = scaleLinear()
		.domain([-180, 180])
		.range([LEFT, WIDTH - 6]);
	const deepest = $derived(
		Math.max(40, ...map.segments.map((s) => (s.course[0]?.depthMm ?? 0) + s.diameterStartMm))
	);
	const y = $derived(
		scaleLinear()
			.domain([-deepest * 0.18, deepest])
			.range([14, HEIGHT - 22])
	);
	const pxPerMmX = $derived((WIDTH - LEFT - 6) / (Math.PI * map.trunkDiameterMm));
	const pxPerMmY = $derived(y(1) - y(0));
	const place = (deg: number): number => turnDeg(0, deg);
	/** Roots at the seam are drawn at both ends. */
	const drawn = $derived(
		map.segments.flatMap((segment) => {
			const deg = place(startAzimuth(segment));
			const halfDeg = (segment.diameterStartMm / 2 / (Math.PI * map.trunkDiameterMm)) * 360;
			const twin = deg + halfDeg > 180 ? deg - 360 : deg - halfDeg < -180 ? deg + 360 : null;
			return [
				{ segment, deg, key: segment.id },
				...(twin === null ? [] : [{ segment, deg: twin, key: `${segment.id}-seam` }])
			];
		})
	);
	/** Where the soil is to be, and where the ball ends, as far as they lie in the drawing. */
	const lines = $derived(
		[
			...(roots.plan.setting && roots.plan.setting.planeDepthMm !== 0
				? [
						{
							name: 'root plane',
							depthMm: roots.plan.setting.planeDepthMm,
							tone: 'stroke-lichen',
							dash: '10 4'
						}
					]
				: []),
			...(map.ballDepthMm === null
				? []
				: [{ name: 'under the ball', depthMm: map.ballDepthMm, tone: 'stroke-ink', dash: undefined }])
		].filter((line) => line.depthMm > -deepest * 0.18 && line.depthMm < deepest)
	);
	const marks = [-180, -90, 0, 90, 180];

	/** Stretches of a root that lie against the trunk, as bands. */
	function band(segment: Segment): string {
		const near = segment.course.filter(
			(point) => point.radiusMm <= map.trunkDiameterMm / 2 + segment.diameterStartMm * 1.5
		);
		if (near.length < 3) return '';
		let before: number | null = null;
		return near
			.map((point) => {
				const deg = place(point.azimuthDeg);
				const jump: boolean = before === null || Math.abs(deg - before) > 180;
				before = deg;
				return `${jump ? 'M' : 'L'}${x(deg).toFixed(1)} ${y(point.depthMm).toFixed(1)}`;
			})
			.join('');
	}
</script>

<svg
	viewBox="0 0 {WIDTH} {HEIGHT}"
	class="block w-full"
	role="group"
	aria-label="Unrolled collar: roots by direction and depth below the flare"
>
	<defs>
		<clipPath id="{uid}-clip"><rect x={LEFT} y="0" width={WIDTH - LEFT - 6} height={HEIGHT - 18} /></clipPath>
		<pattern
			id="{uid}-doubt"
			width="5"
			height="5"
			patternUnits="userSpaceOnUse"
			patternTransform="rotate(45)"
		>
			<rect width="5" height="5" class="fill-sapwood" /><path
				d="M0 0v5"
				class="stroke-bark"
				stroke-width="2.2"
			/>
		</pattern>
	</defs>
	<rect x={LEFT} y="2" width={WIDTH - LEFT - 6} height={y(0) - 2} class="fill-bark" />
	{#each roundMarks(y.domain(), 'mm', format(), 4).filter((tick) => tick >= 0) as tick (tick)}
		<line x1={LEFT} x2={WIDTH - 6} y1={y(tick)} y2={y(tick)} class="stroke-line" />
		<text x={LEFT - 5} y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
			>{format().number(
				format().unitOf('mm').toShown(tick),
				format().settings.units === 'imperial' ? 1 : 0
			)}</text
		>
	{/each}
	{#each marks as deg (deg)}
		<text
			x={x(deg)}
			y={HEIGHT - 5}
			text-anchor={deg === -180 ? 'start' : deg === 180 ? 'end' : 'middle'}
			font-size="13"
			font-weight="650"
			class="fill-slate">{clockOf(deg, map.frame)}</text
		>
	{/each}
	{#each lines as line (line.name)}
		<path
			d="M{LEFT} {y(line.depthMm)}H{WIDTH - 6}"
			class={line.tone}
			stroke-width="1.6"
			stroke-dasharray={line.dash}
		/>
	{/each}
	<g clip-path="url(#{uid}-clip)">
		{#each drawn as { segment, deg, key } (key)}
			{@const depth = segment.course[0]?.depthMm ?? 0}
			{@const treated = roots.treatment(segment)}
			{@const rx = Math.max(3, (segment.diameterStartMm / 2) * pxPerMmX)}
			{@const ry = Math.max(3, (segment.diameterStartMm / 2) * pxPerMmY)}
			{@const strip = segment.flaws.includes('girdling') ? band(segment) : ''}
			{@const allDead = segment.condition === 'dead' && (segment.deadFromMm ?? 0) === 0}
			<!-- By keyboard the list and j/k choose. -->
			<g
				class="cursor-pointer"
				role="presentation"
				opacity={treated.kind === 'cut' && treated.cut.state === 'done' ? 0.5 : 1}
				onclick={() => (roots.selectedId = segment.id)}
			>
				<title
					>{format().clock(roots.clock(segment))}, {format().measure(segment.diameterStartMm, 'mm')}</title
				>
				{#if roots.selectedId === segment.id}
					<ellipse
						cx={x(deg)}
						cy={y(depth)}
						rx={rx + 7}
						ry={ry + 7}
						class="fill-duff stroke-ink"
						stroke-width="1.5"
					/>
				{/if}
				{#if strip}
					<path
						d={strip}
						fill="none"
						class="stroke-oxide"
						stroke-width={ry * 1.2 + 4}
						stroke-linejoin="round"
						stroke-linecap="round"
					/>
					<path
						d={strip}
						fill="none"
						class="stroke-sapwood"
						stroke-width={ry * 1.2}
						stroke-linejoin="round"
						stroke-linecap="round"
					/>
				{/if}
				<ellipse
					cx={x(deg)}
					cy={y(depth)}
					{rx}
					{ry}
					fill={segment.condition === 'doubtful' ? `url(#${uid}-doubt)` : undefined}
					class={[
						allDead ? 'fill-paper stroke-slate' : 'stroke-bark',
						!allDead && segment.condition !== 'doubtful' && 'fill-sapwood'
					]}
					stroke-width="1.6"
					stroke-dasharray={allDead ? '2 3' : undefined}
				/>
				{#if treated.kind === 'cut'}
					<path
						d="M{x(deg) - 9} {y(depth) + 9}l18-18"
						class="stroke-oxide"
						stroke-width="3.5"
						stroke-dasharray={treated.cut.stage === 0 ? undefined : '4 3'}
					/>
				{:else if treated.kind === 'trace'}
					<text
						x={x(deg)}
						y={y(depth) + 5}
						text-anchor="middle"
						font-size="14"
						font-weight="700"
						class="fill-ochre">?</text
					>
				{/if}
			</g>
		{/each}
	</g>
	{#each lines as line (line.name)}
		<text
			x={WIDTH - 10}
			y={y(line.depthMm) - 3}
			text-anchor="end"
			font-size="12.5"
			class="pointer-events-none fill-ink stroke-paper"
			stroke-width="3"
			paint-order="stroke">{line.name}</text
		>
	{/each}
</svg>
