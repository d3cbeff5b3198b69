<script lang="ts">
	import JudgedView from '$views/practice/JudgedView.svelte';

	let { data } = $props();
</script>

<JudgedView {...data} />
