<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { enhance } from '$app/forms';
	import { markSentence } from '$core/values/define';
	import { valueFamilies, workingValue, type ValueKey, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';
	import NarrowDown from '$ui/NarrowDown.svelte';
	import ReferenceFrame from './ReferenceFrame.svelte';

	interface Props {
		values: Values;
		overridden: string[];
	}
	let { values, overridden }: Props = $props();
	const format = useFormat();
	type Family = keyof typeof valueFamilies;
	const families = Object.keys(valueFamilies) as Family[];
	let family = $state<Family>('Roots');
	let words = $state('');
	let editing = $state<string | null>(null);
	const found = (within: Family): ValueKey[] =>
		(Object.keys(valueFamilies[within]) as ValueKey[]).filter((key) => {
			const value = workingValue(key);
			return `${value.label} ${key} ${value.mark}`.toLowerCase().includes(words.trim().toLowerCase());
		});
	const keys = $derived(found(family));
	/** Where else there is something of that name, once there is nothing here. */
	const elsewhere = $derived(
		keys.length > 0
			? []
			: families.map((name) => ({ name, count: found(name).length })).filter(({ count }) => count > 0)
	);
	const number = (value: number): string => format().number(value, 4);
</script>

<ReferenceFrame
	title="Values"
	lead="The defaults Bruntle works with, where each comes from, and your own number in its place if you know better. Changes count at once, everywhere."
>
	<div class="mt-4 flex flex-wrap items-end gap-4">
		<Choice
			label="Used for"
			bind:value={family}
			options={families.map((value) => ({ value, label: value }))}
		/>
		<NarrowDown bind:words />
	</div>
	<ForOwners told="An owner of the yard puts numbers of its own in their place." />
	{#if overridden.length > 0}<p class="mt-3 text-sm font-semibold text-ochre">
			{overridden.length} of your own are in force.
		</p>{/if}
	{#if keys.length === 0}
		<p class="mt-3 text-slate" role="status">
			{elsewhere.length > 0
				? `Nothing of that name under ${family}. There is in:`
				: 'No value is called that.'}
		</p>
		<div class="mt-1 flex flex-wrap gap-2">
			{#each elsewhere as { name, count } (name)}
				<Button tone="quiet" onclick={() => (family = name)}>{name}, {count}</Button>
			{/each}
		</div>
	{/if}
	<ul class="mt-3 divide-y border-t">
		{#each keys as key (key)}
			{@const value = workingValue(key)}
			{@const own = overridden.includes(key)}
			<li class="grid items-center gap-x-6 gap-y-1 py-2 sm:grid-cols-[1fr_10rem_15rem]">
				<div>
					<p>{value.label}</p>
					<p class="text-xs text-slate">
						{markSentence[value.mark]}{value.source ? `: ${value.source}` : ''}{value.note
							? `. ${value.note}`
							: ''}
					</p>
				</div>
				<p class="font-display text-lg font-semibold sm:text-right">
					{number(values[key])} <span class="font-sans text-sm font-normal text-slate">{value.unit}</span>
					{#if own}<span class="block font-sans text-xs font-normal text-ochre"
							>yours; shipped {number(value.value)}</span
						>{/if}
				</p>
				<ForOwners
					><div class="flex justify-end gap-1">
						{#if editing === key}
							<form
								method="POST"
								action="?/set"
								use:enhance={act({ done: () => (editing = null) })}
								class="flex gap-1"
							>
								<input type="hidden" name="key" value={key} />
								<input
									class="input !w-24"
									name="value"
									value={values[key]}
									inputmode="decimal"
									aria-label="Your own number, {value.min} to {value.max}"
									title="{value.min} to {value.max} {value.unit}"
								/>
								<Button type="submit" tone="solid">Keep</Button>
							</form>
						{:else}
							<Button
								size="small"
								tone="quiet"
								aria-label="Change: {value.label}"
								onclick={() => (editing = key)}>Change</Button
							>
							{#if own}
								<form method="POST" action="?/reset" use:enhance={act()}>
									<input type="hidden" name="key" value={key} />
									<Button size="small" type="submit" aria-label="Back to shipped: {value.label}"
										>Back to shipped</Button
									>
								</form>
							{/if}
						{/if}
					</div></ForOwners
				>
			</li>
		{/each}
	</ul>
</ReferenceFrame>
