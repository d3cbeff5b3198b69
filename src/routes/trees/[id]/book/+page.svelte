<script lang="ts">
	import { page } from '$app/state';
	import { bookKindIds, type BookKind } from '$core/aftercare/book/book';
	import BookView from '$views/book/BookView.svelte';

	let { data, form } = $props();
	const asked = $derived(page.url.searchParams.get('kind'));
	const begin = $derived(bookKindIds.find((kind): kind is BookKind => kind === asked) ?? null);
</script>

{#key data.records.tree.id}
	<BookView
		records={data.records}
		facts={data.facts}
		like={data.like}
		values={data.values}
		today={data.today}
		{begin}
		refused={form?.refusal}
	/>
{/key}
