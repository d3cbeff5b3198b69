<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import type { Snippet } from 'svelte';

	interface Props {
		title: string;
		lead?: string;
		children: Snippet;
	}
	let { title, lead, children }: Props = $props();
	const pages = [
		{ label: 'Kinds', href: resolve('/reference/kinds') },
		{ label: 'Components', href: resolve('/reference/components') },
		{ label: 'Values', href: resolve('/reference/values') },
		{ label: 'Glossary', href: resolve('/reference/glossary') },
		{ label: 'Cautions', href: resolve('/reference/cautions') },
		{ label: 'Formats', href: resolve('/reference/formats') },
		{ label: 'Card', href: resolve('/reference/card') },
		{ label: 'Look', href: resolve('/reference/look') }
	];
</script>

<svelte:head><title>{title} · Bruntle</title></svelte:head>

<div class="page pt-6">
	<nav aria-label="Reference" class="relative -mx-4 mb-4 overflow-x-auto px-4 sm:mx-0 sm:px-0">
		<ul class="flex gap-2">
			{#each pages as { label, href } (href)}
				<li>
					<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved above -->
					<a
						{href}
						class={[
							'flex min-h-11 items-end border-b-3 px-2 pb-1 font-display text-lg',
							page.url.pathname === href ? 'border-oxide font-bold' : 'border-transparent text-slate'
						]}
						aria-current={page.url.pathname === href ? 'page' : undefined}>{label}</a
					>
				</li>
			{/each}
		</ul>
	</nav>
	<h1 class="text-3xl">{title}</h1>
	{#if lead}<p class="mt-1 max-w-prose text-lg text-slate">{lead}</p>{/if}
	{@render children()}
</div>
