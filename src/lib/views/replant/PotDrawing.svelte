<script lang="ts">
	import { floorOf, type Pot } from '$core/replant/pots/volume';
	import { useFormat } from '$ui/format';

	/** Section through the pot with its layers and the ball, to scale. */
	interface Props {
		pot: Pot;
		ballDiameterMm: number;
		ballDepthMm: number;
		coarseLayerMm: number;
		topLayerMm: number;
		headspaceMm: number;
		/** Flare over the rim, and the mound over the level fill. */
		flareOverRimMm: number;
		moundMm: number;
		/** It does not go in. */
		tight: boolean;
	}
	let {
		pot,
		ballDiameterMm,
		ballDepthMm,
		coarseLayerMm,
		topLayerMm,
		headspaceMm,
		flareOverRimMm,
		moundMm,
		tight
	}: Props = $props();
	const format = useFormat();
	const uid = $props.id();

	const W = 320;
	const H = 210;
	const scale = $derived(
		Math.min(
			(W - 90) / Math.max(pot.topLengthMm, ballDiameterMm),
			(H - 50) / (pot.heightMm + Math.max(0, flareOverRimMm, moundMm - headspaceMm))
		)
	);
	const floorY = H - 22;
	const y = (mm: number): number => floorY - mm * scale;
	const halfAt = (mm: number): number => {
		const bottom = floorOf(pot).bottomLengthMm;
		return ((bottom + ((pot.topLengthMm - bottom) * mm) / pot.heightMm) / 2) * scale;
	};
	const layer = (from: number, to: number): string => {
		const [a, b] = [Math.max(0, Math.min(pot.heightMm, from)), Math.max(0, Math.min(pot.heightMm, to))];
		if (b <= a) return '';
		return `M${W / 2 - halfAt(a)} ${y(a)}L${W / 2 - halfAt(b)} ${y(b)}H${W / 2 + halfAt(b)}L${W / 2 + halfAt(a)} ${y(a)}Z`;
	};
	const fill = $derived(pot.heightMm - headspaceMm);
	const ball = $derived.by(() => {
		const half = (ballDiameterMm / 2) * scale;
		const top = y(pot.heightMm + flareOverRimMm);
		const depth = ballDepthMm * scale;
		return `M${W / 2 - half} ${top}C${W / 2 - half} ${top + depth * 1.1} ${W / 2 - half * 0.6} ${top + depth} ${W / 2} ${top + depth}S${W / 2 + half} ${top + depth * 1.1} ${W / 2 + half} ${top}Z`;
	});
</script>

<svg
	viewBox="0 0 {W} {H}"
	class="block w-full max-w-md"
	role="img"
	aria-label="Section through the pot with its layers and the ball"
>
	<defs>
		<pattern id="{uid}-coarse" width="12" height="12" patternUnits="userSpaceOnUse"
			><circle cx="3" cy="4" r="2.6" class="fill-slate" /><circle
				cx="9"
				cy="9"
				r="3"
				class="fill-slate"
			/></pattern
		>
		<pattern id="{uid}-main" width="7" height="7" patternUnits="userSpaceOnUse"
			><circle cx="2" cy="2" r="1" class="fill-slate" /><circle
				cx="5.5"
				cy="5"
				r="0.8"
				class="fill-slate"
			/></pattern
		>
	</defs>
	<path d={layer(0, coarseLayerMm)} fill="url(#{uid}-coarse)" />
	<path d={layer(coarseLayerMm, fill - topLayerMm)} fill="url(#{uid}-main)" />
	<path d={layer(fill - topLayerMm, fill)} class="fill-duff" />
	{#if moundMm > 0}
		<path
			d="M{W / 2 - halfAt(fill) * 0.9} {y(fill)}L{W / 2} {y(fill + moundMm)}L{W / 2 + halfAt(fill) * 0.9} {y(
				fill
			)}Z"
			fill="url(#{uid}-main)"
		/>
	{/if}
	<path
		d={ball}
		class={['fill-sapwood', tight ? 'stroke-oxide' : 'stroke-bark']}
		stroke-width={tight ? 3 : 2}
		stroke-dasharray={tight ? '6 3' : undefined}
	/>
	<path
		d="M{W / 2 - 7} {y(pot.heightMm + flareOverRimMm)}l3-{Math.max(
			6,
			Math.min(40, y(pot.heightMm + flareOverRimMm) - 2)
		)}h8l3 {Math.max(6, Math.min(40, y(pot.heightMm + flareOverRimMm) - 2))}z"
		class="fill-bark"
	/>
	<path
		d="M{W / 2 - halfAt(pot.heightMm)} {y(pot.heightMm)}L{W / 2 - halfAt(0)} {y(0)}H{W / 2 + halfAt(0)}L{W /
			2 +
			halfAt(pot.heightMm)} {y(pot.heightMm)}"
		fill="none"
		class="stroke-ink"
		stroke-width="3.5"
		stroke-linejoin="round"
	/>
	<path d="M{W / 2 - 30} {floorY}h14M{W / 2 + 16} {floorY}h14" class="stroke-paper" stroke-width="5" />
	<text x={W / 2} y={H - 4} text-anchor="middle" font-size="12.5" class="fill-slate"
		>{format().measure(pot.topLengthMm, 'mm')} at the rim, {format().measure(pot.heightMm, 'mm')} deep</text
	>
	<path d="M{W / 2 + halfAt(fill) + 6} {y(fill)}h14" class="stroke-rain" stroke-width="1.5" />
	<text x={Math.min(W - 4, W / 2 + halfAt(fill) + 24)} y={y(fill) + 4} font-size="12.5" class="fill-rain"
		>fill</text
	>
</svg>
