<script lang="ts">
	import PictureMeasureView from '$views/recovery/PictureMeasureView.svelte';

	let { data, form } = $props();
</script>

{#key data.picture.id}
	<PictureMeasureView
		tree={data.records.tree}
		picture={data.picture}
		rimMm={data.rimMm}
		values={data.values}
		refused={form?.refusal}
	/>
{/key}
