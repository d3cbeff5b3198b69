<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { Who } from '$core/vocabulary/people';
	import Button from '$ui/Button.svelte';
	import PassphraseField from '$ui/PassphraseField.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';

	/** Where somebody shows who they are. */
	interface Props {
		who: Who | null;
		/** Whether anybody owns the yard yet. */
		owned: boolean;
		/** Page to go to afterwards. */
		to: string;
		refused?: Refused | null | undefined;
	}
	let { who, owned, to, refused }: Props = $props();
</script>

<svelte:head><title>Your key · Bruntle</title></svelte:head>

<div class="page max-w-lg pt-8 pb-16">
	<h1 class="text-3xl">Your key</h1>
	{#if who?.id}
		<p class="mt-3 text-lg">On this device you are {who.name}.</p>
		<form method="POST" action="?/out" use:enhance={act()} class="mt-5 flex flex-wrap gap-3">
			<Button href={resolve('/')}>To Today</Button>
			<Button type="submit" tone="quiet">Sign out here</Button>
		</form>
	{:else if !owned}
		<p class="mt-3 text-lg">
			Nobody owns this yard yet. Its owner is made at the computer that Bruntle runs on, under
			<a class="chalk" href={resolve('/yard/people')}>People</a>.
		</p>
	{:else}
		<p class="mt-3 text-slate">
			This yard is kept by name and passphrase. Without them: an owner of the yard invites you, with a link
			that holds for a day.
		</p>
		<form method="POST" action="?/in" use:enhance={act()} class="mt-5 flex flex-col gap-4" novalidate>
			<Problem refused={refused ?? null} />
			<input type="hidden" name="to" value={to} />
			<TextField name="name" label="Name" autocomplete="username" refused={refused ?? null} />
			<PassphraseField name="passphrase" label="Passphrase" fresh={false} {refused} />
			<div><Button type="submit" tone="solid">Sign in</Button></div>
		</form>
	{/if}
</div>
