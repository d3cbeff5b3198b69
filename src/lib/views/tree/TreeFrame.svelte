<script lang="ts">
	import { readAnew } from '$ui/read-anew';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import type { LineOfCare } from '$core/tree/line-of-care';
	import { situationNames, stageNames, stages, treeStateNames } from '$core/vocabulary/words';
	import { type KindBefore, type Tree } from '$core/take-in/tree';
	import { useFormat } from '$ui/format';
	import TreeTag from '$ui/TreeTag.svelte';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { onMount, type Snippet } from 'svelte';
	import type { OpenFlag } from '$core/aftercare/tasks/flags';
	import type { WorkStop } from '$core/aftercare/weather/work-stop';
	import Caution from '$ui/Caution.svelte';
	import CaseClosed from './CaseClosed.svelte';
	import EarlierLosses from './EarlierLosses.svelte';
	import WorkStops from './WorkStops.svelte';
	import LineOfCareView from './LineOfCare.svelte';

	interface Props {
		tree: Tree;
		/** How many of a lot live, by the last count. */
		alive: number;
		kindName: string;
		placeName: string;
		care: LineOfCare;
		standing: { stands: string; next: string };
		/** Stages that hold no record yet; they only lower confidence. */
		empty: readonly string[];
		/** Weather that speaks against root work; shown where work is decided or begun. */
		workStops: readonly WorkStop[];
		/** A look says to act at its roots now. */
		pressing: boolean;
		/** Trees of its kind that were here before. */
		kindBefore: KindBefore | null;
		/** Referrals that are open. */
		flags: readonly OpenFlag[];
		today: string;
		children: Snippet;
	}
	let {
		tree,
		alive,
		kindName,
		placeName,
		care,
		standing,
		empty,
		workStops,
		pressing,
		kindBefore,
		flags,
		today,
		children
	}: Props = $props();
	const format = useFormat();
	// Written on in another window meanwhile: shown when one comes back to this one.
	onMount(() => {
		const look = (): void => {
			if (document.visibilityState === 'visible') void readAnew();
		};
		document.addEventListener('visibilitychange', look);
		return () => document.removeEventListener('visibilitychange', look);
	});
	const current = $derived(page.url.pathname.split('/')[3] ?? '');
	/** At the bench nothing stands but the work. */
	const isBench = $derived(page.url.pathname.endsWith('/bench'));
	const beginsWork = $derived(
		/\/(examine\/before|roots\/bench|replant|replant\/lift)$/.test(page.url.pathname)
	);
	/** Where a tree begins, what was lost of its kind is told first. */
	const isBeginning = $derived(/\/(take-in|examine|examine\/before)$/.test(page.url.pathname));
	const isCare = $derived(['roots', 'replant', 'aftercare'].includes(current));
	/** A sheet made for printing carries its own head. */
	/** On a phone the head is one line, so that the work begins high on the page; a touch unfolds it. */
	let unfolded = $state(false);
	const folded = $derived(unfolded ? '' : 'max-sm:hidden');
	/** The tab one is on comes into sight, with those beside it. */
	let tabs = $state<HTMLElement>();
	$effect(() => {
		const tab = tabs?.querySelector(`[data-stage="${current}"]`);
		if (!(tab instanceof HTMLElement) || !tabs) return;
		tabs.scrollLeft = tab.offsetLeft - (tabs.clientWidth - tab.offsetWidth) / 2;
	});
	const isSheet = $derived(/\/(sheet|card|report|letter)$/.test(page.url.pathname));
</script>

<svelte:head><title>{tree.tag} {tree.name} · Bruntle</title></svelte:head>

