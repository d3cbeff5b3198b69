<script lang="ts">
	import RecoveryView from '$views/recovery/RecoveryView.svelte';

	let { data, form } = $props();
</script>

<RecoveryView {...data} expected={data.care.expected} refused={form?.refusal} />
