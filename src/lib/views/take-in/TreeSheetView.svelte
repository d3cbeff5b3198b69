<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import { sheetColumnNames, sheetColumns, type SheetColumn } from '$core/take-in/tree-sheet';
	import type { Place } from '$core/vocabulary/place';
	import { permissionNames, reservesNames, situationNames, vigours } from '$core/vocabulary/words';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	/** Trees out of a spreadsheet: its columns, what becomes of each row, and nothing kept before it was looked at. */
	interface Props {
		places: readonly Pick<Place, 'id' | 'name'>[];
		sheet: {
			header: string[];
			columns: Record<SheetColumn, number | null>;
			missing: string[];
			rows: { line: number; tag: string; name: string; problems: string[] }[];
		} | null;
		refused: Refused | null;
	}
	let { places, sheet, refused }: Props = $props();
	const format = useFormat();
	let text = $state('');
	/** Chosen by hand; empty where a column goes by its name. */
	let chosen = $state<Partial<Record<SheetColumn, string>>>({});
	const good = $derived(sheet?.rows.filter(({ problems }) => problems.length === 0) ?? []);
	const bad = $derived(sheet?.rows.filter(({ problems }) => problems.length > 0) ?? []);
	const SHOWN = 200;

	async function read(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		text = await file.text();
		chosen = {};
	}
	const options = <T extends string>(names: Record<T, string>) =>
		(Object.entries(names) as [T, string][]).map(([value, label]) => ({ value, label }));
	const columnValue = (column: SheetColumn): string =>
		chosen[column] ?? (sheet ? String(sheet.columns[column] ?? -1) : '');
	/** A form that was looked at is taken in as it was looked at. */
	let looked = $state<[name: string, value: string][]>([]);
	const note = (form: HTMLFormElement): void => {
		looked = [...new FormData(form)].flatMap(([name, value]): [string, string][] =>
			typeof value === 'string' && name !== 'sent' ? [[name, value]] : []
		);
	};
</script>

<svelte:head><title>Trees from a spreadsheet · Bruntle</title></svelte:head>

<div class="page max-w-4xl pt-6 pb-16">
	<h1 class="text-3xl">Trees from a spreadsheet</h1>
	<p class="mt-1 max-w-prose text-lg">
		Save the sheet as CSV, with the names of its columns in the first line. Everything is shown before
		anything is kept.
	</p>
	<form
		method="POST"
		action="?/look"
		use:enhance={act({ keep: true })}
		onsubmit={(event) => note(event.currentTarget)}
		class="mt-5 flex flex-col gap-5"
		novalidate
	>
		<Problem {refused} />
		<label class="flex flex-col gap-1">
			<span class="text-sm font-semibold">CSV file</span>
			<input
				class="input"
				type="file"
				accept=".csv,.tsv,.txt,text/csv"
				onchange={(event) => void read(event.currentTarget)}
			/>
		</label>
		<label class="flex flex-col gap-1" data-field="text" data-label="Rows">
			<span class="text-sm font-semibold">Or its rows, pasted</span>
			<textarea class="input font-mono text-sm" name="text" rows="5" bind:value={text}></textarea>
		</label>
		<fieldset class="grid gap-4 sm:grid-cols-2">
			<legend class="mb-2 font-semibold">Where a row says nothing of it</legend>
			<SelectField
				name="placeId"
				label="Place"
				optional
				options={[
					{ value: '', label: 'to be said by the row' },
					...places.map(({ id, name }) => ({ value: id, label: name }))
				]}
			/>
			<div class="hidden sm:block"></div>
			<Choice
				label="How it stands"
				name="situation"
				size="small"
				value=""
				options={options(situationNames)}
			/>
			<Choice
				label="Permission to lift or work on it"
				name="permission"
				size="small"
				value=""
				options={options(permissionNames)}
			/>
			<Choice
				label="Vigour today"
				name="vigour"
				size="small"
				value=""
				options={vigours.map((value) => ({ value, label: value }))}
			/>
			<Choice label="Reserves" name="reserves" size="small" value="" options={options(reservesNames)} />
		</fieldset>
		{#if sheet}
			<fieldset>
				<legend class="mb-2 font-semibold">Its columns</legend>
				<div class="grid gap-3 sm:grid-cols-3">
					{#each sheetColumnNames as column (column)}
						<SelectField
							name="columns.{column}"
							label={sheetColumns[column].label}
							optional={!sheetColumns[column].wanted}
							value={columnValue(column)}
							options={[
								{ value: '-1', label: 'no column' },
								...sheet.header.map((name, at) => ({ value: String(at), label: name || `column ${at + 1}` }))
							]}
							onchange={(event) => (chosen[column] = event.currentTarget.value)}
						/>
					{/each}
				</div>
			</fieldset>
		{/if}
		<div>
			<Button type="submit" tone={sheet ? 'outline' : 'solid'}>{sheet ? 'Look again' : 'Look at it'}</Button>
		</div>
	</form>

	{#if sheet}
		<section class="mt-8" aria-labelledby="found">
			<h2 id="found" class="text-xl">
				{#if sheet.missing.length > 0}Not found: {sheet.missing.join(', ')}
				{:else}{counted(format().number(good.length), 'tree')} can be taken in{bad.length > 0
						? `, ${counted(format().number(bad.length), 'row')} cannot`
						: ''}{/if}
			</h2>
			{#if sheet.missing.length > 0}
				<p class="mt-1">Choose the column that says it, above, and look again.</p>
			{:else}
				{#if bad.length > 0}
					<p class="mt-1 max-w-prose">
						Put the rows right in the sheet and read it again, or go on without them: only the trees that can
						be taken in are.
					</p>
				{/if}
				<table class="mt-3 w-full text-left">
					<thead>
						<tr class="text-sm text-slate">
							<th scope="col" class="py-1 pr-3 font-normal">Line</th>
							<th scope="col" class="py-1 pr-3 font-normal">Tag</th>
							<th scope="col" class="py-1 pr-3 font-normal">Name</th>
							<th scope="col" class="py-1 font-normal">What becomes of it</th>
						</tr>
					</thead>
					<tbody>
						{#each [...bad, ...good].slice(0, SHOWN) as row (row.line)}
							<tr class="border-t align-top">
								<td class="py-1 pr-3">{row.line}</td>
								<td class="py-1 pr-3 font-semibold">{row.tag}</td>
								<td class="py-1 pr-3">{row.name}</td>
								<td class={['py-1', row.problems.length > 0 && 'text-oxide']}
									>{row.problems.length > 0 ? row.problems.join(' ') : 'Goes in'}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
				{#if sheet.rows.length > SHOWN}<p class="mt-2 text-slate">
						The first {SHOWN} rows are shown, of {format().number(sheet.rows.length)}.
					</p>{/if}
				{#if good.length > 0}
					<form
						method="POST"
						action="?/take"
						use:enhance={act({ done: () => void goto(resolve('/trees')) })}
						class="mt-4"
					>
						{#each looked as [name, value] (name)}<input type="hidden" {name} {value} />{/each}
						<Button type="submit" tone="solid" size="large"
							>Take {good.length === 1 ? 'this tree' : `these ${format().number(good.length)} trees`} in</Button
						>
					</form>
				{/if}
			{/if}
		</section>
	{/if}
</div>
