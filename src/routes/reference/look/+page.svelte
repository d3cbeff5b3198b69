<script lang="ts">
	import LookView from '$views/reference/LookView.svelte';
</script>

<LookView />
