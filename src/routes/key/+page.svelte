<script lang="ts">
	import SignInView from '$views/people/SignInView.svelte';

	let { data, form } = $props();
</script>

<SignInView {...data} refused={form && 'refusal' in form ? form.refusal : null} />
