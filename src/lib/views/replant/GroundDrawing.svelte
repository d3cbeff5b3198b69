<script lang="ts">
	import { isStructural } from '$core/roots/map/shares';
	import type { GroundAmounts, GroundPlanInput } from '$core/replant/ground/ground-plan';
	import { courseDrawnOn } from '$core/replant/ground/loosening';
	import { planPoint, type PlanPoint } from '$core/roots/map/geometry';
	import type { Obstacle, Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';

	/** The works from above, to scale, north at the top: trenches or holes between the structural roots, collar, mulch. */
	interface Props {
		plan: GroundPlanInput;
		amounts: GroundAmounts;
		segments: readonly Segment[];
		/** Kerbs, walls and stones of the map. */
		obstacles?: readonly Obstacle[];
		trunkDiameterMm: number;
		zones: { srzM: number };
	}
	let { plan, amounts, segments, obstacles = [], trunkDiameterMm, zones }: Props = $props();
	const format = useFormat();
	const uid = $props.id();
	const SIZE = 420;
	const reachM = $derived(
		Math.max(
			1,
			(plan.hole?.widthMm ?? 0) / 2000,
			plan.loosening?.outerM ?? 0,
			plan.mulch?.outerM ?? 0,
			(plan.collar?.openMm ?? 0) / 1000 + trunkDiameterMm / 2000,
			plan.loosening ? zones.srzM : 0
		) * 1.08
	);
	const px = $derived(SIZE / 2 / (reachM * 1000));
	const structural = $derived(segments.filter(isStructural));
	const line = (points: readonly PlanPoint[]): string =>
		points
			.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${(x * px).toFixed(1)} ${(y * px).toFixed(1)}`)
			.join('');
	const m = (value: number): string => format().measure(value, 'm');
	/** A round length for the scale bar. */
	const barM = $derived(
		[0.25, 0.5, 1, 2, 5].reduce((best, step) => (step <= reachM / 2 ? step : best), 0.25)
	);
</script>

<svg
	viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
	class="block w-full max-w-lg"
	role="img"
	aria-label="Works from above: {amounts.loosening
		? `${amounts.loosening.count} ${amounts.loosening.method}`
		: 'no loosening'}{plan.mulch ? `, mulch to ${m(plan.mulch.outerM)}` : ''}"
>
	<defs>
		<pattern id="{uid}-mulch" width="9" height="9" patternUnits="userSpaceOnUse"
			><path d="M1 2l4 1M5 7l3-2" class="stroke-edge" stroke-width="1.2" /></pattern
		>
	</defs>
	{#if plan.mulch}
		<path
			d="M{-plan.mulch.outerM * 1000 * px} 0a{plan.mulch.outerM * 1000 * px} {plan.mulch.outerM *
				1000 *
				px} 0 1 0 {2 * plan.mulch.outerM * 1000 * px} 0a{plan.mulch.outerM * 1000 * px} {plan.mulch.outerM *
				1000 *
				px} 0 1 0 {-2 * plan.mulch.outerM * 1000 * px} 0ZM{-plan.mulch.innerM * 1000 * px} 0a{plan.mulch
				.innerM *
				1000 *
				px} {plan.mulch.innerM * 1000 * px} 0 1 1 {2 * plan.mulch.innerM * 1000 * px} 0a{plan.mulch.innerM *
				1000 *
				px} {plan.mulch.innerM * 1000 * px} 0 1 1 {-2 * plan.mulch.innerM * 1000 * px} 0Z"
			fill="url(#{uid}-mulch)"
			fill-rule="evenodd"
			class="stroke-edge"
			stroke-width="1"
		/>
	{/if}
	{#if plan.hole}
		<circle r={(plan.hole.widthMm / 2) * px} class="fill-duff stroke-bark" stroke-width="2" />
		<circle
			r={(plan.hole.ballDiameterMm / 2) * px}
			class="fill-sapwood stroke-bark"
			stroke-width="2"
			stroke-dasharray="4 3"
		/>
	{/if}
	{#if plan.loosening}
		<circle
			r={zones.srzM * 1000 * px}
			fill="none"
			class="stroke-ochre"
			stroke-dasharray="7 5"
			stroke-width="1.5"
		/>
	{/if}
	{#each obstacles as obstacle (obstacle.id)}
		<path
			d="{line(obstacle.points.map((point) => planPoint(point)))}{obstacle.kind === 'stone' ? 'Z' : ''}"
			class={obstacle.kind === 'stone' ? 'fill-line stroke-slate' : 'fill-none stroke-slate'}
			stroke-width={obstacle.kind === 'stone' ? 1.5 : 4}
			><title>{obstacle.kind}{obstacle.note ? `: ${obstacle.note}` : ''}</title></path
		>
	{/each}
	{#each structural as root (root.id)}
		{@const course = courseDrawnOn(root, (plan.loosening?.outerM ?? 0) * 1000)}
		<path
			d={line(course.seen)}
			fill="none"
			class="stroke-bark"
			stroke-width={Math.max(2.5, root.diameterStartMm * px)}
			stroke-linecap="round"
		/>
		{#if course.on.length > 0}
			<path d={line(course.on)} fill="none" class="stroke-bark" stroke-width="1.5" stroke-dasharray="2 4" />
		{/if}
	{/each}
	{#if plan.loosening}
		{@const { innerM, outerM, widthMm } = plan.loosening}
		{#each amounts.loosening?.trenches ?? [] as trench, i (i)}
			<rect
				x={(-widthMm / 2) * px}
				y={-outerM * 1000 * px}
				width={widthMm * px}
				height={(outerM - innerM) * 1000 * px}
				transform="rotate({trench.azimuthDeg})"
				class={trench.skipped ? 'fill-transparent stroke-oxide' : 'fill-rain stroke-rain'}
				fill-opacity="0.25"
				stroke-width="2"
				stroke-dasharray={trench.skipped ? '4 4' : undefined}
			/>
		{/each}
		{#each amounts.loosening?.holes ?? [] as hole, i (i)}
			<circle
				cx={hole.x * px}
				cy={hole.y * px}
				r={Math.max(2.2, (widthMm / 2) * px)}
				class="fill-rain"
				fill-opacity="0.5"
			/>
		{/each}
	{/if}
	{#if plan.collar}
		<circle
			r={(trunkDiameterMm / 2 + plan.collar.openMm) * px}
			fill="none"
			class="stroke-oxide"
			stroke-width="2.5"
			stroke-dasharray="2 5"
			stroke-linecap="round"
		/>
	{/if}
	<circle r={Math.max(3, (trunkDiameterMm / 2) * px)} class="fill-bark" />
	{#if plan.loosening}
		<!-- Inside the ring, where nothing is dug, and over whatever is drawn there. -->
		<text
			x="0"
			y={-zones.srzM * 1000 * px + 17}
			text-anchor="middle"
			font-size="12.5"
			class="fill-ochre"
			style="paint-order: stroke; stroke: var(--leaf); stroke-width: 4px"
			>structural root zone {m(zones.srzM)}</text
		>
	{/if}
	<text x="0" y={-SIZE / 2 + 14} text-anchor="middle" font-size="13" class="fill-slate">N</text>
	<path d="M{-SIZE / 2 + 8} {SIZE / 2 - 10}h{barM * 1000 * px}" class="stroke-ink" stroke-width="3" />
	<text x={-SIZE / 2 + 8} y={SIZE / 2 - 16} font-size="12.5" class="fill-slate">{m(barM)}</text>
</svg>
