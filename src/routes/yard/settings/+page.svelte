<script lang="ts">
	import SettingsView from '$views/yard/SettingsView.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Units, dates and look · Bruntle</title></svelte:head>

<SettingsView
	settings={data.formatSettings}
	theme={data.theme}
	hands={data.hands}
	today={data.today}
	refused={form?.refusal}
/>
