<script lang="ts">
	import type { HTMLSelectAttributes } from 'svelte/elements';
	import Field from './Field.svelte';
	import type { Refused } from './field';

	type Props = {
		name: string;
		label: string;
		value?: string;
		options: readonly { value: string; label: string; group?: string }[];
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		fieldClass?: string;
	} & Omit<HTMLSelectAttributes, 'value' | 'name'>;
	let {
		name,
		label,
		value = $bindable(''),
		options,
		hint,
		optional = false,
		refused,
		fieldClass = '',
		...rest
	}: Props = $props();
	const shown = $derived(refused?.typed[name] ?? value);
	let field = $state<HTMLSelectElement | null>(null);
	const said = (kept: string): string => options.find((option) => option.value === kept)?.label ?? kept;
	function take(kept: string): void {
		if (!field) return;
		field.value = kept;
		field.dispatchEvent(new Event('change', { bubbles: true }));
	}
	const groups = $derived([...new Set(options.map((option) => option.group))]);
</script>

<Field {name} {label} {hint} {optional} {refused} {said} {take} class={fieldClass}>
	{#snippet control({ id, describedBy, invalid })}
		<select
			bind:this={field}
			{id}
			{name}
			class="input"
			aria-describedby={describedBy}
			aria-invalid={invalid}
			value={shown}
			onchange={(event) => (value = event.currentTarget.value)}
			{...rest}
		>
			{#each groups as group (group ?? '')}
				{#if group}
					<optgroup label={group}>
						{#each options.filter((option) => option.group === group) as option (option.value)}
							<option value={option.value} selected={option.value === shown}>{option.label}</option>
						{/each}
					</optgroup>
				{:else}
					{#each options.filter((option) => option.group === undefined) as option (option.value)}
						<option value={option.value} selected={option.value === shown}>{option.label}</option>
					{/each}
				{/if}
			{/each}
		</select>
	{/snippet}
</Field>
