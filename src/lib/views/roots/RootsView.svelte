<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import { roman } from '$core/roots/plan/plan';
	import { page } from '$app/state';
	import { counted } from '$core/text/plural';
	import Button from '$ui/Button.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import { useFormat } from '$ui/format';
	import { keyIsTaken } from '$views/shell/shortcuts';
	import FileDown from '@lucide/svelte/icons/file-down';
	import Redo2 from '@lucide/svelte/icons/redo-2';
	import Ruler from '@lucide/svelte/icons/ruler';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import { onMount, untrack } from 'svelte';
	import CutSheet from './CutSheet.svelte';
	import DoneWork from './DoneWork.svelte';
	import FilesSheet from './FilesSheet.svelte';
	import FromAbove from './FromAbove.svelte';
	import GroundSheet from './GroundSheet.svelte';
	import Ledger from './Ledger.svelte';
	import PlanSheet from './PlanSheet.svelte';
	import QuickEntry from './QuickEntry.svelte';
	import RootDetail from './RootDetail.svelte';
	import RootList from './RootList.svelte';
	import type { RootsOfTree } from './roots-of-tree';
	import { keepBeforeLeaving } from './leaving';
	import { PictureUnder } from './picture-under.svelte';
	import PictureChoice from './PictureChoice.svelte';
	import { RootsState } from './roots-state.svelte';
	import SectionView from './SectionView.svelte';
	import UnrolledCollar from './UnrolledCollar.svelte';

	let { of }: { of: RootsOfTree } = $props();
	const { today } = $derived(of);
	const format = useFormat();
	const roots = untrack(() => new RootsState(of));
	keepBeforeLeaving(roots);
	const under = untrack(() => new PictureUnder(roots));
	$effect(() => under.follow());
	$effect(() => {
		const [map, reduction] = [of.rootMap, of.plan];
		untrack(() => roots.adopt(map, reduction));
	});

	let cutting = $state(false);
	let measuring = $state(false);
	let filing = $state(false);
	let above = $state<HTMLElement>();
	let footOpen = $state(false);
	let phoneView = $state<'above' | 'section' | 'collar' | 'list'>('above');
	/** What the left of a wide page shows. */
	let drawing = $state<'above' | 'section'>('above');
	let quick = $state<QuickEntry>();
	$effect(() => () => roots.ways.stop());
	// From the bench, when more was found than was thought.
	onMount(() => {
		if (page.state.propose) void roots.propose();
	});
	const saveWords = {
		saved: 'kept',
		saving: 'keeping …',
		waiting: 'no answer; kept in this browser, trying again',
		refused: 'not kept'
	} as const;

	function onkeydown(event: KeyboardEvent): void {
		const command = event.ctrlKey || event.metaKey;
		if (command && event.key.toLowerCase() === 'z' && !(event.target instanceof HTMLInputElement)) {
			if (event.shiftKey) roots.redo();
			else roots.undo();
			event.preventDefault();
			return;
		}
		if (command || keyIsTaken(event)) return;
		const id = roots.selectedId;
		const actions: Record<string, () => void> = {
			a: () => quick?.focus(),
			j: () => roots.step(1),
			k: () => roots.step(-1),
			x: () => id && roots.treat(id, 'cut', 0),
			l: () => id && roots.treat(id, 'cut', 1),
			h: () => id && roots.treat(id, 'keep'),
			t: () => id && roots.treat(id, 'trace'),
			o: () => id && roots.treat(id, 'open'),
			Delete: () => id && roots.remove(id)
		};
		const action = actions[event.key];
		if (!action) return;
		action();
		event.preventDefault();
	}
	const loss = $derived(roots.focus);
	/** Torn ends whose root was not cut since. */
	const tornEnds = $derived(
		roots.options.ends
			.filter(
				(end) =>
					end.how === 'torn' &&
					!roots.plan.cuts.some((cut) => cut.segmentId === end.segmentId && cut.state === 'done')
			)
			.map(
				(end) =>
					`${format().measure(end.diameterMm, 'mm')} at ${format().clock(clockOf(end.azimuthDeg, roots.map.frame))}${roots.map.frame === 'container' ? ` (${format().clock(clockOf(end.azimuthDeg, 'ground'))} in the log, north at 12)` : ''}`
			)
	);
