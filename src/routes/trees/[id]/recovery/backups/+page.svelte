<script lang="ts">
	import BackupsView from '$views/recovery/BackupsView.svelte';

	let { data, form } = $props();
</script>

<BackupsView
	{...data}
	tree={data.records.tree}
	backups={data.records.backups}
	places={data.yardPlaces}
	refused={form?.refusal}
/>
