<script lang="ts">
	import KindsView from '$views/reference/KindsView.svelte';

	let { data, form } = $props();
</script>

<KindsView kinds={data.kinds} refused={form?.refusal} />
