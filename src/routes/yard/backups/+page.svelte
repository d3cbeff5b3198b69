<script lang="ts">
	import YardBackupsView from '$views/yard/YardBackupsView.svelte';

	let { data, form } = $props();
	const refusal = $derived((form && 'refusal' in form && form.refusal) || null);
	const ofArchive = $derived(refusal !== null && 'sending' in refusal.typed);
</script>

<YardBackupsView
	{...data}
	mayMake={data.who?.role === 'owner'}
	looked={(form && 'archive' in form && form.archive) || null}
	notRead={ofArchive ? refusal : null}
	refused={ofArchive ? null : refusal}
/>
