<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { HTMLAnchorAttributes, HTMLButtonAttributes } from 'svelte/elements';

	type Props = {
		tone?: 'solid' | 'outline' | 'quiet';
		size?: 'small' | 'usual' | 'large';
		href?: string;
		children: Snippet;
	} & Omit<HTMLButtonAttributes & HTMLAnchorAttributes, 'href' | 'size'>;
	let { tone = 'outline', size = 'usual', href, children, class: extra = '', ...rest }: Props = $props();

	const tones = {
		solid: 'bg-ink text-paper border-ink hover:opacity-90',
		outline: 'border-edge hover:border-ink hover:bg-duff',
		quiet: 'border-transparent hover:bg-duff'
	};
	const sizes = {
		small: 'min-h-9 px-2.5 text-sm',
		usual: 'min-h-11 px-4',
		large: 'min-h-14 px-5 text-lg'
	};
	const classes = $derived([
		'inline-flex items-center justify-center gap-2 rounded-md border font-semibold whitespace-nowrap select-none disabled:opacity-50 disabled:pointer-events-none aria-disabled:opacity-50',
		tones[tone],
		sizes[size],
		// On paper nothing is pressed; what is chosen stays said.
		rest['aria-pressed'] === undefined && 'no-print',
		extra
	]);
</script>

{#if href}
	<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the caller resolves -->
	<a {href} class={classes} {...rest as HTMLAnchorAttributes}>{@render children()}</a>
{:else}
	<button type="button" class={classes} {...rest as HTMLButtonAttributes}>{@render children()}</button>
{/if}
