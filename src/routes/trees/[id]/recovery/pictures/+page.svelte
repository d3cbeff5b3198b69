<script lang="ts">
	import PicturesView from '$views/recovery/PicturesView.svelte';

	let { data, form } = $props();
</script>

<PicturesView
	tree={data.records.tree}
	pictures={data.records.pictures}
	works={data.care.marks.filter((mark) => mark.kind === 'stage-done' || mark.kind === 'planted')}
	today={data.today}
	values={data.values}
	refused={form?.refusal}
/>
