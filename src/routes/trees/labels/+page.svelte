<script lang="ts">
	import LabelsView from '$views/take-in/LabelsView.svelte';

	let { data } = $props();
</script>

<LabelsView rows={data.rows} base={data.base} alone={data.alone} />
