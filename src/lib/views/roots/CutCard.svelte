<script lang="ts">
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import { cutHow, holdHead } from '$core/roots/plan/cutting';
	import { carryOver } from '$core/roots/plan/done';
	import { roman } from '$core/roots/plan/plan';
	import type { Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import FromAbove from './FromAbove.svelte';
	import Gate from './Gate.svelte';
	import type { RootsOfTree } from './roots-of-tree';
	import { RootsState } from './roots-state.svelte';

	/** The card to take to the bench: the map, the cuts in their order with chalk numbers, and what is carried over. */
	let { of }: { of: RootsOfTree } = $props();
	const { tree, values, today } = $derived(of);
	const format = useFormat();
	const roots = untrack(() => new RootsState(of));
	const ledger = $derived(roots.standing.ledger);
	const planned = $derived(roots.plan.cuts.filter((cut) => cut.state === 'planned'));
	const stages = $derived([...new Set(planned.map((cut) => cut.stage))].sort((a, b) => a - b));
	const inStage = (stage: number) =>
		roots.map.segments.flatMap((segment) =>
			planned.filter((cut) => cut.stage === stage && cut.segmentId === segment.id)
		);
	/** What was cut of a stage, and what its cuts on this card take beside that: head and lines count the same cuts. */
	const made = (stage: number): number =>
		roots.takenBy(roots.plan.cuts.filter((cut) => cut.state === 'done' && cut.stage === stage));
	const stillToCome = (stage: number): number =>
		roots.takenBy(roots.plan.cuts.filter((cut) => cut.state !== 'left' && cut.stage === stage)) - made(stage);
	const rootOf = (segmentId: string) => roots.map.segments.find((segment) => segment.id === segmentId);
	/** Only a depth that somebody said. */
	const depthOf = (segment: Segment): string =>
		segment.guessed.includes('depth') ? '' : format().measure(segment.course[0]?.depthMm ?? 0, 'mm');
	const carried = $derived(
		carryOver(roots.map, roots.plan, roots.gate).filter(
			({ segmentId }) => !planned.some((cut) => cut.segmentId === segmentId)
		)
	);
</script>

<div class="page py-5">
	<div class="no-print mb-4 flex flex-wrap items-end justify-between gap-3">
		<a class="chalk" href={resolve('/trees/[id]/roots', { id: tree.id })}>Back to Roots</a>
		<SheetActions title="{tree.tag} cut card" print="Print this card" />
	</div>
	<article data-sheet class="sheet mx-auto max-w-[50rem] border bg-leaf p-3 sm:p-8" aria-label="Cut card">
		<header class="flex flex-wrap items-baseline justify-between gap-x-6 border-b-2 border-ink pb-2">
			<h2 class="text-2xl">{tree.tag} {tree.name}</h2>
			<p>
				mapped {format().date(roots.map.mappedOn)}, trunk {format().measure(roots.map.trunkDiameterMm, 'mm')}
			</p>
		</header>
		<div class="mx-auto mt-2 max-w-md"><FromAbove {roots} /></div>
		{#if roots.gate}<div class="mt-2"><Gate gate={roots.gate} treeId={tree.id} /></div>{/if}
		{#each stages as stage (stage)}
			<h3 class="mt-4 text-lg">
				Stage {roman(stage)}, {format().date(roots.plan.stageDates[stage] ?? today)}: {format().percent(
					stillToCome(stage)
				)} of living root, {format().percent(ledger.stages[stage]?.allowed ?? 0)} allowed{made(stage) > 0.0005
					? `, ${format().percent(made(stage))} of it cut already`
					: ''}
			</h3>
			<table class="mt-1 w-full text-sm">
				<thead class="border-b text-left">
					<tr
						><th class="w-10 py-1">no.</th><th>at</th><th class="max-sm:hidden">deep</th><th
							class="max-sm:hidden">thick</th
						><th>how</th><th class="max-sm:hidden">why</th><th class="text-right">costs</th><th
							class="w-14 pl-3">done</th
						></tr
					>
				</thead>
				<tbody>
					{#each inStage(stage) as cut, index (cut.id)}
						{@const segment = rootOf(cut.segmentId)}
						{#if segment}
							{@const how = cutHow(segment, cut, { map: roots.map, windows: ledger.windows }, values)}
							<tr class="border-b align-top">
								<td class="py-1.5 font-display text-lg font-bold"
									>{(stage === 0 ? roots.cutNumbers.get(cut.segmentId) : undefined) ?? index + 1}</td
								>
								<td class="py-1.5 pr-3 font-semibold whitespace-nowrap"
									>{format().clock(roots.clock(segment))}</td
								>
								<td class="py-1.5 pr-3 whitespace-nowrap max-sm:hidden">{depthOf(segment)}</td>
								<td class="py-1.5 pr-3 whitespace-nowrap max-sm:hidden"
									>{format().measure(segment.diameterStartMm, 'mm')}</td
								>
								<td class="py-1.5 pr-3"
									>{how.tool}, {how.backTo}{cut.atMm > 0 ? `, ${format().measure(cut.atMm, 'mm')} out` : ''}
									<span class="block text-slate sm:hidden"
										>{depthOf(segment) ? `${depthOf(segment)} deep, ` : ''}{format().measure(
											segment.diameterStartMm,
											'mm'
										)} thick; {format().inWords(cut.reason || 'chosen by hand')}</span
									>
									{#if how.hold}<strong class="block">{holdHead(how.hold)}</strong>{/if}</td
								>
								<td class="py-1.5 pr-3 max-sm:hidden">{format().inWords(cut.reason || 'chosen by hand')}</td>
								<td class="py-1.5 text-right whitespace-nowrap"
									>{format().percent(ledger.cutCost.get(segment.id) ?? 0, 1)}</td
								>
								<td class="py-1.5 pl-3"><span class="inline-block size-5 border-2 border-ink"></span></td>
							</tr>
						{/if}
					{/each}
				</tbody>
			</table>
		{:else}
			<p class="mt-4">Nothing is planned to be cut.</p>
		{/each}
		{#if carried.length > 0}
			<h3 class="mt-4 text-lg">Carried over</h3>
			<ul class="mt-1 text-sm">
				{#each carried as entry (entry.segmentId)}
					{@const segment = rootOf(entry.segmentId)}
					{#if segment}<li>
							<strong>{format().clock(roots.clock(segment))}</strong>, {format().measure(
								segment.diameterStartMm,
								'mm'
							)}: {format().inWords(`${entry.why}; first ${entry.first}`)}.
						</li>{/if}
				{/each}
			</ul>
		{/if}
		<footer class="mt-4 border-t pt-2 text-xs text-slate">
			Clean, sharp cut to sound wood, face down or outward. Eyes, gloves, and a mask for dust. Whether a tree
			stands safely is judged by a qualified person on site.
		</footer>
	</article>
</div>
