<script lang="ts">
	import BackupsView from '$views/recovery/BackupsView.svelte';

	let { data, form } = $props();
</script>

{#key data.records.tree.id}
	<BackupsView
		tree={data.records.tree}
		backups={data.records.backups}
		advice={data.advice}
		children={data.children}
		places={data.yardPlaces}
		parentTree={data.parentTree}
		values={data.values}
		today={data.today}
		refused={form?.refusal}
	/>
{/key}
