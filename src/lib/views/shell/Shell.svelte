<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { counted } from '$core/text/plural';
	import type { PracticeNow } from '$core/practice/moves';
	import type { Who } from '$core/vocabulary/people';
	import { stages } from '$core/vocabulary/words';
	import { device } from '../along/device.svelte';
	import Mark from '$ui/Mark.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { useFormat } from '$ui/format';
	import { setHands, setTheme } from '$ui/theme.svelte';
	import { noteKept } from '$ui/typed-before';
	import Search from '@lucide/svelte/icons/search';
	import type { Snippet } from 'svelte';
	import { Toaster } from 'svelte-sonner';
	import { keyIsTaken, shortcuts } from './shortcuts';

	interface Props {
		/** Who looks; null for nobody known, who is shown no way around. */
		who: Who | null;
		demo: boolean;
		today: string;
		/** Records that cannot be read. */
		damaged: number;
		/** The latest entry, where the clock stands before it. */
		lastAt: string | null;
		/** The practice round that the page belongs to. */
		practice: PracticeNow | null;
		children: Snippet;
	}
	let { who, demo, today, damaged, lastAt, practice, children }: Props = $props();
	const format = useFormat();

	// What is kept in fields of measures is offered in the next ones.
	$effect(() => noteKept(() => page.params.id ?? ''));
	let finding = $state(false);
	let listing = $state(false);
	/** The palette is fetched when it is first wanted, so that the first page stays light. */
	let Palette = $state.raw<typeof import('./Palette.svelte').default | null>(null);

	async function find(): Promise<void> {
		Palette ??= (await import('./Palette.svelte')).default;
		finding = true;
	}

	const rail = [
		{ label: 'Today', href: resolve('/') },
		{ label: 'Trees', href: resolve('/trees') },
		{ label: 'Yard', href: resolve('/yard') },
		{ label: 'Practice', href: resolve('/practice') },
		{ label: 'Reference', href: resolve('/reference') }
	];
	const here = (href: string): boolean =>
		href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href);

	function onkeydown(event: KeyboardEvent): void {
		if (!who) return;
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
			event.preventDefault();
			void find();
			return;
		}
		if (event.ctrlKey || event.metaKey || keyIsTaken(event)) return;
		const treeId = page.url.pathname.startsWith('/trees/') ? page.params.id : undefined;
		const stage = stages[Number(event.key) - 1];
		if (event.key === '/') void find();
		else if (event.key === '?') listing = true;
		else if (event.key === 'n') void goto(resolve('/trees/new'));
		else if (treeId && stage) void goto(resolve(`/trees/[id]/${stage}`, { id: treeId }));
		else return;
		event.preventDefault();
	}
</script>

<svelte:window {onkeydown} />

<a
	href="#main"
	class="sr-only z-50 rounded-md bg-ink px-4 py-2 text-paper focus:not-sr-only focus:fixed focus:top-2 focus:left-2"
>
	To the page
</a>

<header class="no-print border-b">
	<div class="page flex h-11 items-center gap-5 sm:h-12">
		<a href={resolve('/')} class="flex items-center gap-2" aria-label="Bruntle, to Today">
			<Mark size={26} /><span class="font-display text-xl font-bold">Bruntle</span>
		</a>
		{#if who}<nav aria-label="Main" class="hidden gap-1 sm:flex">
				{#each rail as { label, href } (href)}
					<!-- eslint-disable svelte/no-navigation-without-resolve -- resolved above -->
					<a
						{href}
						class={[
							'rounded-sm px-2.5 py-1.5',
							here(href) ? 'font-bold text-ink' : 'text-slate hover:text-ink'
						]}
						aria-current={here(href) ? 'page' : undefined}>{label}</a
					>
				{/each}
			</nav>{/if}
		{#if demo && !practice}
			<span class="hidden text-sm text-slate lg:inline"
				>Demo yard, its clock stands at {format().date(today)}</span
			>
		{/if}
		{#if who}{#if who.id}<a
					class="hidden text-sm text-slate hover:text-ink md:inline"
					href={resolve('/yard/people')}><span class="sr-only">Signed in as </span>{who.name}</a
				>{/if}<button
				type="button"
				class="ml-auto flex h-9 items-center gap-2 rounded-md border border-edge px-3 text-left text-sm text-slate hover:border-ink sm:w-60"
				onclick={find}
			>
				<Search size={16} aria-hidden="true" /><span class="hidden sm:inline">find a tree, a page</span><span
					class="sm:hidden">find</span
				>
				<kbd class="ml-auto hidden font-sans sm:inline">/</kbd>
			</button>{/if}
	</div>
	{#if who && device.isTold}
		{#await import('../along/AlongBar.svelte') then { default: AlongBar }}<AlongBar />{/await}
	{/if}
	{#if practice}
		{#await import('../practice/PracticeBar.svelte') then { default: PracticeBar }}<PracticeBar
				{practice}
			/>{/await}
	{/if}
	{#if lastAt !== null}
		<p class="border-t border-oxide bg-leaf py-1.5 text-sm">
			<span class="page block"
				>The clock of the computer that Bruntle runs on says {format().date(today)}, yet the last entry here
				was written {format().instant(lastAt)}. Set the clock right before you enter anything: days of work
				are reckoned from it.</span
			>
		</p>
	{/if}
	{#if damaged > 0}
		<p class="border-t border-oxide bg-leaf py-1.5 text-sm">
			<span class="page block"
				>{counted(damaged, 'record')} of this yard cannot be read, and pages go on without {damaged === 1
					? 'it'
					: 'them'}. <a class="chalk font-semibold" href={resolve('/yard/damaged')}>See and mend</a></span
			>
		</p>
	{/if}
</header>

<main id="main" class="pb-24 sm:pb-12">
	{@render children()}
</main>

{#if who}<nav
		aria-label="Main, at the foot"
		class="no-print fixed inset-x-0 bottom-0 z-30 grid grid-cols-5 border-t bg-leaf sm:hidden"
	>
		{#each rail as { label, href } (href)}
			<a
				{href}
				class={[
					'flex min-h-13 items-center justify-center border-t-3 text-sm',
					here(href) ? 'border-oxide font-bold' : 'border-transparent text-slate'
				]}
				aria-current={here(href) ? 'page' : undefined}>{label}</a
			>
		{/each}
	</nav>{/if}

<Toaster
	position="bottom-center"
	toastOptions={{
		unstyled: true,
		classes: {
			toast:
				'bg-ink text-paper flex font-sans w-full items-center gap-4 rounded-md px-4 py-3 shadow-xl mb-14 sm:mb-0',
			title: 'font-semibold',
			description: 'text-sm',
			actionButton:
				'ml-auto min-h-9 shrink-0 whitespace-nowrap rounded-sm border border-current px-3 font-semibold'
		}
	}}
/>

{#if Palette}
	<Palette bind:open={finding} onshortcuts={() => (listing = true)} ontheme={setTheme} onhands={setHands} />
{/if}

<Sheet bind:open={listing} title="Shortcuts" wide>
	<dl class="grid gap-x-6 gap-y-1 sm:grid-cols-[9rem_11rem_1fr]">
		{#each shortcuts as { where, keys, does }, index (does)}
			<dt class="hidden text-slate sm:block">{shortcuts[index - 1]?.where === where ? '' : where}</dt>
			<dt class="font-semibold">{keys}</dt>
			<dd class="mb-2 sm:mb-0">{does}</dd>
		{/each}
	</dl>
</Sheet>
