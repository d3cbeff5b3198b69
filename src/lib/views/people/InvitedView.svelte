<script lang="ts">
	import { roleSentences, type Role } from '$core/vocabulary/people';
	import type { Refused } from '$ui/field';
	import NewPersonForm from './NewPersonForm.svelte';

	/** Where somebody who was invited says who they are. */
	interface Props {
		role: Role;
		refused?: Refused | null | undefined;
	}
	let { role, refused }: Props = $props();
</script>

<svelte:head><title>You are invited · Bruntle</title></svelte:head>

<div class="page max-w-lg pt-8 pb-16">
	<h1 class="text-3xl">You are invited to this yard</h1>
	<p class="mt-3 text-slate">
		{role === 'owner' ? 'As an owner. ' : 'As a helper. '}{roleSentences[role]}
	</p>
	<div class="mt-5"><NewPersonForm action={null} button="Come in" {refused} /></div>
</div>
