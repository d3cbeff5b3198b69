<script lang="ts">
	import Delete from '@lucide/svelte/icons/delete';
	import { useFormat } from './format';

	/** Large keys for a number; whoever shows them does what they say. */
	interface Props {
		label: string;
		onkey: (key: string) => void;
		/** Without a decimal mark and a sign. */
		whole?: boolean;
	}
	let { label, onkey, whole = false }: Props = $props();
	const format = useFormat();
	const mark = $derived(format().number(0.5, 1).slice(1, 2));
	const keys = $derived(['1', '2', '3', '4', '5', '6', '7', '8', '9', whole ? '' : mark, '0', 'back']);
</script>

<div class="grid grid-cols-3 gap-1.5" role="group" aria-label={label}>
	{#each keys as key (key)}
		{#if key === ''}<span></span>{:else}
			<!-- The field that is typed into keeps the focus. -->
			<button
				type="button"
				class="flex min-h-13 items-center justify-center rounded-md border border-edge text-xl font-semibold hover:border-ink active:bg-ink active:text-paper"
				aria-label={key === 'back' ? 'Take the last sign back' : undefined}
				onpointerdown={(event) => event.preventDefault()}
				onclick={() => onkey(key)}
				>{#if key === 'back'}<Delete size={24} />{:else}{key}{/if}</button
			>
		{/if}
	{/each}
</div>
