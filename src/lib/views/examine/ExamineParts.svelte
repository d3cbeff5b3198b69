<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';

	/** The parts of Examine: a look, what is measured, the decision before the work, and what was changed. */
	interface Props {
		treeId: string;
		/** Part that asks for attention, with a word why. */
		asks?: { part: string; word: string } | null;
	}
	let { treeId, asks = null }: Props = $props();
	const parts = [
		{ path: '', label: 'Look', route: '/trees/[id]/examine' },
		{ path: '/measure', label: 'Measure', route: '/trees/[id]/examine/measure' },
		{ path: '/soil', label: 'Soil', route: '/trees/[id]/examine/soil' },
		{ path: '/before', label: 'Before the work', route: '/trees/[id]/examine/before' },
		{ path: '/changes', label: 'What was changed', route: '/trees/[id]/examine/changes' }
	] as const;
	const here = $derived(page.url.pathname.split('/examine')[1] ?? '');
</script>

<nav aria-label="Parts of Examine" class="no-print -mx-4 overflow-x-auto px-4 sm:mx-0 sm:px-0">
	<ol class="flex gap-x-4">
		{#each parts as part (part.path)}
			<li>
				<a
					href={resolve(part.route, { id: treeId })}
					data-sveltekit-noscroll
					aria-current={here === part.path ? 'page' : undefined}
					class={[
						'flex min-h-11 items-center whitespace-nowrap',
						here === part.path ? 'font-bold' : 'chalk text-slate hover:text-ink'
					]}
					>{part.label}{#if asks && asks.part === part.path}<span
							class="ml-1.5 text-sm font-semibold text-ochre">{asks.word}</span
						>{/if}</a
				>
			</li>
		{/each}
	</ol>
</nav>
