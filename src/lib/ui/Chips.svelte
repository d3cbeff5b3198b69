<script lang="ts" generics="T extends string">
	import { ToggleGroup } from 'bits-ui';

	/** Any number of words out of a few. */
	interface Props {
		label: string;
		options: readonly { value: T; label: string }[];
		value: T[];
		/** Sends the chosen ones with a form under this name. */
		name?: string;
		hint?: string;
		onchange?: (value: T[]) => void;
	}
	let { label, options, value = $bindable(), name, hint, onchange }: Props = $props();
	const uid = $props.id();
</script>

<div class="flex flex-col gap-1">
	<span id="{uid}-label" class="text-sm font-semibold">{label}</span>
	<ToggleGroup.Root
		type="multiple"
		{value}
		onValueChange={(chosen) => {
			value = chosen as T[];
			onchange?.(value);
		}}
		aria-labelledby="{uid}-label"
		class="flex flex-wrap gap-1.5"
	>
		{#each options as option (option.value)}
			<ToggleGroup.Item
				value={option.value}
				class="min-h-9 rounded-md border border-edge px-2.5 text-sm font-semibold hover:border-ink data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper"
				>{option.label}</ToggleGroup.Item
			>
		{/each}
	</ToggleGroup.Root>
	{#if hint}<span class="text-xs text-slate">{hint}</span>{/if}
	{#if name}{#each value as chosen (chosen)}<input type="hidden" {name} value={chosen} />{/each}{/if}
</div>
