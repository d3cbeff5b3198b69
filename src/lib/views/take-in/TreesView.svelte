<script lang="ts">
	import { resolve } from '$app/paths';
	import { groupNames, type Group as PlantGroup } from '$core/vocabulary/kind';
	import { situationNames, treeStateNames, type Situation, type TreeState } from '$core/vocabulary/words';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import { arrows } from '$ui/arrows';
	import { useFormat } from '$ui/format';
	import NarrowDown from '$ui/NarrowDown.svelte';
	import { fits } from './narrow';
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

	type Group = 'none' | 'placeName' | 'kindName' | 'group' | 'state';
	let groupBy = $state<Group>('none');
	const groupOptions: { value: Group; label: string }[] = [
		{ value: 'none', label: 'not grouped' },
		{ value: 'placeName', label: 'by place' },
		{ value: 'kindName', label: 'by kind' },
		{ value: 'group', label: 'by group' },
		{ value: 'state', label: 'by how it stands' }
	];
	const levelOf = (row: Row): string =>
		groupBy === 'none'
			? ''
			: groupBy === 'group'
				? (groupNames[row.group as PlantGroup] ?? row.group)
				: groupBy === 'state'
					? treeStateNames[row.state]
					: row[groupBy];
	/** Columns at will; tag and tree always stand. */
	let hidden = $state<string[]>([]);
	const optional = [
		{ key: 'placeName', label: 'Place' },
		{ key: 'takenInOn', label: 'In care since' },
		{ key: 'lastLookOn', label: 'Last look' },
		{ key: 'nextOn', label: 'Next' }
	] as const;
	const shows = (key: string): boolean => !hidden.includes(key);

	type Filter = 'in-care' | 'closed' | 'all';
	let filter = $state<Filter>('in-care');
	let words = $state('');
	let sortBy = $state<'tag' | 'name' | 'placeName' | 'takenInOn' | 'lastLookOn' | 'nextOn'>('nextOn');
	let falling = $state(false);
	let limit = $state(150);

	const shown = $derived.by(() => {
		const found = rows.filter((row) => {
			if (filter === 'in-care' && row.state !== 'in-care') return false;
			if (filter === 'closed' && row.state === 'in-care') return false;
			return fits(row, words);
		});
		const way = falling ? -1 : 1;
		return found.sort(
			(a, b) =>
				levelOf(a).localeCompare(levelOf(b)) ||
				way * (a[sortBy] ?? '9999').localeCompare(b[sortBy] ?? '9999', undefined, { numeric: true })
		);
	});
	const columns = [{ key: 'tag', label: 'Tag' }, { key: 'name', label: 'Tree' }, ...optional] as const;
	const counts = $derived(
		shown.reduce(
			(sum, row) => sum.set(levelOf(row), (sum.get(levelOf(row)) ?? 0) + 1),
			new Map<string, number>()
		)
	);
</script>

