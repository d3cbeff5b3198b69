<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';

	/** The parts of Examine: a look, what is measured, the decision before the work, and what was changed. */
	interface Props {
		treeId: string;
		/** Part that asks for attention, with a word why. */
		asks?: { part: string; why: string } | null;
	}
	let { treeId, asks = null }: Props = $props();
	const parts = $derived([
		{ path: '', label: 'Look', href: resolve('/trees/[id]/examine', { id: treeId }) },
		{ path: '/measure', label: 'Measure', href: resolve('/trees/[id]/examine/measure', { id: treeId }) },
		{ path: '/soil', label: 'Soil', href: resolve('/trees/[id]/examine/soil', { id: treeId }) },
		{
			path: '/before',
			label: 'Before the work',
			href: resolve('/trees/[id]/examine/before', { id: treeId })
		},
		{
			path: '/changes',
			label: 'What was changed',
			href: resolve('/trees/[id]/examine/changes', { id: treeId })
		}
	]);
	const here = $derived(page.url.pathname.split('/examine')[1] ?? '');
</script>

<nav aria-label="Parts of Examine" class="no-print -mx-4 overflow-x-auto px-4 sm:mx-0 sm:px-0">
	<ol class="flex gap-x-4">
		{#each parts as part (part.path)}
			<li>
				<a
					href={part.href}
					data-sveltekit-noscroll
					aria-current={here === part.path ? 'page' : undefined}
					class={[
						'flex min-h-11 items-center whitespace-nowrap',
						here === part.path ? 'font-bold' : 'chalk text-slate hover:text-ink'
					]}
					>{part.label}{#if asks && asks.part === part.path}<span
							class="ml-1.5 text-sm font-semibold text-ochre">{asks.why}</span
						>{/if}</a
				>
			</li>
		{/each}
	</ol>
</nav>
