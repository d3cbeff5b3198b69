<script lang="ts">
	import GlossaryView from '$views/reference/GlossaryView.svelte';
</script>

<GlossaryView />
