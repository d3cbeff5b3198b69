<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { Dialog } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** A layer over the page for one matter: from the foot on a phone, in the middle elsewhere. */
	interface Props {
		open: boolean;
		title: string;
		description?: string;
		wide?: boolean | 'widest';
		children: Snippet;
	}
	let { open = $bindable(), title, description, wide = false, children }: Props = $props();
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-[#120d09]/55" />
		<Dialog.Content
			class={[
				'fixed inset-x-0 bottom-0 z-50 max-h-[88dvh] overflow-y-auto rounded-t-md border bg-leaf p-5 shadow-xl outline-none sm:inset-x-auto sm:top-1/2 sm:bottom-auto sm:left-1/2 sm:-translate-x-1/2 sm:-translate-y-1/2 sm:rounded-md',
				wide === 'widest' ? 'sm:w-[min(64rem,94vw)]' : wide ? 'sm:w-[44rem]' : 'sm:w-[32rem]'
			]}
		>
			<div class="mb-3 flex items-start justify-between gap-4">
				<div>
					<Dialog.Title class="font-display text-xl font-semibold">{title}</Dialog.Title>
					{#if description}<Dialog.Description class="mt-1 text-sm text-slate"
							>{description}</Dialog.Description
						>{/if}
				</div>
				<Dialog.Close
					class="-m-2 grid size-11 place-items-center rounded-md hover:bg-duff"
					aria-label="Close"
				>
					<X size={20} />
				</Dialog.Close>
			</div>
			{@render children()}
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
