<script lang="ts">
	import { Popover } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import type { WorkingLine } from './workings';

	/** A computed number that opens to how it came about. */
	interface Props {
		/** What the number is, for those who cannot see it in its place. */
		label: string;
		formula: string;
		lines: WorkingLine[];
		/** What would change it, one sentence. */
		changes?: string;
		class?: string;
		children: Snippet;
	}
	let { label, formula, lines, changes, class: extra = '', children }: Props = $props();
</script>

<Popover.Root>
	<Popover.Trigger
		class={[
			'in-text cursor-pointer text-left underline decoration-edge decoration-dotted decoration-[1.5px] underline-offset-4 hover:decoration-solid',
			extra
		]}
		aria-label="{label}: show the workings"
	>
		{@render children()}
	</Popover.Trigger><Popover.Portal>
		<Popover.Content
			sideOffset={8}
			collisionPadding={12}
			class="z-50 w-[min(24rem,calc(100vw-24px))] rounded-md border bg-leaf p-4 text-sm shadow-xl outline-none"
		>
			<h3 class="text-base">{label}</h3>
			<p class="my-2 rounded-sm bg-duff px-2 py-1.5 font-semibold">{formula}</p>
			<dl class="divide-y divide-line">
				{#each lines as line, index (index)}
					<div class="flex items-baseline justify-between gap-4 py-1">
						<dt>
							{line.label}{#if line.mark}<span class="block text-xs text-slate">{line.mark}</span>{/if}
						</dt>
						<dd class="shrink-0 font-semibold">{line.value}</dd>
					</div>
				{/each}
			</dl>
			{#if changes}<p class="mt-2 text-slate">{changes}</p>{/if}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