{#if !isBench}<div class={['page pt-3 sm:pt-4', isSheet && 'no-print']}>
		<div class="flex flex-wrap items-center gap-x-3 gap-y-1 sm:gap-x-4">
			<TreeTag tag={tree.tag} />
			<h1 class={['min-w-0 text-xl max-sm:flex-1 sm:text-2xl', !unfolded && 'max-sm:truncate']}>
				{tree.name}
			</h1>
			<button
				class="no-print -mr-2 grid size-11 shrink-0 place-items-center sm:hidden"
				aria-expanded={unfolded}
				aria-label="More about this tree"
				onclick={() => (unfolded = !unfolded)}
				><ChevronDown class={['transition-transform', unfolded && 'rotate-180']} /></button
			>
			<p class={['text-slate max-sm:w-full', folded]}>
				{kindName}, {tree.state === 'in-care' ? situationNames[tree.situation] : treeStateNames[tree.state]}, {placeName}{tree.plantCount >
				1
					? `, lot of ${tree.plantCount}${alive < tree.plantCount ? `, ${alive} alive` : ''}`
					: ''}
			</p>
			<p class={['max-sm:w-full sm:ml-auto sm:max-w-md sm:text-right', folded]}>
				<a
					class="chalk no-print"
					href={resolve('/trees/[id]/stands', { id: tree.id })}
					aria-current={current === 'stands' ? 'page' : undefined}>How it stands</a
				>,
				<a
					class="chalk no-print"
					href={resolve('/trees/[id]/book', { id: tree.id })}
					aria-current={current === 'book' ? 'page' : undefined}>field book</a
				>. {standing.stands} <strong>{format().inWords(standing.next)}</strong>
			</p>
		</div>
		<nav
			bind:this={tabs}
			aria-label="Stages"
			class="tabs no-print relative -mx-4 overflow-x-auto px-4 sm:mx-0 sm:mt-2 sm:px-0"
		>
			<ol class="flex gap-1 sm:gap-3">
				{#each stages as stage (stage)}
					<li>
						<a
							href={resolve(`/trees/[id]/${stage}`, { id: tree.id })}
							data-sveltekit-noscroll
							class={[
								'flex min-h-11 items-end border-b-3 px-1.5 pb-1 font-display text-lg whitespace-nowrap sm:px-2',
								current === stage ? 'border-oxide font-bold' : 'border-transparent text-slate hover:text-ink'
							]}
							data-stage={stage}
							aria-current={current === stage ? 'page' : undefined}
						>
							{stageNames[stage]}{#if empty.includes(stage)}<span class="sr-only">, nothing recorded yet</span
								><span
									class="ml-1 self-start pt-2 text-xs text-edge"
									aria-hidden="true"
									title="Nothing recorded yet">○</span
								>{/if}
						</a>
					</li>
				{/each}
			</ol>
		</nav>
		<div class={folded}><LineOfCareView {care} /></div>
	</div>{/if}
<div class="border-t">
	{#if beginsWork && workStops.length > 0 && tree.state === 'in-care'}
		<div class="page pt-4"><WorkStops stops={workStops} {today} {pressing} /></div>
	{/if}

	{#if flags.length > 0 && !isBench}
		<div class="page no-print flex flex-col gap-2 pt-4" role="region" aria-label="To be seen by others">
			{#each flags as flag (flag.taskId)}
				<Caution title={format().inWords(flag.title)}>
					{format().inWords(flag.reason)} By {format().day(flag.byOn, today)}{flag.byOn < today
						? ': that is past'
						: ''}.
					<a class="chalk" href={resolve('/trees/[id]/aftercare', { id: tree.id })}
						>Write down what they said</a
					>
				</Caution>
			{/each}
		</div>
	{/if}

	{#if isBeginning && kindBefore && kindBefore.lost.length > 0}
		<div class="page no-print pt-4"><EarlierLosses {kindName} before={kindBefore} /></div>
	{/if}

	{#if isCare && tree.state !== 'in-care'}
		<div class="page pt-4"><CaseClosed {tree} /></div>
	{/if}

	{@render children()}
</div>

<style>
	/* More tabs lie beyond the edge: it fades where one can scroll on, and no bar stands under them. */
	@media (max-width: 40rem) {
		.tabs {
			scrollbar-width: none;
			mask-image: linear-gradient(to right, transparent, black 1.25rem calc(100% - 2.5rem), transparent);
		}
	}
</style>
