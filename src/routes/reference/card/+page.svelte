<script lang="ts">
	import CardView from '$views/reference/CardView.svelte';
</script>

<CardView />
