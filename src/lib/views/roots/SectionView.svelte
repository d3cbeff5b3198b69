<script lang="ts">
	import { clockOf, turnDeg } from '$core/maths/circular';
	import { differentFronts, rankFronts } from '$core/roots/setting/fronts';
	import {
		alongOf,
		ballDepthOf,
		ballWedges,
		costOfAngle,
		sectionLine,
		splitTilt,
		stance
	} from '$core/roots/setting/setting';
	import { tilted } from '$core/roots/map/geometry';
	import { TILT_LIMIT_DEG, type Setting } from '$core/roots/plan/plan';
	import type { Segment } from '$core/roots/map/root-map';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Slider from '$ui/Slider.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { line as lineOf } from 'd3';
	import type { RootsState } from './roots-state.svelte';

	/** The tree cut through along its tilt: what the angle raises, what it sinks, what it costs and whether it stands. */
	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	const uid = $props.id();
	const WIDTH = 500;
	/** Room for the drawing; what is lower is cut off the page. */
	const MOST = 320;

	let moving = $state.raw<Partial<Setting>>({});
	const setting = $derived({ ...roots.setting, ...moving });
	const map = $derived(roots.map);
	const values = $derived(roots.options.values);
	const heightM = $derived(roots.options.tree.heightM);
	const ballDepth = $derived(ballDepthOf(map));
	const px = $derived(
		Math.min(
			(WIDTH / 2 - 20) / (map.ballRadiusMm * 1.05),
			(MOST - 130) / (ballDepth + map.ballRadiusMm * Math.sin((setting.tiltDeg * Math.PI) / 180) * 0.8)
		)
	);
	const x = (alongMm: number): number => WIDTH / 2 + alongMm * px;
	const y = (depthMm: number): number => 112 + depthMm * px;
	const path = lineOf<{ alongMm: number; depthMm: number }>(
		(p) => x(p.alongMm),
		(p) => y(p.depthMm)
	);

	const planned = $derived(roots.plan.cuts.filter((cut) => cut.state !== 'left'));
	const cost = $derived(costOfAngle(map, setting, values, planned));
	const outOf = $derived(new Map(cost.out.map((out) => [out.segmentId, out])));
	const above = $derived(cost.out.filter((out) => out.where === 'above'));
	const below = $derived(cost.out.filter((out) => out.where === 'below'));
	const room = $derived(Math.max(0, (roots.focus?.allowed ?? 0) - (roots.focus?.loss ?? 0)));
	const split = $derived(splitTilt(map, setting, room, values, planned));
	const wedges = $derived(ballWedges(map.ballRadiusMm, ballDepth, setting));
	const stands = $derived(stance(map, setting, heightM, values));
	const ball = $derived(
		[
			[-map.ballRadiusMm, 0],
			[map.ballRadiusMm, 0],
			[map.ballRadiusMm, ballDepth],
			[-map.ballRadiusMm, ballDepth]
		].map(([along = 0, depth = 0]) => tilted(along, depth, setting.tiltDeg))
	);
	const HEIGHT = $derived(
		Math.min(MOST, 28 + Math.max(y(setting.baseDepthMm), ...ball.map((corner) => y(corner.depthMm))))
	);
	const trunk = $derived.by(() => {
		const half = map.trunkDiameterMm / 2;
		const up = Math.min(95 / px, map.trunkDiameterMm * 5);
		const leanRad = ((map.lean?.deg ?? 0) * Math.PI) / 180;
		const out =
			up *
			Math.sin(leanRad) *
			Math.cos((turnDeg(setting.tiltTowardDeg, map.lean?.towardDeg ?? 0) * Math.PI) / 180);
		const rise = up * Math.cos(leanRad);
		return [
			tilted(-half, 4, setting.tiltDeg),
			tilted(out - half * 0.6, -rise, setting.tiltDeg),
			tilted(out + half * 0.6, -rise, setting.tiltDeg),
			tilted(half, 4, setting.tiltDeg)
		];
	});
	/** Those farthest from the cut first. */
	const lines = $derived(
		[...map.segments]
			.sort((a, b) => aside(b) - aside(a))
			.map((segment) => ({
				segment,
				d: path(sectionLine(segment, setting.tiltTowardDeg, setting.tiltDeg)) ?? ''
			}))
	);
	function aside(segment: Segment): number {
		const end = segment.course.at(-1);
		return end ? Math.abs(end.radiusMm) - Math.abs(alongOf(end, setting.tiltTowardDeg)) : 0;
	}
	const at = (azimuthDeg: number): string =>
		format().clock(clockOf(azimuthDeg, map.frame)).replace(':00', '');
	const mm = (value: number): string => format().measure(value, 'mm');
	const fronts = $derived(differentFronts(rankFronts(map, values), 3));
	const most = $derived(Math.max(0.05, room * 1.3, ...split.byDegree.map((point) => point.livingShare)));
	const chart = {
		x: (deg: number): number => 28 + (deg / Math.max(1, setting.tiltDeg)) * 262,
		y: (share: number): number => 54 - (share / most) * 46
	};
	function move(patch: Partial<Setting>): void {
		moving = { ...moving, ...patch };
	}
	function settle(patch: Partial<Setting>): void {
		const next = { ...roots.setting, ...moving, ...patch };
		moving = {};
		const { thisTimeDeg } = splitTilt(map, next, room, values, planned);
		roots.set({ ...next, thisTimeDeg });
	}
	/** Cuts for the part of the tilt that is done this time. */
	function planCuts(): void {
		const now = costOfAngle(map, { ...setting, tiltDeg: split.thisTimeDeg }, values, planned);
		roots.cutFor(
			now.out.map((out) => ({
				segmentId: out.segmentId,
				atMm: out.atMm,
				reason: `${out.where === 'above' ? 'stands out of' : 'lies under'} the ${out.where === 'above' ? 'root plane' : 'base'} at ${Math.round(split.thisTimeDeg)}° toward ${at(setting.tiltTowardDeg)}`
			}))
		);
	}
	const nowOut = $derived(costOfAngle(map, { ...setting, tiltDeg: split.thisTimeDeg }, values, planned).out);
