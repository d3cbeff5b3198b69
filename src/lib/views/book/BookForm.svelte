<script lang="ts">
	import { sideName } from '$core/text/sides';
	import { numberTyped } from '$core/text/typed';
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import {
		bookDetails,
		bookKind,
		bookKindIds,
		dealsNames,
		type BookDetails,
		type BookEntry,
		type BookKind,
		type Detail
	} from '$core/aftercare/book/book';
	import { spokenAgainst, type BookFacts } from '$core/aftercare/book/effects';
	import type { TreeRecords } from '$core/tree/case';
	import type { StoredUnit } from '$core/text/format';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';

	/** Asks of an entry exactly what its kind has. */
	interface Props {
		records: TreeRecords;
		facts: BookFacts;
		/** Trees that the same may be written down for. */
		like: { id: string; tag: string; name: string }[];
		values: Values;
		today: string;
		begin: BookKind | null;
		corrects: BookEntry | null;
		refused?: Refused | null;
		ondone: () => void;
	}
	let { records, facts, like, values, today, begin, corrects, refused, ondone }: Props = $props();
	const format = useFormat();
	/** Nothing is suggested: what it was is said first. */
	let kind = $state<BookKind | ''>(untrack(() => corrects?.kind ?? begin ?? ''));
	const of = $derived(kind === '' ? null : bookKind(kind));
	const inGround = $derived(records.tree.situation === 'in-ground');
	let on = $state(untrack(() => corrects?.on ?? today));
	/** What was typed so far of what may speak against it. */
	let typed = $state<Partial<BookDetails>>(untrack(() => ({ ...corrects?.details })));
	const given = <D extends Detail>(detail: D): BookDetails[D] | null => corrects?.details[detail] ?? null;
	const against = $derived(
		kind === ''
			? []
			: spokenAgainst(
					{ kind, on, details: { ...bookDetails.parse({}), ...typed } },
					records.book.filter((entry) => entry.id !== corrects?.id),
					facts,
					values
				)
	);
	const stops = $derived(against.some((one) => one.stop));
	const units: Partial<Record<Detail, StoredUnit>> = {
		heightMm: 'mm',
		lengthMm: 'mm',
		widthMm: 'mm',
		depthMm: 'mm',
		diameterMm: 'mm',
		litres: 'L',
		temperatureC: '°C'
	};
	const suffix: Partial<Record<Detail, string>> = { grams: ' (g)', minutes: ' (min)', leanDeg: ' (°)' };
	const sides = [0, 45, 90, 135, 180, 225, 270, 315];
	const options: { value: string; label: string; group?: string }[] = [
		{ value: '', label: 'Choose what it was' },
		...bookKindIds.map((value) => ({
			value,
			label: bookKind(value).label,
			group: dealsNames[bookKind(value).deals]
		}))
	];
	/** Shares are typed as percent. */
	let percent = $state(
		untrack(() => {
			const share = corrects?.details.share;
			return share === null || share === undefined ? '' : String(Math.round(share * 1000) / 10);
		})
	);
	const share = $derived.by(() => {
		const number = numberTyped(percent.replace('%', ''));
		return percent.trim() === '' ? null : Number.isFinite(number) ? number / 100 : percent;
	});
</script>

<form
	method="POST"
	action="{page.url.pathname}?/write"
	use:enhance={act({ done: ondone })}
	{@attach keepTyped(`book.${records.tree.id}.${corrects?.id ?? 'new'}`)}
	class="mt-2 flex flex-col gap-3"
	novalidate
>
	<Problem {refused} />
	<input type="hidden" name="correctsId" value={corrects?.id ?? ''} />
	<input type="hidden" name="correctsVersion" value={corrects?.version ?? ''} />
	<SelectField
		name="kind"
		label="What"
		bind:value={() => kind, (next) => (kind = next as BookKind | '')}
		{options}
		{refused}
	/>
	<DateField name="on" label="On" value={on} max={today} oninput={(day) => (on = day)} {refused} />
	{#key kind}
		{#if of?.choices}
			<SelectField
				name="details.choice"
				label={of.choices.label}
				bind:value={() => typed.choice ?? '', (choice) => (typed.choice = choice || null)}
				options={[
					{ value: '', label: 'Choose' },
					...Object.entries(of.choices.options).map(([value, label]) => ({ value, label }))
				]}
				{refused}
			/>
		{/if}
		{#each Object.entries(of?.asks ?? {}) as [name, asked] (name)}
			{@const detail = name as Detail}
			{@const label = `${asked.label}${suffix[detail] ?? ''}`}
			{@const unit = units[detail]}
			{#if detail === 'bearingDeg'}
				<SelectField
					name="details.bearingDeg"
					{label}
					value={String(given('bearingDeg') ?? '')}
					optional={!asked.needed}
					options={[
						{ value: '', label: 'Not said' },
						...sides.map((deg) => ({ value: String(deg), label: sideName(deg, inGround) }))
					]}
					{refused}
				/>
			{:else if detail === 'share'}
				<TextField
					name="details.share~shown"
					label="{label} (%)"
					inputmode="decimal"
					optional={!asked.needed}
					value={percent}
					oninput={(event: Event & { currentTarget: HTMLInputElement }) => {
						percent = event.currentTarget.value;
						typed.share = typeof share === 'number' ? share : null;
					}}
					{refused}
				/>
				<input type="hidden" name="details.share" value={share ?? ''} />
			{:else if detail === 'untilOn'}
				<DateField
					name="details.untilOn"
					{label}
					min={on}
					optional={!asked.needed}
					value={given('untilOn') ?? ''}
					{refused}
				/>
			{:else if unit}
				<MeasureField
					name="details.{detail}"
					{label}
					{unit}
					hint={asked.hint}
					optional={!asked.needed}
					value={given(detail) as number | null}
					oninput={(stored) => {
						if (detail === 'heightMm') typed.heightMm = stored;
					}}
					{refused}
				/>
			{:else}
				<TextField
					name="details.{detail}"
					{label}
					hint={asked.hint}
					optional={!asked.needed}
					value={String(given(detail) ?? '')}
					inputmode={['product', 'strength', 'first'].includes(detail) ? 'text' : 'decimal'}
					oninput={(event: Event & { currentTarget: HTMLInputElement }) => {
						if (detail === 'count')
							typed.count =
								event.currentTarget.value.trim() === '' ? null : Number(event.currentTarget.value);
					}}
					{refused}
				/>
			{/if}
		{/each}
	{/key}
	{#if of?.minds}<p class="text-sm text-slate">{of.minds}</p>{/if}
	{#each against as one (one.text)}
		<Caution>{format().inWords(one.text)}</Caution>
	{/each}
	<TextField
		name="note"
		label={stops ? 'Why all the same' : 'Note'}
		value={corrects?.note ?? ''}
		optional={!stops}
		{refused}
	/>
	{#if !corrects && kind !== '' && like.length > 0}
		<details>
			<summary class="chalk min-h-11 content-center">The same for others like it, {like.length}</summary>
			<fieldset class="mt-1 grid gap-x-4 sm:grid-cols-2">
				<legend class="sr-only">Write the same down for</legend>
				{#each like as other (other.id)}
					<label class="flex min-h-11 items-center gap-2"
						><input type="checkbox" class="size-5 shrink-0" name="also" value={other.id} /><span
							><strong>{other.tag}</strong> {other.name}</span
						></label
					>
				{/each}
			</fieldset>
		</details>
	{/if}
	<Button type="submit" tone="solid" disabled={kind === ''}
		>{corrects ? 'Keep the correction' : 'Write it down'}</Button
	>
</form>
