<script lang="ts">
	import DevicesView from '$views/weather/DevicesView.svelte';

	let { data, form } = $props();
</script>

<DevicesView
	rows={data.rows}
	places={data.places}
	trees={data.trees}
	today={data.today}
	token={form && 'token' in form ? form.token : null}
	refused={form && 'refusal' in form ? form.refusal : null}
/>
