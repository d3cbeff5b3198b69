<script lang="ts">
	import InvitedView from '$views/people/InvitedView.svelte';

	let { data, form } = $props();
</script>

<InvitedView {...data} refused={form && 'refusal' in form ? form.refusal : null} />
