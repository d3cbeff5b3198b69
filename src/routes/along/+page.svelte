<script lang="ts">
	import AlongView from '$views/along/AlongView.svelte';
</script>

<AlongView />