</script>

<svg
	viewBox="0 0 {WIDTH} {HEIGHT}"
	class="mx-auto block w-full max-w-[34rem]"
	role="group"
	aria-label="Section from {at(setting.tiltTowardDeg + 180)} to {at(setting.tiltTowardDeg)} o’clock"
>
	<defs>
		<pattern
			id="{uid}-shave"
			width="7"
			height="7"
			patternUnits="userSpaceOnUse"
			patternTransform="rotate(45)"
		>
			<path d="M0 0v7" class="stroke-oxide" stroke-width="2" />
		</pattern>
		<clipPath id="{uid}-under"
			><rect x="0" y={y(setting.baseDepthMm)} width={WIDTH} height={HEIGHT} /></clipPath
		>
		<clipPath id="{uid}-over"
			><rect
				x="0"
				y={-HEIGHT}
				width={WIDTH}
				height={HEIGHT + Math.max(0, y(setting.planeDepthMm))}
			/></clipPath
		>
	</defs>
	<path d="{path(ball)}Z" class="fill-duff stroke-line" stroke-width="1.5" />
	<path d="{path(ball)}Z" fill="url(#{uid}-shave)" clip-path="url(#{uid}-under)" />
	<path d="{path(ball)}Z" fill="url(#{uid}-shave)" clip-path="url(#{uid}-over)" />
	{#each lines as { segment, d } (segment.id)}
		{@const out = outOf.get(segment.id)}
		{@const width = Math.min(26, Math.max(2, ((segment.diameterStartMm + segment.diameterEndMm) / 2) * px))}
		{@const dead = segment.condition === 'dead'}
		<g
			class="cursor-pointer"
			role="presentation"
			onclick={() => (roots.selectedId = segment.id)}
			opacity={roots.standing.ledger.gone.has(segment.id) && roots.selectedId !== segment.id ? 0.4 : 1}
		>
			<title>{roots.describe(segment, format())}</title>
			<path {d} fill="none" stroke="transparent" stroke-width={Math.max(16, width + 6)} />
			{#if roots.selectedId === segment.id}
				<path
					{d}
					fill="none"
					class="stroke-ink"
					stroke-width={width + 9}
					stroke-linecap="round"
					opacity="0.35"
				/>
			{/if}
			<path
				{d}
				fill="none"
				class={out ? 'stroke-oxide' : 'stroke-bark'}
				stroke-width={width + 2.5}
				stroke-linecap="round"
			/>
			<path
				{d}
				fill="none"
				class={dead ? 'stroke-paper' : 'stroke-sapwood'}
				stroke-width={width}
				stroke-linecap="round"
				stroke-dasharray={out ? '5 4' : undefined}
			/>
		</g>
	{/each}
	<path d="{path(trunk)}Z" class="fill-bark" />
	<g font-size="12.5">
		<path
			d="M8 {y(setting.planeDepthMm)}H{WIDTH - 8}"
			class="stroke-lichen"
			stroke-width="2"
			stroke-dasharray="10 4"
		/>
		<text
			x={WIDTH - 8}
			y={y(setting.planeDepthMm) - 5}
			text-anchor="end"
			class="fill-lichen stroke-paper"
			stroke-width="3"
			paint-order="stroke">root plane</text
		>
		<path d="M8 {y(setting.baseDepthMm)}H{WIDTH - 8}" class="stroke-ink" stroke-width="1.5" />
		<text
			x={WIDTH - 8}
			y={y(setting.baseDepthMm) + 14}
			text-anchor="end"
			class="fill-ink stroke-paper"
			stroke-width="3"
			paint-order="stroke">base</text
		>
		<text x="8" y="14" class="fill-slate" font-size="14" font-weight="650"
			>{at(setting.tiltTowardDeg + 180)} o’clock</text
		>
		<text x={WIDTH - 8} y="14" text-anchor="end" class="fill-slate" font-size="14" font-weight="650"
			>{at(setting.tiltTowardDeg)} o’clock</text
		>
	</g>
	{#if stands}
		{@const cx = x(stands.middleAlongMm)}
		{@const cy = Math.max(10, y(setting.baseDepthMm - stands.middleAboveBaseMm))}
		<path
			d="M{x(stands.baseFromMm)} {y(setting.baseDepthMm)}H{x(stands.baseToMm)}"
			class={stands.stands ? 'stroke-ink' : 'stroke-oxide'}
			stroke-width="6"
		/>
		<path
			d="M{cx} {cy}V{y(setting.baseDepthMm)}"
			class={stands.stands ? 'stroke-ink' : 'stroke-oxide'}
			stroke-dasharray="3 3"
		/>
		<path
			d="M{cx} {cy - 7}l6 7l-6 7l-6-7z"
			class={['stroke-paper', stands.stands ? 'fill-ink' : 'fill-oxide']}
			stroke-width="1.5"><title>Middle of its mass</title></path
		>
	{/if}
</svg>

<div class="mt-1 flex flex-col">
	<Slider
		label="Tilt its top by"
		value={setting.tiltDeg}
		min={0}
		max={TILT_LIMIT_DEG}
		shown="{Math.round(setting.tiltDeg)}°"
		oninput={(tiltDeg) => move({ tiltDeg })}
		onchange={(tiltDeg) => settle({ tiltDeg })}
	/>
	<Slider
		label="toward"
		value={setting.tiltTowardDeg % 360}
		min={0}
		max={345}
		step={15}
		shown="{at(setting.tiltTowardDeg)} o’clock"
		oninput={(tiltTowardDeg) => move({ tiltTowardDeg })}
		onchange={(tiltTowardDeg) => settle({ tiltTowardDeg })}
	/>
	<Slider
		label="Root plane"
		value={setting.planeDepthMm}
		min={-Math.round(map.trunkDiameterMm / 2)}
		max={Math.round(ballDepth * 0.7)}
		shown="{mm(Math.abs(setting.planeDepthMm))} {setting.planeDepthMm < 0 ? 'above' : 'under'}"
		oninput={(planeDepthMm) => move({ planeDepthMm })}
		onchange={(planeDepthMm) => settle({ planeDepthMm })}
	/>
	<Slider
		label="Base"
		value={setting.baseDepthMm}
		min={10}
		max={Math.round(ballDepth * 1.2 + map.ballRadiusMm * Math.sin((setting.tiltDeg * Math.PI) / 180))}
		shown="{mm(setting.baseDepthMm)} under"
		oninput={(baseDepthMm) => move({ baseDepthMm })}
		onchange={(baseDepthMm) => settle({ baseDepthMm })}
	/>
</div>

<section aria-label="What the angle costs" class="mt-2 border-t pt-2 text-sm">
	<p>
		{above.length} root{above.length === 1 ? ' stands' : 's stand'} out of the plane, {below.length} lie{below.length ===
		1
			? 's'
			: ''} under the base; beyond the plan that costs
		<Workings
			label="Living root that the angle costs"
			formula="what the roots carry beyond where they leave the soil or the base"
			lines={[
				...cost.out.slice(0, 12).map((out) => {
					const segment = map.segments.find((candidate) => candidate.id === out.segmentId);
					return {
						label: segment ? roots.describe(segment, format()) : '',
						value: `${out.where}, from ${mm(out.atMm)}`
					};
				}),
				{
					label: 'a root counts as standing out from',
					value: `${format().percent(values['setting.aboveShare'])} of its length`,
					mark: markOf('setting.aboveShare')
				}
			]}
			changes="Depths along the courses. Where quick entry sketched them, they are only as good as its words."
			><strong>{format().percent(cost.livingShare)}</strong></Workings
		>
		of the living root; {format().percent(room)} may still go {roots.focus && roots.focus.stage > 0
			? 'then'
			: 'now'}.
	</p>
	{#if setting.tiltDeg >= 1}
		<svg
			viewBox="0 0 300 70"
			class="mt-1 block w-full max-w-md"
			role="img"
			aria-label="Living root that each degree costs, up to {Math.round(setting.tiltDeg)}°"
		>
			<path
				d={lineOf<{ tiltDeg: number; livingShare: number }>(
					(point) => chart.x(point.tiltDeg),
					(point) => chart.y(point.livingShare)
				)(split.byDegree) ?? ''}
				fill="none"
				class="stroke-ink"
				stroke-width="2"
			/>
			<path d="M28 {chart.y(room)}h262" class="stroke-oxide" stroke-dasharray="4 3" stroke-width="1.5" />
			<path d="M{chart.x(split.thisTimeDeg)} 6V56" class="stroke-lichen" stroke-width="2.5" />
			<g font-size="12.5" class="fill-slate">
				<text x="24" y={chart.y(room) + 4} text-anchor="end">{format().percent(room)}</text>
				<text x="28" y="68">0°</text>
				<text x="290" y="68" text-anchor="end">{Math.round(setting.tiltDeg)}°</text>
			</g>
		</svg>
		<p>
			{#if roots.options.tiltDone}
				{@const { deg, on } = roots.options.tiltDone}
				When it was set {format().day(on, roots.options.today)} it was tilted by
				<strong>{Math.round(deg)}°</strong>{setting.tiltDeg - deg >= 1
					? `; ${Math.round(setting.tiltDeg - deg)}° of what is tried here are left`
					: ''}.
			{/if}
			{#if split.nextTimeDeg < 0.5}
				All of it fits <strong>this time</strong>.
			{:else}
				<strong>This time {Math.round(split.thisTimeDeg)}°</strong>, next time the other {Math.round(
					split.nextTimeDeg
				)}°.
			{/if}
			{#if wedges.shavedL + wedges.fillL + wedges.aboveL > 0.005}
				Shave
				<Workings
					label="Wedge to shave under the base"
					formula="ball as a cylinder, {mm(map.ballRadiusMm * 2)} × {mm(ballDepth)}, cut level at the base"
					lines={[
						{ label: 'under the base', value: format().measure(wedges.shavedL, 'L', 1) },
						{ label: 'out of the root plane', value: format().measure(wedges.aboveL, 'L', 1) },
						{ label: 'to be filled under the other side', value: format().measure(wedges.fillL, 'L', 1) }
					]}
					changes="With the base through the middle of the underside it is two thirds of R³ times the tangent of the angle."
					><strong>{format().measure(wedges.shavedL, 'L', 1)}</strong></Workings
				>
				under it, {format().measure(wedges.aboveL, 'L', 1)} stand out above, {format().measure(
					wedges.fillL,
					'L',
					1
				)}
				are to be filled.
			{/if}
		</p>
	{/if}
	<p class="mt-1">
		{#if stands}
			<Workings
				label="Does it stand by itself"
				formula="middle of mass over the base: {mm(stands.marginMm)} to its edge, {mm(
					stands.middleAboveBaseMm
				)} up"
				lines={[
					{ label: 'trunk and crown', value: format().measure(stands.treeKg, 'kg', 1) },
					{ label: 'ball', value: format().measure(stands.ballKg, 'kg', 1) },
					{
						label: 'wood, share of a full column',
						value: String(values['setting.formFactor']),
						mark: markOf('setting.formFactor')
					},
					{
						label: 'green wood, kg/L',
						value: String(values['setting.greenDensityKgL']),
						mark: markOf('setting.greenDensityKgL')
					},
					{
						label: 'its middle, of the height',
						value: format().percent(values['setting.massHeight']),
						mark: markOf('setting.massHeight')
					}
				]}
				changes="A lean that was taken, a truer height and a measured ball. Wind and loose mix come on top: tie it down all the same."
			>
				{stands.stands
					? `It stands by itself: ${format().number(stands.marginDeg)}° to spare.`
					: 'It would tip over: tie it down, or leave more base on that side.'}
			</Workings>
		{:else}
			Whether it stands by itself is not known{heightM === null
				? ': the height of the tree is not taken'
				: ''}.
		{/if}
	</p>
	{#if nowOut.length > 0}
		<div class="mt-2">
			<Button size="small" onclick={planCuts}>Plan the cuts of {Math.round(split.thisTimeDeg)}°</Button>
		</div>
	{/if}
	{#if stands && !stands.stands}
		<div class="mt-2">
			<Caution title="Tie it down">Hold it while you work; a tree that tips tears what was left.</Caution>
		</div>
	{/if}
</section>

{#if map.frame === 'container'}
	<section aria-label="Fronts" class="mt-3 border-t pt-2 text-sm">
		<h3 class="text-sm">Sides to look at it from</h3>
		<ol class="divide-y">
			{#each fronts as front (front.azimuthDeg)}
				<li class="flex items-start gap-3 py-1.5">
					<span class="w-12 shrink-0 font-display text-lg leading-tight font-semibold"
						>{at(front.azimuthDeg)}</span
					>
					<span class="min-w-0 flex-1">
						<Workings
							label="Points of the front at {at(front.azimuthDeg)}"
							formula="weighted mean of what is looked for, 0 to 100"
							lines={[
								{
									label: 'flare that shows',
									value: format().percent(front.flare),
									mark: markOf('front.flare')
								},
								{
									label: 'spread to both sides',
									value: format().percent(front.spread),
									mark: markOf('front.spread')
								},
								{
									label: 'no gap before the viewer',
									value: format().percent(front.gaps),
									mark: markOf('front.gaps')
								},
								{
									label: 'lean to the viewer',
									value: front.lean === null ? 'not taken' : format().percent(front.lean),
									mark: markOf('front.lean')
								}
							]}
							changes="What is looked for is common practice; the eye decides. Only sound structural roots count."
							><strong>{format().number(front.points)}</strong></Workings
						>: {front.reasons.join('; ')}
					</span>
					<Button
						size="small"
						tone="quiet"
						aria-label="Mark {at(front.azimuthDeg)} as the front"
						disabled={front.azimuthDeg === 0}
						onclick={() => roots.makeFront(front.azimuthDeg)}>Make it the front</Button
					>
				</li>
			{/each}
		</ol>
		{#if map.lean === null}<p class="mt-1 text-slate">
				The lean of the trunk was not taken; add it under trunk and ball.
			</p>{/if}
	</section>
{/if}
