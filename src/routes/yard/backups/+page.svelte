<script lang="ts">
	import YardBackupsView from '$views/yard/YardBackupsView.svelte';

	let { data, form } = $props();
</script>

<YardBackupsView
	{...data}
	mayMake={data.who?.role === 'owner'}
	refused={form && 'refusal' in form ? form.refusal : null}
/>
