<script lang="ts">
	import ExamineView from '$views/examine/ExamineView.svelte';

	let { data, form } = $props();
</script>

<!-- A look belongs to its day: on the next day of a practice round another begins. -->
{#key data.practice?.day}
	<ExamineView {...data} refused={form?.refusal} />
{/key}
