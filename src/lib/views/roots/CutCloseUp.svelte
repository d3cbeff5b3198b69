<script lang="ts">
	import { closeUp, turnRing } from '$core/roots/map/close-up';
	import { planPoint } from '$core/roots/map/geometry';
	import { ribbon, ribbonAt } from '$core/roots/map/ribbon';
	import { outlineRing, stemsOf } from '$core/roots/map/outline';
	import type { Cut } from '$core/roots/plan/plan';
	import { useFormat } from '$ui/format';
	import { drawRoot, onPage, pathOf, type MapScale } from './draw-root';
	import RootShape from './RootShape.svelte';
	import type { RootsState } from './roots-state.svelte';

	/** The cut in hand, close by: from above as one stands before it, and from the side. */
	interface Props {
		roots: RootsState;
		cut: Cut;
	}
	let { roots, cut }: Props = $props();
	const format = useFormat();
	const uid = $props.id();
	const SIZE = 320;

	const seen = $derived(closeUp(roots.map, cut.segmentId, cut.atMm));
	const scale = $derived<MapScale>({ px: seen ? SIZE / seen.widthMm : 1, sign: 1 });
	const middle = $derived(seen ? onPage(seen.middle, scale) : { x: 0, y: 0 });
	const drawn = $derived(
		seen
			? seen.segments
					.map((segment) => {
						const own = segment.id === cut.segmentId;
						const treated = roots.treatment(segment);
						return {
							own,
							keep: segment.keep,
							done: treated.kind === 'cut' && treated.cut.state === 'done',
							root: drawRoot(segment, scale, own ? { atMm: cut.atMm, done: false } : null)
						};
					})
					// The one in hand lies on top of the drawing.
					.sort((a, b) => Number(a.own) - Number(b.own))
			: []
	);
	/** Roots beside the one in hand, named where they leave the trunk. */
	const beside = $derived.by(() => {
		if (!seen) return [];
		const start = planPoint(seen.segment.course[0] ?? { azimuthDeg: 180, radiusMm: 0 });
		return seen.segments.flatMap((segment) => {
			const points = ribbon(segment);
			const on = ribbonAt(points, 0.2 * seen.widthMm) ?? points.at(-1);
			if (segment.id === cut.segmentId || !on) return [];
			const away = Math.hypot(on.x - start.x, on.y - start.y);
			const place = onPage(on, scale);
			// Whole or not at all.
			return away > 0.55 * seen.widthMm || Math.abs(place.x - middle.x) > SIZE / 2 - 24
				? []
				: [{ id: segment.id, ...place }];
		});
	});
	const mine = $derived(drawn.find((one) => one.own)?.root ?? null);
	const depthKnown = $derived(seen !== null && !seen.segment.guessed.includes('depth'));

	// From the side: along the root to the right, depth downward, both in one scale.
	const side = $derived.by(() => {
		if (!seen) return null;
		const circles = seen.crossing.map((one) => ({ ...one, top: one.depthMm - one.radiusMm }));
		const deepest = Math.max(
			...seen.profile.map((point) => point.depthMm + point.radiusMm),
			...circles.map((one) => one.depthMm + one.radiusMm)
		);
		const highest = Math.min(
			0,
			...seen.profile.map((point) => point.depthMm - point.radiusMm),
			...circles.map((one) => one.top)
		);
		const long = Math.max(seen.widthMm * 0.75, (seen.profile.at(-1)?.alongMm ?? 0) * 0.9);
		const px = Math.min((SIZE - 30) / long, 190 / Math.max(20, deepest - highest + 14));
		const x = (alongMm: number): number => 26 + alongMm * px;
		const y = (depthMm: number): number => 12 + (depthMm - highest) * px;
		const upper = seen.profile.map((point) => `${x(point.alongMm)} ${y(point.depthMm - point.radiusMm)}`);
		const lower = seen.profile
			.map((point) => `${x(point.alongMm)} ${y(point.depthMm + point.radiusMm)}`)
			.reverse();
		const at = Math.max(cut.atMm, 4 / px);
		const after = seen.profile.findIndex((point) => point.alongMm >= at);
		const [a, b] = [seen.profile[Math.max(0, after - 1)], seen.profile[Math.max(0, after)]];
		const share = a && b && b.alongMm > a.alongMm ? (at - a.alongMm) / (b.alongMm - a.alongMm) : 0;
		const between = (key: 'depthMm' | 'radiusMm'): number =>
			(a?.[key] ?? 0) + share * ((b?.[key] ?? 0) - (a?.[key] ?? 0));
		return {
			px,
			x,
			y,
			body: `M${[...upper, ...lower].join('L')}Z`,
			cut: {
				x: x(at),
				top: y(between('depthMm') - between('radiusMm')) - 9,
				foot: y(between('depthMm') + between('radiusMm')) + 9
			}
		};
	});
	/** A round length for the bar of the scale. */
	const barMm = $derived(
		[500, 200, 100, 50, 20, 10].find((mm) => seen !== null && mm <= seen.widthMm / 3) ?? 10
	);
	const clockOf = (segmentId: string): string => {
		const segment = roots.map.segments.find((one) => one.id === segmentId);
		return segment ? format().clock(roots.clock(segment)) : '';
	};
	const words = $derived(
		seen
			? `The cut close by: the root at ${clockOf(cut.segmentId)}, cut ${
					cut.atMm > 0 ? `${format().measure(cut.atMm, 'mm')} from its start` : 'at its base'
				}${seen.crossing
					.map((one) => {
						// Depths that nobody measured tell no order.
						const measured =
							depthKnown && !seen.segments.find(({ id }) => id === one.segmentId)?.guessed.includes('depth');
						const lies = !measured ? 'crosses' : one.under ? 'lies under' : 'lies over';
						return `; the root at ${clockOf(one.segmentId)} ${lies} it`;
					})
					.join('')}.`
			: ''
	);