<div class="page pt-6" {@attach arrows}>
	<div class="flex flex-wrap items-end justify-between gap-4">
		<h1 class="text-3xl">Trees</h1>
		<span class="flex flex-wrap gap-2">
			<Button href={resolve('/yard/outcomes')}>Outcomes</Button>
			<Button href={resolve('/yard/review')}>Review</Button>
			<Button href={resolve('/trees/labels')}>Labels</Button>
			<Button href={resolve('/trees/read')}>From a spreadsheet</Button>
			<Button tone="solid" href={resolve('/trees/new')}><Plus size={18} /> Take in</Button>
		</span>
	</div>
	<div class="mt-4 flex flex-wrap items-end gap-4">
		<NarrowDown bind:words of="tag, name, kind, place" />
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
	<div class="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2 text-sm">
		<label class="flex items-center gap-2"
			>Group <select class="input w-auto" bind:value={groupBy} aria-label="Group the trees">
				{#each groupOptions as option (option.value)}<option value={option.value}>{option.label}</option
					>{/each}
			</select></label
		>
		<fieldset class="hidden flex-wrap items-center gap-3 md:flex">
			<legend class="sr-only">Columns</legend>
			{#each optional as column (column.key)}
				<label class="flex items-center gap-1.5"
					><input
						type="checkbox"
						class="size-5"
						checked={shows(column.key)}
						onchange={() =>
							(hidden = shows(column.key)
								? [...hidden, column.key]
								: hidden.filter((key) => key !== column.key))}
					/>
					{column.label}</label
				>
			{/each}
		</fieldset>
	</div>
	<p class="mt-4 text-sm text-slate">
		<span role="status">{shown.length} of {rows.length}</span><span class="max-md:hidden"
			>; ↓ and ↑ walk the list, Enter opens a tree</span
		>
	</p>

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
					{#each columns.filter((one) => shows(one.key)) as column (column.key)}
						<th
							class="py-1 pr-4"
							aria-sort={sortBy === column.key ? (falling ? 'descending' : 'ascending') : undefined}
						>
							<button
								class={[
									'min-h-8 font-semibold',
									sortBy === column.key ? 'text-ink' : 'text-slate hover:text-ink'
								]}
								onclick={() => {
									falling = sortBy === column.key ? !falling : false;
									sortBy = column.key;
								}}>{column.label}{sortBy === column.key ? (falling ? ' ↑' : ' ↓') : ''}</button
							>
						</th>
					{/each}
				</tr>
			</thead>
			<tbody class="divide-y">
				{#each shown.slice(0, limit) as row, i (row.id)}
					{@const before = shown[i - 1]}
					{#if groupBy !== 'none' && (!before || levelOf(before) !== levelOf(row))}
						<tr class="bg-duff/60"
							><th colspan={columns.length} scope="rowgroup" class="px-2 py-1.5 text-left font-semibold"
								>{levelOf(row)} <span class="font-normal text-slate">{counts.get(levelOf(row))}</span></th
							></tr
						>
					{/if}
					<tr class="align-top hover:bg-duff/50">
						<td class="py-2.5 pr-4"><TreeTag tag={row.tag} size="small" /></td>
						<td class="py-2.5 pr-4">
							<a data-stop class="font-semibold hover:underline" href={resolve('/trees/[id]', { id: row.id })}
								>{row.name}</a
							>
							<span class="block text-sm text-slate">
								{row.kindName}, {groupNames[row.group as PlantGroup] ?? row.group}{row.plantCount > 1
									? `, lot of ${row.plantCount}`
									: ''}
							</span>
						</td>
						{#if shows('placeName')}
							<td class="py-2.5 pr-4"
								>{row.placeName}<span class="block text-sm text-slate">{situationNames[row.situation]}</span
								></td
							>
						{/if}
						{#if shows('takenInOn')}
							<td class="py-2.5 pr-4 whitespace-nowrap">{format().day(row.takenInOn, today)}</td>
						{/if}
						{#if shows('lastLookOn')}<td class="py-2.5 pr-4 whitespace-nowrap"
								>{row.lastLookOn ? format().day(row.lastLookOn, today) : 'none yet'}</td
							>{/if}
						{#if shows('nextOn')}<td class="max-w-96 py-2.5">
								{#if row.state !== 'in-care'}<span class="text-slate">{treeStateNames[row.state]}</span>
								{:else if row.nextTask}
									<span class={row.nextOn && row.nextOn <= today ? 'font-semibold' : ''}
										>{format().inWords(row.nextTask, today)}</span
									>
									<span class="block text-sm text-slate"
										>{row.nextOn ? format().day(row.nextOn, today) : ''}</span
									>
								{:else}<span class="text-ochre">no next look set</span>{/if}
							</td>{/if}
					</tr>
				{/each}
			</tbody>
		</table>
		<ul class="divide-y border-t md:hidden">
			{#each shown.slice(0, limit) as row (row.id)}
				<li>
					<a data-stop href={resolve('/trees/[id]', { id: row.id })} class="block py-3">
						<span class="flex items-center gap-2"
							><TreeTag tag={row.tag} size="small" /><span class="font-semibold">{row.name}</span></span
						>
						<span class="mt-1 block text-sm text-slate">{row.kindName}, {row.placeName}</span>
						<span class="mt-0.5 block text-sm">
							{row.state !== 'in-care'
								? treeStateNames[row.state]
								: format().inWords(row.nextTask ?? 'no next look set', today)}
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
