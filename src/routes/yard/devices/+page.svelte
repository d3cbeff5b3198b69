<script lang="ts">
	import DevicesView from '$views/weather/DevicesView.svelte';

	let { data, form } = $props();
</script>

<DevicesView
	{...data}
	token={form && 'token' in form ? form.token : null}
	refused={form && 'refusal' in form ? form.refusal : null}
/>
