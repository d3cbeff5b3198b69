<script lang="ts">
	import type { Refused } from './field';
	import { useFormat } from './format';
	import { aboveForm } from './refused';

	interface Props {
		refused?: Refused | null;
	}
	let { refused }: Props = $props();
	const format = useFormat();
	let said = $state('');
	/** A whole plan that was changed elsewhere, which no single field of the form tells. */
	const parts = $derived(
		refused?.meanwhile && Object.entries(refused.typed).filter(([, text]) => text.startsWith('{'))
	);
	/** Fetched when it is first wanted, so that the first page stays light. */
	let Differences = $state.raw<typeof import('./Differences.svelte').default | null>(null);
	$effect(() => {
		if (parts?.length) void import('./Differences.svelte').then((module) => (Differences = module.default));
	});
	/** In the words of the form it stands in, once that is there. */
	const inItsWords = (host: HTMLElement) => {
		said = refused ? aboveForm(host.closest('form') ?? document, refused) : '';
	};
</script>

{#if refused}
	<div class="border-l-4 border-oxide py-1 pl-3 text-oxide" role="alert" {@attach inItsWords}>
		<p class="font-semibold">{format().inWords(said || refused.message)}</p>
		{#if refused.advice}<p class="text-sm">{format().inWords(refused.advice)}</p>{/if}
		{#if parts && Differences}
			<Differences entered={parts} stands={refused.meanwhile ?? {}} />
		{/if}
	</div>
{/if}
