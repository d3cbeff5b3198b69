<script lang="ts">
	import { page } from '$app/state';
	import NumberPad from './NumberPad.svelte';
	import { typedBefore } from './typed-before';

	/** For wet and gloved hands: the number of a field on large keys, with its unit, and what was typed there before. */
	interface Props {
		/** Name under which the field is remembered. */
		name: string;
		unit: string;
		shown: string;
		onput: (text: string) => void;
		onnext: () => void;
		onclose: () => void;
	}
	let { name, unit, shown, onput, onnext, onclose }: Props = $props();
	const before = $derived(typedBefore(name, page.params.id ?? ''));
	const offers = $derived(
		(
			[
				[before.here, 'Last'],
				[before.before, 'Tree before']
			] as const
		).filter(([text]) => text !== null)
	);
	/** The field that is typed into keeps the focus. */
	const hold = (event: PointerEvent): void => event.preventDefault();
</script>

<div class="no-print mt-1 flex max-w-md flex-col gap-1.5" role="group" aria-label="Number pad">
	<p class="flex items-baseline justify-end gap-2">
		<output class="font-display text-3xl font-bold">{shown === '' ? '–' : shown}</output>
		<span class="text-lg">{unit}</span>
	</p>
	{#if offers.length > 0}
		<div class="grid grid-cols-2 gap-1.5">
			{#each offers as [text, of] (of)}
				<button
					type="button"
					class="rounded-md border border-edge px-2 font-semibold"
					onpointerdown={hold}
					onclick={() => onput(text ?? '')}>{of}: {text} {unit}</button
				>
			{/each}
		</div>
	{/if}
	<NumberPad label="Digits" onkey={(key) => onput(key === 'back' ? shown.slice(0, -1) : shown + key)} />
	<div class="grid grid-cols-2 gap-1.5">
		<button
			type="button"
			class="rounded-md border border-edge font-semibold"
			onpointerdown={hold}
			onclick={onclose}>Close the pad</button
		>
		<button
			type="button"
			class="rounded-md bg-ink font-semibold text-paper"
			onpointerdown={hold}
			onclick={onnext}>Next</button
		>
	</div>
</div>
