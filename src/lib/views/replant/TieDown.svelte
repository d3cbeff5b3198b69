<script lang="ts">
	import { counted } from '$core/text/plural';
	import { isStructural } from '$core/roots/map/shares';
	import { planPoint } from '$core/roots/map/geometry';
	import { holeAt, type Wire, type WireHole } from '$core/replant/pots/seat';
	import { floorOf, isRound, type Pot } from '$core/replant/pots/volume';
	import type { Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';

	/** The floor of the pot from above: wires over structural roots, and the holes they go through. Front at the foot. */
	interface Props {
		pot: Pot;
		segments: readonly Segment[];
		wires: readonly Wire[];
		holes: readonly WireHole[];
	}
	let { pot, segments, wires, holes }: Props = $props();
	const format = useFormat();
	const SIZE = 280;
	const px = $derived((SIZE / 2 - 8) / (Math.max(pot.topLengthMm, pot.topWidthMm) / 2));
	const floor = $derived(floorOf(pot));
	const round = $derived(isRound(pot.shape) || pot.shape === 'oval');
	/** Front at the foot, as on the map. */
	const at = ({ x, y }: { x: number; y: number }): [number, number] => [-x * px, -y * px];
	const line = (root: Segment): string =>
		root.course
			.map((point) => at(planPoint(point)))
			.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`)
			.join('');
	const held = $derived(new Set(wires.map((wire) => wire.rootId)));
	const structural = $derived(segments.filter(isStructural));
</script>

<svg
	viewBox="{-SIZE / 2} {-SIZE / 2} {SIZE} {SIZE}"
	class="block w-full max-w-72"
	role="img"
	aria-label="Tie-down from above: {counted(wires.length, 'wire')}, {counted(
		holes.length,
		'hole'
	)} in the floor"
>
	{#if round}
		<ellipse
			rx={(pot.topLengthMm / 2) * px}
			ry={(pot.topWidthMm / 2) * px}
			fill="none"
			class="stroke-ink"
			stroke-width="3"
		/>
		<ellipse
			rx={(floor.bottomLengthMm / 2) * px}
			ry={(floor.bottomWidthMm / 2) * px}
			fill="none"
			class="stroke-slate"
			stroke-dasharray="4 4"
		/>
	{:else}
		{#each [{ l: pot.topLengthMm, w: pot.topWidthMm, top: true }, { l: floor.bottomLengthMm, w: floor.bottomWidthMm, top: false }] as edge (edge.top)}
			<rect
				x={(-edge.l / 2) * px}
				y={(-edge.w / 2) * px}
				width={edge.l * px}
				height={edge.w * px}
				fill="none"
				class={edge.top ? 'stroke-ink' : 'stroke-slate'}
				stroke-width={edge.top ? 3 : 1}
				stroke-dasharray={edge.top ? undefined : '4 4'}
			/>
		{/each}
	{/if}
	{#each structural as root (root.id)}
		<path
			d={line(root)}
			fill="none"
			class={held.has(root.id) ? 'stroke-bark' : 'stroke-line'}
			stroke-width={Math.max(3, root.diameterStartMm * px * 0.7)}
			stroke-linecap="round"
		/>
	{/each}
	{#each wires as wire, i (wire.rootId)}
		{@const ends = holes.filter((hole) => hole.wire === i).map((hole) => at(holeAt(hole)))}
		{#if ends[0] && ends[1]}
			<path d="M{ends[0][0]} {ends[0][1]}L{ends[1][0]} {ends[1][1]}" class="stroke-oxide" stroke-width="3" />
		{/if}
	{/each}
	{#each holes as hole, i (i)}
		{@const [x, y] = at(holeAt(hole))}
		<circle cx={x} cy={y} r="5.5" class="fill-paper stroke-oxide" stroke-width="2.5" />
	{/each}
	<text x="0" y={SIZE / 2 - 2} text-anchor="middle" font-size="12.5" class="fill-slate"
		>front; {format().measure(pot.topLengthMm, 'mm')}</text
	>
</svg>
