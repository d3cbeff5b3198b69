<script lang="ts">
	import { resolve } from '$app/paths';
	import { groupNames, type Group } from '$core/kinds/kind';
	import { situationNames, treeStateNames, type Situation, type TreeState } from '$core/tree/tree';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import { useFormat } from '$ui/format';
	import Plus from '@lucide/svelte/icons/plus';

	interface Row {
		id: string;
		tag: string;
		name: string;
		kindName: string;
		group: string;
		situation: Situation;
		placeName: string;
		state: TreeState;
		plantCount: number;
		takenInOn: string;
		lastLookOn: string | null;
		nextTask: string | null;
		nextOn: string | null;
	}
	interface Props {
		rows: Row[];
		today: string;
	}
	let { rows, today }: Props = $props();
	const format = useFormat();

	type Filter = 'in-care' | 'closed' | 'all';
	let filter = $state<Filter>('in-care');
	let words = $state('');
	let sortBy = $state<'tag' | 'name' | 'placeName' | 'lastLookOn' | 'nextOn'>('nextOn');
	let limit = $state(150);

	const shown = $derived.by(() => {
		const wanted = words.trim().toLowerCase().split(/\s+/).filter(Boolean);
		const found = rows.filter((row) => {
			if (filter === 'in-care' && row.state !== 'in-care') return false;
			if (filter === 'closed' && row.state === 'in-care') return false;
			const text = `${row.tag} ${row.name} ${row.kindName} ${row.placeName} ${row.group}`.toLowerCase();
			return wanted.every((word) => text.includes(word));
		});
		return found.sort((a, b) =>
			(a[sortBy] ?? '9999').localeCompare(b[sortBy] ?? '9999', undefined, { numeric: true })
		);
	});
	const columns = [
		{ key: 'tag', label: 'Tag' },
		{ key: 'name', label: 'Tree' },
		{ key: 'placeName', label: 'Place' },
		{ key: 'lastLookOn', label: 'Last look' },
		{ key: 'nextOn', label: 'Next' }
	] as const;
</script>

<div class="page pt-6">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<h1 class="text-3xl">Trees</h1>
		<Button tone="solid" href={resolve('/trees/new')}><Plus size={18} /> Take in</Button>
	</div>
	<div class="mt-4 flex flex-wrap items-end gap-4">
		<label class="flex min-w-60 flex-1 flex-col gap-1 sm:max-w-sm">
			<span class="text-sm font-semibold">Narrow down</span>
			<input class="input" type="search" bind:value={words} placeholder="tag, name, kind, place" />
		</label>
		<Choice
			label="Which"
			bind:value={filter}
			options={[
				{ value: 'in-care', label: 'In care' },
				{ value: 'closed', label: 'Closed' },
				{ value: 'all', label: 'All' }
			]}
		/>
	</div>
	<p class="mt-4 text-sm text-slate" role="status">{shown.length} of {rows.length}</p>

	{#if shown.length === 0}
		<p class="mt-6 text-lg">
			None of that description. Change the words above, or <a class="chalk" href={resolve('/trees/new')}
				>take one in</a
			>.
		</p>
	{:else}
		<table class="mt-1 hidden w-full border-t md:table">
			<thead>
				<tr class="border-b text-left text-sm">
					{#each columns as column (column.key)}
						<th class="py-1 pr-4" aria-sort={sortBy === column.key ? 'ascending' : undefined}>
							<button
								class={[
									'min-h-8 font-semibold',
									sortBy === column.key ? 'text-ink' : 'text-slate hover:text-ink'
								]}
								onclick={() => (sortBy = column.key)}
								>{column.label}{sortBy === column.key ? ' ↓' : ''}</button
							>
						</th>
					{/each}
				</tr>
			</thead>
			<tbody class="divide-y">
				{#each shown.slice(0, limit) as row (row.id)}
					<tr class="align-top hover:bg-duff/50">
						<td class="py-2.5 pr-4"><TreeTag tag={row.tag} size="small" /></td>
						<td class="py-2.5 pr-4">
							<a class="font-semibold hover:underline" href={resolve('/trees/[id]', { id: row.id })}
								>{row.name}</a
							>
							<span class="block text-sm text-slate">
								{row.kindName}, {groupNames[row.group as Group] ?? row.group}{row.plantCount > 1
									? `, lot of ${row.plantCount}`
									: ''}
							</span>
						</td>
						<td class="py-2.5 pr-4"
							>{row.placeName}<span class="block text-sm text-slate">{situationNames[row.situation]}</span
							></td
						>
						<td class="py-2.5 pr-4 whitespace-nowrap"
							>{row.lastLookOn ? format().day(row.lastLookOn, today) : 'none yet'}</td
						>
						<td class="max-w-96 py-2.5">
							{#if row.state !== 'in-care'}<span class="text-slate">{treeStateNames[row.state]}</span>
							{:else if row.nextTask}
								<span class={row.nextOn && row.nextOn <= today ? 'font-semibold' : ''}>{row.nextTask}</span>
								<span class="block text-sm text-slate"
									>{row.nextOn ? format().day(row.nextOn, today) : ''}</span
								>
							{:else}<span class="text-ochre">no next look set</span>{/if}
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
		<ul class="divide-y border-t md:hidden">
			{#each shown.slice(0, limit) as row (row.id)}
				<li>
					<a href={resolve('/trees/[id]', { id: row.id })} class="block py-3">
						<span class="flex items-center gap-2"
							><TreeTag tag={row.tag} size="small" /><span class="font-semibold">{row.name}</span></span
						>
						<span class="mt-1 block text-sm text-slate">{row.kindName}, {row.placeName}</span>
						<span class="mt-0.5 block text-sm">
							{row.state !== 'in-care' ? treeStateNames[row.state] : (row.nextTask ?? 'no next look set')}
						</span>
					</a>
				</li>
			{/each}
		</ul>
		{#if shown.length > limit}
			<Button class="mt-4" onclick={() => (limit += 300)}>Show more, {shown.length - limit} are left</Button>
		{/if}
	{/if}
</div>
