<script lang="ts">
	import TreeSheetView from '$views/take-in/TreeSheetView.svelte';

	let { data, form } = $props();
</script>

<TreeSheetView
	places={data.places}
	sheet={form && 'sheet' in form ? (form.sheet ?? null) : null}
	refused={form && 'refusal' in form ? (form.refusal ?? null) : null}
/>
