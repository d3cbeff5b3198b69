<script lang="ts">
	import ChevronUp from '@lucide/svelte/icons/chevron-up';
	import type { Snippet } from 'svelte';
	import Sheet from './Sheet.svelte';

	/**
	 * The raised zone beside the work: what follows from it, always in view. On a phone it is one strip at the foot that
	 * sums it up and opens.
	 */
	interface Props {
		title: string;
		open?: boolean;
		/** The sum of it, in one line. */
		summary: Snippet;
		children: Snippet;
	}
	let { title, open = $bindable(false), summary, children }: Props = $props();
</script>

<aside aria-label={title} class="hidden bg-leaf lg:block lg:border-l">
	<div class="lg:sticky lg:top-0 lg:max-h-dvh lg:overflow-y-auto lg:px-4 lg:pt-4 lg:pb-6">
		<h2 class="mb-1 text-lg">{title}</h2>
		{@render children()}
	</div>
</aside>

<button
	type="button"
	class="no-print fixed inset-x-0 bottom-13 z-20 flex min-h-14 items-center gap-3 border-t bg-leaf px-4 text-left sm:bottom-0 lg:hidden"
	onclick={() => (open = true)}
>
	<span class="flex min-w-0 flex-1 items-baseline gap-3">{@render summary()}</span>
	<ChevronUp size={20} class="shrink-0" aria-hidden="true" />
	<span class="sr-only">Open: {title}</span>
</button>
<Sheet bind:open {title}>
	{@render children()}
</Sheet>
