<script lang="ts">
	import { ToggleGroup } from 'bits-ui';

	/** A few answers side by side, one of them or none; touching the chosen one again takes it back. */
	interface Props {
		/** Id of the element that names the question. */
		labelledBy: string;
		options: readonly { value: string; label: string; tone?: 'strong' | 'plain' }[];
		/** '' while it is not answered. */
		value: string;
		onchange: (value: string) => void;
	}
	let { labelledBy, options, value, onchange }: Props = $props();
</script>

<ToggleGroup.Root
	type="single"
	{value}
	onValueChange={onchange}
	aria-labelledby={labelledBy}
	class="flex flex-wrap gap-1"
>
	{#each options as option (option.value)}
		<ToggleGroup.Item
			value={option.value}
			class={[
				'min-h-11 rounded-md border border-edge px-3 hover:border-ink',
				option.tone === 'strong'
					? 'min-w-16 font-semibold data-[state=on]:border-oxide data-[state=on]:bg-oxide data-[state=on]:text-paper'
					: 'data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper'
			]}>{option.label}</ToggleGroup.Item
		>
	{/each}
</ToggleGroup.Root>
