<script lang="ts">
	import CalendarView from '$views/today/CalendarView.svelte';

	let { data } = $props();
</script>

<CalendarView {...data} />
