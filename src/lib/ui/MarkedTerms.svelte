<script lang="ts">
	import { withTerms } from '$core/text/glossary';
	import { Popover } from 'bits-ui';

	/** A text with the words that the glossary explains to be touched. */
	interface Props {
		text: string;
	}
	let { text }: Props = $props();
	const parts = $derived(withTerms(text));
</script>

<!-- prettier-ignore -->
{#each parts as { text: words, term }, index (index)}{#if term}<Popover.Root><Popover.Trigger
	class="in-text cursor-help underline decoration-edge decoration-dotted underline-offset-4 hover:decoration-solid"
	aria-label="{words}: what is it?">{words}</Popover.Trigger><Popover.Portal><Popover.Content
	sideOffset={6}
	collisionPadding={12}
	class="z-50 w-[min(20rem,calc(100vw-24px))] rounded-md border bg-leaf p-4 shadow-xl outline-none"
><p class="font-display text-lg font-semibold first-letter:uppercase">{term.term}</p><p class="mt-1">{term.meaning}</p></Popover.Content></Popover.Portal></Popover.Root>{:else}{words}{/if}{/each}
