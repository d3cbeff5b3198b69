<script lang="ts">
	import Button from './Button.svelte';
	import { meanwhileIn, type Refused } from './field';

	/** What was kept in a field elsewhere, beside what was entered here. */
	interface Props {
		name: string;
		refused?: Refused | null;
		said?: (kept: string) => string;
		take?: (kept: string) => void;
	}
	let { name, refused, said = (kept) => kept, take }: Props = $props();
	/** The refusal that was answered by taking what stands there. */
	let answered = $state.raw<Refused | null>(null);
	const kept = $derived(refused && refused !== answered ? meanwhileIn(refused, name) : null);
</script>

{#if kept !== null}
	<p class="flex flex-wrap items-center gap-x-3 text-sm text-oxide">
		<span>Stands there by now: <strong>{kept === '' ? 'nothing' : said(kept)}</strong></span>
		{#if take}
			<Button
				size="small"
				onclick={() => {
					take(kept);
					answered = refused ?? null;
				}}>Take that</Button
			>
		{/if}
	</p>
{/if}
