<script lang="ts">
	import { enhance } from '$app/forms';
	import type { PictureLength } from '$core/examine/pictures/plane';
	import type { Picture } from '$core/take-in/picture';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import type { Snippet } from 'svelte';

	/** Lengths that were measured in a picture, written down as a look of its day. */
	interface Props {
		lengths: readonly PictureLength[];
		picture: Picture;
		note: string;
		said: (length: PictureLength) => string;
		/** What the button says, for one or the other. */
		label: Snippet<['shoots' | 'woundwood']>;
		done: () => void;
		refused?: Refused | null;
	}
	let { lengths, picture, note, said, label, done, refused }: Props = $props();
	let as = $state<'shoots' | 'woundwood'>('shoots');
	const tenths = (mm: number): number => Math.round(mm * 10) / 10;
	const last = $derived(lengths.at(-1));
</script>

<form method="POST" action="?/look" use:enhance={act({ done })} class="flex flex-col gap-3" novalidate>
	<Problem {refused} />
	<Choice
		label="Write it down as"
		size="small"
		bind:value={as}
		options={[
			{ value: 'shoots', label: 'shoots of this season' },
			{ value: 'woundwood', label: 'woundwood at the largest cut' }
		]}
	/>
	{#if as === 'shoots'}
		{#each lengths as { mm }, i (i)}
			<input type="hidden" name="shootsMm" value={tenths(mm)} />
		{/each}
	{:else if last}
		<input type="hidden" name="woundwoodMm" value={tenths(last.mm)} />
		{#if lengths.length > 1}
			<Caution title="One width">The last of them is written down: {said(last)}.</Caution>
		{/if}
	{/if}
	<input type="hidden" name="observedOn" value={picture.takenOn} />
	<input type="hidden" name="note" value={note} />
	<Button type="submit" tone="solid">{@render label(as)}</Button>
</form>
