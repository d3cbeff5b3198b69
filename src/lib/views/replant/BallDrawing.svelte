<script lang="ts">
	import { useFormat } from '$ui/format';

	/** The ball to dig, from above with the second ring and in section with the undercut, to one scale each. */
	interface Props {
		diameterMm: number;
		depthMm: number;
		secondRingMm: number;
		trunkDiameterMm: number;
	}
	let { diameterMm, depthMm, secondRingMm, trunkDiameterMm }: Props = $props();
	const format = useFormat();
	const mm = (value: number): string => format().measure(value, 'mm');
	const SIZE = 320;
	const px = $derived((SIZE / 2 - 14) / (Math.max(secondRingMm, diameterMm) / 2));
	const sectionPx = $derived(Math.min(px, 130 / (depthMm + 60)));
	const y = (down: number): number => 30 + down * sectionPx;
	const half = $derived((diameterMm / 2) * sectionPx);
	const ring = $derived((secondRingMm / 2) * sectionPx);
</script>

<svg
	viewBox="{-SIZE / 2} {-SIZE / 2 - 10} {SIZE} {SIZE + 10}"
	class="mx-auto block w-full max-w-xs"
	role="img"
	aria-label="Ball from above: {mm(diameterMm)} across, second ring {mm(secondRingMm)}"
>
	<circle
		r={(secondRingMm / 2) * px}
		class="fill-none stroke-slate"
		stroke-width="1.5"
		stroke-dasharray="3 5"
	/>
	<circle r={(diameterMm / 2) * px} class="fill-duff stroke-bark" stroke-width="2.5" />
	<circle r={(trunkDiameterMm / 2) * px} class="fill-bark" />
	<g font-size="12.5" text-anchor="middle">
		<text y={(-diameterMm / 2) * px + 16} class="fill-ink">{mm(diameterMm)}</text>
		<text y={(-secondRingMm / 2) * px - 6} class="fill-slate">second ring {mm(secondRingMm)}</text>
	</g>
</svg>
<svg
	viewBox="{-SIZE / 2} 0 {SIZE} 190"
	class="mx-auto block w-full max-w-xs"
	role="img"
	aria-label="Ball in section: {mm(depthMm)} deep, undercut from the second ring"
>
	<path d="M{-SIZE / 2} 30H{SIZE / 2}" class="stroke-lichen" stroke-width="2" />
	<path
		d="M{-ring} 30L{-(half + (ring - half) * 0.6)} {y(depthMm * 0.55)}L{-half * 0.62} {y(depthMm) +
			14}H{half * 0.62}L{half + (ring - half) * 0.6} {y(depthMm * 0.55)}L{ring} 30"
		fill="none"
		class="stroke-slate"
		stroke-width="1.5"
		stroke-dasharray="3 5"
	/>
	<path
		d="M{-half} 30C{-half} {y(depthMm * 0.9)} {-half * 0.6} {y(depthMm)} 0 {y(depthMm)}S{half} {y(
			depthMm * 0.9
		)} {half} 30Z"
		class="fill-duff stroke-bark"
		stroke-width="2.5"
	/>
	<path d="M-7 30l3-28h8l3 28z" class="fill-bark" />
	<text x="0" y={y(depthMm * 0.6)} text-anchor="middle" font-size="12.5" class="fill-ink"
		>{mm(depthMm)} deep</text
	>
	<text x="0" y={y(depthMm) + 28} text-anchor="middle" font-size="12.5" class="fill-slate">undercut</text>
</svg>
