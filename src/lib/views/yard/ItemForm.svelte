<script lang="ts">
	import { enhance } from '$app/forms';
	import { componentIds } from '$core/replant/mixes/components';
	import {
		itemIds,
		itemName,
		itemUnit,
		supplyIds,
		type ItemId,
		type StockItem
	} from '$core/replant/kit/stock';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import ComboField from '$ui/ComboField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { untrack } from 'svelte';

	interface Props {
		entry?: StockItem;
		/** What stands in the stock already. */
		known: readonly ItemId[];
		refused?: Refused | null;
		done?: () => void;
	}
	let { entry, known, refused, done }: Props = $props();
	let item = $state<ItemId>(
		untrack(() => entry?.item ?? itemIds.find((id) => !known.includes(id)) ?? 'perlite')
	);
	const unit = $derived(itemUnit(item));
	const face = $derived(unit === 'pieces' ? '' : unit);
	const free = (ids: readonly ItemId[]): readonly ItemId[] =>
		ids.filter((id) => id === entry?.item || !known.includes(id));
</script>

<form
	method="POST"
	action="?/item"
	use:enhance={act({ done, keep: true })}
	{@attach keepTyped(`item.${entry?.id ?? 'new'}`)}
	class="flex flex-col gap-4"
	novalidate
>
	<Problem {refused} />
	{#if entry}<input type="hidden" name="id" value={entry.id} /><input
			type="hidden"
			name="version"
			value={entry.version}
		/>{/if}
	<ComboField
		name="item"
		label="What"
		value={item}
		onchange={(chosen) => {
			item = itemIds.find((id) => id === chosen) ?? item;
		}}
		options={[
			...free(componentIds).map((value) => ({ value, label: itemName(value), group: 'For mixes' })),
			...free(supplyIds).map((value) => ({ value, label: itemName(value), group: 'Supplies' }))
		]}
		{refused}
	/>
	{#key unit}
		<div class="grid gap-3 sm:grid-cols-2">
			<MeasureField
				name="packSize"
				label={unit === 'pieces' ? 'Pieces in a pack' : 'A pack or bag holds'}
				unit={face}
				value={entry?.packSize ?? null}
				{refused}
			/>
			<MeasureField name="packs" label="Full packs" unit="" value={entry?.packs ?? 1} {refused} />
			<MeasureField
				name="opened"
				label="Left in what is open"
				unit={face}
				value={entry?.opened ?? 0}
				{refused}
			/>
			<MeasureField
				name="price"
				label="Price of a pack"
				unit=""
				value={entry?.price ?? null}
				optional
				{refused}
			/>
		</div>
	{/key}
	<TextField name="note" label="Note" value={entry?.note ?? ''} optional {refused} />
	<div><Button type="submit" tone="solid">{entry ? 'Keep the changes' : 'Add to the stock'}</Button></div>
</form>
