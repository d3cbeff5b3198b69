<script lang="ts">
	import { enhance } from '$app/forms';
	import { page as current } from '$app/state';
	import { addDays } from '$core/maths/calendar';
	import type { SharedPage } from '$core/vocabulary/people';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import Link from '@lucide/svelte/icons/link';

	/** Gives one page of a tree to somebody without a key, by a link that ends by itself. */
	interface Props {
		tree: { tag: string };
		page: SharedPage;
		today: string;
	}
	let { tree, page, today }: Props = $props();
	const DAYS = 30;
	let open = $state(false);
	const made = $derived(current.form as { link?: string; qr?: string; refusal?: Refused } | null);
</script>

<Button onclick={() => (open = true)}><Link size={18} /> Give it to read</Button>
<Sheet bind:open title="Give the {page} of {tree.tag} to read">
	{#if made?.link}
		<div role="status">
			<img src={made.qr} alt="QR code of the link" class="w-44" />
			<p class="mt-2 font-semibold">Who has this link reads this page, as it stands on the day:</p>
			<p class="mt-1 font-mono text-sm break-all">{made.link}</p>
			<p class="mt-1 text-sm text-slate">It is told this once. Under People it is taken back.</p>
		</div>
	{:else}
		<form method="POST" action="?/share" use:enhance={act()} class="flex flex-col gap-3" novalidate>
			<Problem refused={made?.refusal ?? null} />
			<p>
				A link to this page alone, for somebody without a key. It shows the page as it stands on the day it is
				read, until:
			</p>
			<DateField
				name="untilOn"
				label="Last day"
				value={addDays(today, DAYS)}
				min={today}
				refused={made?.refusal ?? null}
			/>
			<div><Button type="submit" tone="solid">Make the link</Button></div>
		</form>
	{/if}
</Sheet>
