<script lang="ts">
	import AftercareView from '$views/aftercare/AftercareView.svelte';

	let { data, form } = $props();
</script>

<AftercareView
	{...data}
	tree={data.records.tree}
	tasks={data.records.tasks}
	waterings={data.records.waterings}
	mates={data.records.mates}
	refused={form?.refusal}
/>
