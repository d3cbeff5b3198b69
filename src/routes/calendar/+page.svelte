<script lang="ts">
	import CalendarView from '$views/today/CalendarView.svelte';

	let { data } = $props();
</script>

<CalendarView events={data.events} month={data.month} feed={data.feed} today={data.today} />
