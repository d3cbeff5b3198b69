<script lang="ts" generics="T extends string">
	import { RadioGroup } from 'bits-ui';
	import Meanwhile from './Meanwhile.svelte';
	import { problemOf, type Refused } from './field';
	import { saidLabel } from './refused';

	/** A few words side by side, one of them chosen. Large enough for wet hands. */
	interface Props {
		label: string;
		value: T | '';
		options: readonly { value: T; label: string }[];
		name?: string;
		hideLabel?: boolean;
		size?: 'small' | 'usual';
		onchange?: (value: T) => void;
		/** What the form was refused for, said under the choice. */
		refused?: Refused | null;
	}
	let {
		label,
		value = $bindable(),
		options,
		name,
		hideLabel = false,
		size = 'usual',
		onchange,
		refused
	}: Props = $props();
	const uid = $props.id();
	const problem = $derived(name && value === '' ? problemOf(refused, name) : null);
</script>

<div class="flex flex-col gap-1" data-field={name} data-label={label}>
	<span id="{uid}-label" class={hideLabel ? 'sr-only' : 'text-sm font-semibold'}>{label}</span>
	<RadioGroup.Root
		{value}
		{name}
		orientation="horizontal"
		aria-labelledby="{uid}-label"
		aria-describedby={problem ? `${uid}-problem` : undefined}
		aria-invalid={problem ? true : undefined}
		class="flex flex-wrap gap-1.5"
		onValueChange={(chosen) => {
			value = chosen as T;
			onchange?.(chosen as T);
		}}
	>
		{#each options as option (option.value)}
			<RadioGroup.Item
				value={option.value}
				class={[
					'rounded-md border border-edge font-semibold hover:border-ink data-[state=checked]:border-ink data-[state=checked]:bg-ink data-[state=checked]:text-paper',
					size === 'small' ? 'min-h-9 px-2.5 text-sm' : 'min-h-11 px-3.5'
				]}
			>
				{option.label}
			</RadioGroup.Item>
		{/each}
	</RadioGroup.Root>
	{#if name}
		<Meanwhile
			{name}
			{refused}
			said={(kept) => options.find((option) => option.value === kept)?.label ?? kept}
			take={(kept) => {
				value = kept as T;
				onchange?.(kept as T);
			}}
		/>
	{/if}
	{#if problem}<p id="{uid}-problem" class="text-sm font-semibold text-oxide">
			{`${saidLabel(label)} must be chosen.`}
		</p>{/if}
</div>
