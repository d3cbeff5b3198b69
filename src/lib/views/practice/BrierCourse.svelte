<script lang="ts">
	import { useFormat } from '$ui/format';
	import { line, scaleLinear } from 'd3';

	/** How far off one’s chances were, round by round: lower is better. */
	interface Props {
		briers: number[];
	}
	let { briers }: Props = $props();
	const format = useFormat();
	const [W, H] = [360, 90];
	const most = $derived(Math.max(0.05, ...briers));
	const x = $derived(
		scaleLinear()
			.domain([0, Math.max(1, briers.length - 1)])
			.range([8, W - 8])
	);
	const y = $derived(
		scaleLinear()
			.domain([0, most])
			.range([H - 8, 8])
	);
	const path = $derived(
		line<number>()
			.x((_, i) => x(i))
			.y((one) => y(one))(briers) ?? ''
	);
	const [first, last] = $derived([briers[0] ?? 0, briers.at(-1) ?? 0]);
</script>

<figure class="mt-3">
	<svg
		viewBox="0 0 {W} {H}"
		class="block w-full max-w-sm"
		role="img"
		aria-label="How far off you were, round by round"
	>
		<path d="M8 {H - 8}H{W - 8}" class="stroke-line" />
		<path d={path} fill="none" class="stroke-lichen" stroke-width="2.4" />
		{#each briers as one, i (i)}<circle cx={x(i)} cy={y(one)} r="3.5" class="fill-ink" />{/each}
	</svg>
	<figcaption class="text-sm">
		How far off you were over {briers.length} rounds, from {format().number(first, 3)} to {format().number(
			last,
			3
		)}: {last < first
			? 'you judge better than you did'
			: last > first
				? 'not better than at first'
				: 'as at first'}.
	</figcaption>
</figure>
