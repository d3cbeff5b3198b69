<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import type { Fit } from '$core/replant/pots/fit';
	import { isRound, type Pot } from '$core/replant/pots/volume';
	import { useFormat } from '$ui/format';

	/** Room between ball and pot seen from above: the nearer the bar to the wall, the less of it. */
	interface Props {
		fit: Fit;
		pot: Pot;
	}
	let { fit, pot }: Props = $props();
	const format = useFormat();
	const SIZE = 240;
	const RING = 92;
	const most = $derived(Math.max(20, ...fit.round.map((point) => point.clearanceMm)));
	/** Front at the foot, as on the map. */
	const at = (azimuthDeg: number, radius: number): string => {
		const angle = ((azimuthDeg + 180) * Math.PI) / 180;
		return `${(radius * Math.sin(angle)).toFixed(1)} ${(-radius * Math.cos(angle)).toFixed(1)}`;
	};
	const clock = (azimuthDeg: number): string =>
		format().clock(clockOf(azimuthDeg, 'container')).replace(':00', '');
	/** How far the wall is from the middle in a direction, as drawn. */
	const wallAt = (azimuthDeg: number): number => {
		const rad = (azimuthDeg * Math.PI) / 180;
		return wall ? RING : RING / Math.max(Math.abs(Math.sin(rad)), Math.abs(Math.cos(rad)));
	};
	const wall = $derived(isRound(pot.shape) || pot.shape === 'oval');
</script>

<svg
	viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
	class="mx-auto block w-full max-w-60"
	role="img"
	aria-label="Room round the ball by direction; tightest at {clock(
		fit.tightest.azimuthDeg
	)} o’clock, {format().measure(fit.tightest.clearanceMm, 'mm')}"
>
	{#if wall}
		<circle r={RING} fill="none" class="stroke-ink" stroke-width="3.5" />
	{:else}
		<rect
			x={-RING}
			y={-RING}
			width={2 * RING}
			height={2 * RING}
			rx="4"
			fill="none"
			class="stroke-ink"
			stroke-width="3.5"
		/>
	{/if}
	{#each fit.round as point (point.azimuthDeg)}
		{@const through = point.clearanceMm < 0}
		<path
			d="M{at(point.azimuthDeg, wallAt(point.azimuthDeg) - 4)}L{at(
				point.azimuthDeg,
				through
					? wallAt(point.azimuthDeg) + 12
					: wallAt(point.azimuthDeg) - 4 - Math.max(2, (point.clearanceMm / most) * 52)
			)}"
			class={through ? 'stroke-oxide' : point === fit.tightest ? 'stroke-ochre' : 'stroke-rain'}
			stroke-width={through || point === fit.tightest ? 7 : 4}
			stroke-dasharray={through ? '3 2' : undefined}
		/>
	{/each}
	{#if fit.shift.mm >= 1}
		<circle r="3" class="fill-slate" />
		<path
			d="M0 0L{at(fit.shift.azimuthDeg, Math.min(30, 8 + fit.shift.mm))}"
			class="stroke-slate"
			stroke-width="3"
		/>
	{/if}
	{#each [0, 90, 180, 270] as azimuth (azimuth)}
		{@const [x, y] = at(azimuth, RING + 17)
			.split(' ')
			.map(Number)}
		<text {x} y={(y ?? 0) + 5} text-anchor="middle" font-size="13" class="fill-slate">{clock(azimuth)}</text>
	{/each}
</svg>
