<script lang="ts">
	import { roman } from '$core/roots/plan/plan';
	import type { DrawnRoot } from './draw-root';
	import type { RootsState } from './roots-state.svelte';

	/** What is done with a root, marked on it: a chalk stroke, a broken ring, a knot. */
	interface Props {
		roots: RootsState;
		root: DrawnRoot;
		/** How far the map is zoomed in; marks keep their size. */
		zoom: number;
	}
	let { roots, root, zoom }: Props = $props();
	const treated = $derived(roots.treatment(root.segment));
	const at = (point: { x: number; y: number }): string =>
		`translate(${point.x} ${point.y}) scale(${1 / zoom})`;
</script>

<g class="pointer-events-none">
	{#if treated.kind === 'cut'}
		{@const now = treated.cut.stage === 0}
		{@const [a, b] = root.across}
		<path d="M{a.x} {a.y}L{b.x} {b.y}" class="stroke-paper" stroke-width={9 / zoom} stroke-linecap="round" />
		<path
			d="M{a.x} {a.y}L{b.x} {b.y}"
			class="stroke-oxide"
			stroke-width={5 / zoom}
			stroke-linecap={now ? 'round' : 'butt'}
			stroke-dasharray={now ? undefined : `${4 / zoom} ${3 / zoom}`}
		/>
		<g transform={at(root.disc)}>
			<circle r="10.5" class={now ? 'fill-oxide stroke-paper' : 'fill-paper stroke-oxide'} stroke-width="2" />
			<text
				y="4.5"
				text-anchor="middle"
				font-size="12.5"
				font-weight="700"
				class={now ? 'fill-paper' : 'fill-oxide'}
			>
				{now ? (roots.cutNumbers.get(root.segment.id) ?? '') : roman(treated.cut.stage)}
			</text>
		</g>
	{:else if treated.kind === 'trace'}
		<g transform={at(root.end)}>
			<circle r="12" class="fill-paper stroke-ochre" stroke-width="2.2" stroke-dasharray="4 3" />
			<text y="5" text-anchor="middle" font-size="14" font-weight="700" class="fill-ochre">?</text>
		</g>
	{:else if treated.kind === 'keep'}
		<!-- A small knot. -->
		<g transform={at(root.mark)} fill="none" stroke-linecap="round">
			<path d="M-7 5c0-8 14-8 14 0M7-4c0 8-14 8-14 0" class="stroke-paper" stroke-width="5" />
			<path d="M-7 5c0-8 14-8 14 0M7-4c0 8-14 8-14 0" class="stroke-lichen" stroke-width="2.4" />
		</g>
	{/if}
</g>
