<script lang="ts">
	import { page } from '$app/state';
	import { bookKindIds, type BookKind } from '$core/aftercare/book/book';
	import BookView from '$views/book/BookView.svelte';

	let { data, form } = $props();
	const asked = $derived(page.url.searchParams.get('kind'));
	const begin = $derived(bookKindIds.find((kind): kind is BookKind => kind === asked) ?? null);
</script>

<BookView {...data} {begin} refused={form?.refusal} />
