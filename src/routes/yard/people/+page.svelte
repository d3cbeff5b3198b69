<script lang="ts">
	import PeopleView from '$views/people/PeopleView.svelte';

	let { data, form } = $props();
</script>

<PeopleView
	{...data}
	invited={form && 'invited' in form ? form.invited : null}
	refused={form && 'refusal' in form ? form.refusal : null}
/>