</script>

<svelte:window
	{onkeydown}
	onbeforeunload={(event) => {
		if (roots.saveState === 'saving') event.preventDefault();
	}}
/>

<div class="grid grid-cols-4 gap-1 px-4 pt-3 lg:hidden" role="group" aria-label="Which view">
	{#each [['above', 'Above'], ['section', 'Section'], ['collar', 'Collar'], ['list', 'List']] as const as [view, label] (view)}
		<button
			class={[
				'min-h-11 rounded-md border font-semibold',
				phoneView === view ? 'border-ink bg-ink text-paper' : 'border-edge'
			]}
			aria-pressed={phoneView === view}
			onclick={() => {
				phoneView = view;
				if (view === 'above' || view === 'section') drawing = view;
			}}>{label}</button
		>
	{/each}
</div>

<div class="mx-auto grid max-w-[82rem] lg:grid-cols-[minmax(0,31rem)_minmax(0,1fr)_20.5rem]">
	<section
		aria-labelledby="above-title"
		class={[
			'px-4 pt-3 lg:block lg:border-r',
			phoneView === 'above' || phoneView === 'section' ? 'block' : 'hidden'
		]}
	>
		<div class="mb-1 flex flex-wrap items-center justify-between gap-x-3">
			<h2 id="above-title" class="text-base lg:sr-only">
				{drawing === 'above' ? 'From above' : 'Section'}
			</h2>
			<div class="hidden lg:block">
				<Choice
					label="Drawing"
					hideLabel
					size="small"
					bind:value={drawing}
					options={[
						{ value: 'above', label: 'From above' },
						{ value: 'section', label: 'Section and angle' }
					]}
				/>
			</div>
			<button class="chalk text-sm text-slate" onclick={() => (measuring = true)}>
				<Ruler size={14} class="inline" aria-hidden="true" />
				{roots.map.stems.length > 1 ? `${roots.map.stems.length} stems,` : 'trunk'}
				{format().measure(roots.map.trunkDiameterMm, 'mm')},
				{roots.map.frame === 'ground' ? 'opened' : 'ball'}
				{format().measure(roots.map.ballRadiusMm * 2, 'mm')}
			</button>
		</div>
		{#if drawing === 'above'}
			<div bind:this={above}><FromAbove {roots} under={under.turned} /></div>
			{#if under.picture}
				<label class="flex min-h-11 items-center gap-2 text-sm"
					><input type="checkbox" class="size-5" bind:checked={under.shown} />The picture of {format().date(
						under.picture.takenOn
					)} under it{#if under.shown && !under.turned}
						<span class="text-slate">{under.problem ? format().inWords(under.problem) : 'turning it …'}</span
						>{/if}</label
				>
			{/if}
		{:else}
			<div bind:this={above} class="pb-6"><SectionView {roots} /></div>
		{/if}
	</section>

	<section class="min-w-0 px-4 pt-3 pb-20" aria-label="Collar, list and entry">
		<div class={['lg:block', phoneView === 'collar' ? 'block' : 'hidden']}>
			<div class="flex items-baseline justify-between">
				<h2 class="text-base">Unrolled collar</h2>
				<span class="text-sm text-slate">depth below the flare, {format().unitOf('mm').unit}</span>
			</div>
			<UnrolledCollar {roots} />
		</div>
		<div class="mt-2 flex items-center gap-1">
			<h2 class="text-base">Roots</h2>
			<span class="ml-2 text-sm text-slate"
				>{roots.map.segments.length} mapped, {roots.map.segments.filter((s) => !s.sourceKnown).length} to trace</span
			>
			<span
				class={['ml-auto text-sm', roots.saveState === 'refused' ? 'font-semibold text-oxide' : 'text-slate']}
				role="status">{saveWords[roots.saveState]}</span
			>
			<PictureChoice {roots} />
			<Button tone="quiet" size="small" aria-label="Files of this map" onclick={() => (filing = true)}
				><FileDown size={16} /></Button
			>
			<Button
				tone="quiet"
				size="small"
				aria-label="Undo on the map"
				disabled={roots.past.length === 0}
				onclick={() => roots.undo()}><Undo2 size={16} /></Button
			>
			<Button
				tone="quiet"
				size="small"
				aria-label="Redo on the map"
				disabled={roots.future.length === 0}
				onclick={() => roots.redo()}><Redo2 size={16} /></Button
			>
		</div>
		{#if tornEnds.length > 0}<p class="mb-2 text-sm">
				Torn at the lift, to be cut clean behind the tear: {tornEnds.join(', ')}.{roots.map.frame ===
				'container'
					? ' Its front is taken to have faced north; turn the map where it did not.'
					: ''}
			</p>{/if}
		{#if roots.clash}
			{@const theirs = roots.clash.theirs}
			<div class="mb-3 border-l-4 border-oxide py-1 pl-3" role="alert">
				<p class="font-semibold text-oxide">
					These roots were changed elsewhere meanwhile. Nothing was overwritten.
				</p>
				<p>
					There: {counted(theirs.map.segments.length, 'root')}, {counted(theirs.plan.cuts.length, 'cut')} planned.
					Here: {counted(roots.map.segments.length, 'root')}, {counted(roots.plan.cuts.length, 'cut')} planned.
				</p>
				<div class="mt-2 flex flex-wrap gap-2">
					<Button size="small" tone="solid" onclick={() => roots.keepMine()}>Keep what stands here</Button>
					<Button size="small" onclick={() => roots.takeTheirs()}>Take what stands there</Button>
				</div>
			</div>
		{:else if roots.problem}<p class="mb-2 text-sm font-semibold text-oxide" role="alert">
				{format().inWords(roots.problem)}
			</p>{/if}
		<QuickEntry bind:this={quick} {roots} />
		{#if roots.selected}<div class="pt-1"><RootDetail {roots} segment={roots.selected} /></div>{/if}
		{#if roots.map.segments.length === 0}
			<p class="mt-4 text-slate">
				Brush the collar free and go once round. One line a root: where, how thick, and what you see. Twenty
				roots take about three minutes.
			</p>
		{:else}
			<div class={['mt-1 lg:block', phoneView === 'list' ? 'block' : 'hidden']}><RootList {roots} /></div>
		{/if}
		<DoneWork {roots} />
	</section>

	<Consequences title="Ledger" bind:open={footOpen}>
		{#snippet summary()}
			<strong class={['font-display text-2xl', loss && !loss.fits ? 'text-oxide' : '']}
				>{format().percent(loss?.loss ?? 0)}</strong
			>
			<span class="truncate text-sm"
				>of {format().percent(loss?.allowed ?? 0)}
				{loss && loss.stage > 0 ? `in stage ${roman(loss.stage)}` : 'now'}; anchorage {roots.standing.ledger
					.least?.left == null
					? 'not known'
					: format().percent(roots.standing.ledger.least.left)}</span
			>
		{/snippet}
		<Ledger
			{roots}
			oncut={() => {
				footOpen = false;
				cutting = true;
			}}
		/>
		<div class="mt-4">
			<Caution title="What this is not">A judgement of safety. It reckons shares of what you mapped.</Caution>
		</div>
	</Consequences>
</div>

<PlanSheet {roots} />
<FilesSheet bind:open={filing} {roots} drawing={() => above?.querySelector('svg') ?? null} />
<CutSheet bind:open={cutting} {roots} {today} />

<GroundSheet {roots} bind:open={measuring} />
