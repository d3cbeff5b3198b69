<script lang="ts">
	import { enhance } from '$app/forms';
	import { PASSPHRASE_LEAST } from '$core/vocabulary/people';
	import Button from '$ui/Button.svelte';
	import PassphraseField from '$ui/PassphraseField.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';

	/** Name and passphrase of somebody new. */
	interface Props {
		action: string | null;
		button: string;
		refused?: Refused | null | undefined;
	}
	let { action, button, refused }: Props = $props();
</script>

<form method="POST" {action} use:enhance={act()} class="flex max-w-lg flex-col gap-4" novalidate>
	<Problem refused={refused ?? null} />
	<TextField
		name="name"
		label="Name"
		hint="As the others of the yard call you; it stands beside what you do."
		autocomplete="username"
		refused={refused ?? null}
	/>
	<PassphraseField
		name="passphrase"
		label="Passphrase"
		hint="{PASSPHRASE_LEAST} characters or more. Four or five words that do not belong together do well."
		fresh
		{refused}
	/>
	<div><Button type="submit" tone="solid">{button}</Button></div>
</form>
