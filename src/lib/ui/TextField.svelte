<script lang="ts">
	import type { HTMLInputAttributes } from 'svelte/elements';
	import Field from './Field.svelte';
	import type { Refused } from './field';

	type Props = {
		name: string;
		label: string;
		value?: string;
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		rows?: number;
		fieldClass?: string;
	} & Omit<HTMLInputAttributes, 'value' | 'name'>;
	let {
		name,
		label,
		value = '',
		hint,
		optional = false,
		refused,
		rows,
		fieldClass = '',
		...rest
	}: Props = $props();
	const shown = $derived(refused?.typed[name] ?? value);
	let field = $state<HTMLInputElement | HTMLTextAreaElement | null>(null);
	function take(kept: string): void {
		if (!field) return;
		field.value = kept;
		// As if typed, so that a draft of the form holds it too.
		field.dispatchEvent(new Event('input', { bubbles: true }));
	}
</script>

<Field {name} {label} {hint} {optional} {refused} {take} class={fieldClass}>
	{#snippet control({ id, describedBy, invalid })}
		{#if rows}
			<textarea
				bind:this={field}
				{id}
				{name}
				{rows}
				value={shown}
				defaultValue={shown}
				class="input"
				aria-describedby={describedBy}
				aria-invalid={invalid}></textarea>
		{:else}
			<input
				bind:this={field}
				{id}
				{name}
				value={shown}
				defaultValue={shown}
				class="input"
				aria-describedby={describedBy}
				aria-invalid={invalid}
				{...rest}
			/>
		{/if}
	{/snippet}
</Field>
