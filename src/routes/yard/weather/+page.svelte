<script lang="ts">
	import WeatherView from '$views/weather/WeatherView.svelte';

	let { data, form } = $props();
</script>

<WeatherView {...data} refused={form?.refusal} />
