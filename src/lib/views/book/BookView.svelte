<script lang="ts">
	import { enhance } from '$app/forms';
	import {
		bookKind,
		bookSentence,
		dealsNames,
		type BookEntry,
		type BookKind
	} from '$core/aftercare/book/book';
	import type { BookFacts } from '$core/aftercare/book/effects';
	import type { TreeRecords } from '$core/tree/case';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import BookForm from './BookForm.svelte';

	/** The field book of a tree: what was done to it or seen on it and has no page of its own. */
	interface Props {
		records: TreeRecords;
		facts: BookFacts;
		/** Trees that the same may be written down for. */
		like: { id: string; tag: string; name: string }[];
		values: Values;
		today: string;
		/** A kind that another page asks to write down. */
		begin: BookKind | null;
		refused?: Refused | null;
	}
	let { records, facts, like, values, today, begin, refused }: Props = $props();
	const format = useFormat();
	const inGround = $derived(records.tree.situation === 'in-ground');
	let correcting = $state<BookEntry | null>(null);
	const latestFirst = $derived([...records.book].reverse());
	const said = (entry: BookEntry): string => format().inWords(bookSentence(entry, inGround));
</script>

<div class="page grid gap-x-10 gap-y-6 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_26rem]">
	<section aria-labelledby="book-title">
		<h2 id="book-title" class="text-xl">Field book</h2>
		<p class="mt-1 max-w-prose text-slate">
			What was done, seen or told, and has no page of its own. It counts on every other page.
		</p>
		<ul class="mt-3 divide-y border-y">
			{#each latestFirst as entry (entry.id)}
				<li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 py-2.5">
					<span class="w-24 shrink-0 text-sm text-slate">{format().day(entry.on, today)}</span>
					<span class="min-w-0 flex-1 basis-64">
						<span class="sr-only">{dealsNames[bookKind(entry.kind).deals]}: </span>{said(entry)}
						{#if entry.details.first}<span class="block text-sm text-slate">First: {entry.details.first}</span
							>{/if}
						{#if entry.version > 1}<span class="block text-sm text-slate">Corrected since.</span>{/if}
					</span>
					<span class="flex gap-1">
						<Button
							size="small"
							tone="quiet"
							aria-label="Correct: {said(entry)}"
							onclick={() => (correcting = entry)}>Correct</Button
						>
						<form method="POST" action="?/remove" use:enhance={act()}>
							<input type="hidden" name="id" value={entry.id} />
							<input type="hidden" name="version" value={entry.version} />
							<Button size="small" tone="quiet" type="submit" aria-label="Take out: {said(entry)}"
								>Take out</Button
							>
						</form>
					</span>
				</li>
			{:else}
				<li class="py-3">Nothing is written down yet.</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="write-title" class="raised h-fit">
		<h2 id="write-title" class="text-lg">{correcting ? 'Correct an entry' : 'Write down'}</h2>
		{#key correcting?.id ?? begin ?? ''}
			<BookForm
				{records}
				{facts}
				{like}
				{values}
				{today}
				{begin}
				corrects={correcting}
				{refused}
				ondone={() => (correcting = null)}
			/>
		{/key}
		{#if correcting}<Button tone="quiet" onclick={() => (correcting = null)}>Leave it as it is</Button>{/if}
	</section>
</div>
