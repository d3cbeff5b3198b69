<script lang="ts">
	import { resolve } from '$app/paths';

	/** The pages of Replant, of a tree in the ground those of the ground first. */
	interface Props {
		treeId: string;
		inGround: boolean;
		/** Where it stands on: that page is not led to. */
		at: 'pot' | 'ground';
	}
	let { treeId, inGround, at }: Props = $props();
</script>

<nav aria-label="Parts of Replant" class="flex flex-wrap gap-x-5 gap-y-1">
	<a class="chalk" href={resolve('/trees/[id]/replant/lift', { id: treeId })}>Lift: ball, weight, when</a>
	{#if at === 'ground'}
		<a
			class="chalk"
			href={resolve(inGround ? '/trees/[id]/replant?pot' : '/trees/[id]/replant', { id: treeId })}
			>{inGround ? 'A pot for it, planned ahead' : 'Back to Replant'}</a
		>
	{:else}
		<a class="chalk" href={resolve('/trees/[id]/replant/ground', { id: treeId })}
			>In the ground: hole, collar, soil</a
		>
	{/if}
	<a class="chalk" href={resolve('/trees/[id]/replant/mix', { id: treeId })}>Mix: water and air</a>
	<a class="chalk" href={resolve('/trees/[id]/replant/kit', { id: treeId })}>Kit list</a>
	<a class="chalk" href={resolve('/trees/[id]/book?kind=ball-scored', { id: treeId })}
		>Ball scored or shaved: write it down</a
	>
	<a class="chalk" href={resolve('/trees/[id]/rehearse', { id: treeId })}>Rehearse</a>
</nav>