</script>

{#if seen && mine}
	<div class="grid gap-x-6 gap-y-2 sm:grid-cols-2 xl:w-160" role="group" aria-label={words}>
		<figure class="min-w-0">
			<svg
				viewBox="{middle.x - SIZE / 2} {middle.y - SIZE / 2} {SIZE} {SIZE * 0.86}"
				class="w-full rounded-md border bg-leaf max-sm:h-40"
				preserveAspectRatio="xMidYMid slice"
				aria-hidden="true"
			>
				<defs>
					<pattern
						id="{uid}-doubt"
						width="7"
						height="7"
						patternUnits="userSpaceOnUse"
						patternTransform="rotate(45)"
					>
						<rect width="7" height="7" class="fill-sapwood" />
						<path d="M0 0v7" class="stroke-bark" stroke-width="2" />
					</pattern>
				</defs>
				{#each drawn as { root, own, keep, done } (root.segment.id)}
					<g opacity={own ? 1 : done ? 0.35 : 0.75}>
						<RootShape {root} {scale} zoom={1} chosen={own} doubt="{uid}-doubt" />
						{#if keep}
							<g transform="translate({root.mark.x} {root.mark.y})" fill="none" stroke-linecap="round">
								<path d="M-7 5c0-8 14-8 14 0M7-4c0 8-14 8-14 0" class="stroke-paper" stroke-width="5" />
								<path d="M-7 5c0-8 14-8 14 0M7-4c0 8-14 8-14 0" class="stroke-lichen" stroke-width="2.4" />
							</g>
						{/if}
					</g>
				{/each}
				{#each stemsOf(roots.map) as stem, i (i)}
					<path
						d={pathOf(turnRing(outlineRing(stem), seen.turnedDeg), scale)}
						class="fill-bark stroke-ink"
						stroke-width="1.5"
					/>
				{/each}
				{#each beside as one (one.id)}
					<text
						x={one.x}
						y={one.y}
						font-size="13"
						text-anchor="middle"
						class="fill-ink stroke-leaf"
						stroke-width="4"
						paint-order="stroke">{clockOf(one.id)}</text
					>
				{/each}
				<path
					d="M{mine.across[0].x} {mine.across[0].y}L{mine.across[1].x} {mine.across[1].y}"
					class="stroke-paper"
					stroke-width="10"
					stroke-linecap="round"
				/>
				<path
					d="M{mine.across[0].x} {mine.across[0].y}L{mine.across[1].x} {mine.across[1].y}"
					class="stroke-oxide"
					stroke-width="5.5"
					stroke-linecap="round"
				/>
				<g transform="translate({middle.x - SIZE / 2 + 12} {middle.y + SIZE * 0.36 - 10})">
					<rect
						x="-6"
						y="-20"
						width={barMm * scale.px + 12}
						height="28"
						rx="4"
						class="fill-leaf"
						opacity="0.85"
					/>
					<path
						d="M0 -4v8M0 0h{barMm * scale.px}M{barMm * scale.px} -4v8"
						class="stroke-ink"
						stroke-width="1.5"
					/>
					<text y="-7" font-size="13" class="fill-ink">{format().measure(barMm, 'mm')}</text>
				</g>
			</svg>
			<figcaption class="text-sm text-slate">
				From above, as you stand before it{cut.atMm > 0
					? `: ${format().measure(cut.atMm, 'mm')} out from its start`
					: ': at its base'}
			</figcaption>
		</figure>
		{#if side}
			<figure class="min-w-0 max-sm:hidden">
				<svg viewBox="0 0 {SIZE} {SIZE * 0.86}" class="w-full rounded-md border bg-leaf" aria-hidden="true">
					<path d="M0 {side.y(0)}H{SIZE}" class="stroke-slate" stroke-width="1.5" stroke-dasharray="5 4" />

					<rect x="0" y="0" width="26" height={SIZE * 0.86} class="fill-bark" />
					{#each seen.crossing as one (one.segmentId)}
						<circle
							cx={side.x(one.alongMm)}
							cy={side.y(one.depthMm)}
							r={one.radiusMm * side.px}
							class="fill-sapwood stroke-bark"
							stroke-width="1.6"
						/>
						<text
							x={side.x(one.alongMm)}
							y={side.y(one.depthMm) + (one.under ? 1 : -1) * (one.radiusMm * side.px + (one.under ? 14 : 5))}
							font-size="13"
							text-anchor="middle"
							class="fill-ink">{clockOf(one.segmentId)}</text
						>
					{/each}
					<path
						d={side.body}
						class="fill-sapwood stroke-bark"
						stroke-width="2.4"
						stroke-linejoin="round"
						fill-opacity={depthKnown ? 1 : 0.5}
						stroke-dasharray={depthKnown ? undefined : '5 4'}
					/>
					<path
						d="M{side.cut.x} {side.cut.top}V{side.cut.foot}"
						class="stroke-paper"
						stroke-width="10"
						stroke-linecap="round"
					/>
					<path
						d="M{side.cut.x} {side.cut.top}V{side.cut.foot}"
						class="stroke-oxide"
						stroke-width="5.5"
						stroke-linecap="round"
					/>
				</svg>
				<figcaption class="text-sm text-slate">
					From the side, the trunk at the left, dashed the level of the flare{depthKnown
						? ''
						: '; how deep it lies nobody measured'}
				</figcaption>
			</figure>
		{/if}
	</div>
{/if}
