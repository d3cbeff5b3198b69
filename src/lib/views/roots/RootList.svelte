<script lang="ts">
	import { roman } from '$core/roots/plan';
	import { rootFlawNames, type Segment } from '$core/roots/root-map';
	import { useFormat } from '$ui/format';
	import Glyph from './Glyph.svelte';
	import { classGlyphs } from './glyphs';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();

	type Column = 'order' | 'at' | 'mm' | 'share';
	let sortBy = $state<Column>('order');
	const keys: Record<Exclude<Column, 'order'>, (segment: Segment) => number> = {
		at: (segment) => roots.clock(segment),
		mm: (segment) => -segment.diameterStartMm,
		share: (segment) => -(roots.standing.ledger.carried.get(segment.id) ?? 0)
	};
	const sorted = $derived.by(() => {
		const all = [...roots.map.segments];
		if (sortBy === 'order') return all;
		const key = keys[sortBy];
		return all.sort((a, b) => key(a) - key(b));
	});
	function mark(segment: Segment): { text: string; tone: string; name: string } {
		const treated = roots.treatment(segment);
		if (treated.kind === 'cut') {
			const done = treated.cut.state === 'done';
			if (treated.cut.stage === 0)
				return {
					text: `${roots.cutNumbers.get(segment.id) ?? ''}${done ? ' ✓' : ''}`,
					tone: 'text-oxide',
					name: done ? 'cut, done' : 'cut now'
				};
			return {
				text: `${roman(treated.cut.stage)}${done ? ' ✓' : ''}`,
				tone: 'text-oxide',
				name: `cut, stage ${roman(treated.cut.stage)}`
			};
		}
		if (treated.kind === 'trace') return { text: '?', tone: 'text-ochre', name: 'trace further' };
		if (treated.kind === 'keep') return { text: 'keep', tone: 'text-lichen', name: 'keep' };
		return { text: '·', tone: 'text-slate', name: 'open' };
	}
	const why = (segment: Segment): string =>
		roots.reason(segment) ||
		segment.flaws.map((flaw) => rootFlawNames[flaw]).join(', ') ||
		segment.note ||
		(segment.condition === 'doubtful' ? 'doubtful' : '');
	const columns: { key: Column; label: string; right?: boolean }[] = [
		{ key: 'order', label: 'cut' },
		{ key: 'at', label: 'at' },
		{ key: 'mm', label: 'thick', right: true }
	];
	let table = $state<HTMLElement>();
	$effect(() => {
		const id = roots.selectedId;
		if (id) table?.querySelector(`[data-root="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'nearest' });
	});
</script>

<div bind:this={table} class="max-h-[26rem] overflow-y-auto" tabindex="-1">
	<table class="w-full text-sm">
		<thead class="sticky top-0 z-10 bg-paper">
			<tr class="border-b text-left text-slate">
				{#each columns as column (column.key)}
					<th
						class={['py-1 pr-2 font-normal', column.right && 'text-right']}
						aria-sort={sortBy === column.key ? 'ascending' : undefined}
					>
						<button
							class={['min-h-7 min-w-7 text-left', sortBy === column.key && 'font-semibold text-ink']}
							onclick={() => (sortBy = column.key)}>{column.label}</button
						>
					</th>
				{/each}
				<th class="py-1 pr-2 font-normal">root</th>
				<th class="py-1 text-right font-normal" aria-sort={sortBy === 'share' ? 'descending' : undefined}>
					<button
						class={['min-h-7 min-w-7 text-left', sortBy === 'share' && 'font-semibold text-ink']}
						onclick={() => (sortBy = 'share')}>living</button
					>
				</th>
			</tr>
		</thead>
		<tbody class="divide-y">
			{#each sorted as segment (segment.id)}
				{@const treated = mark(segment)}
				{@const reason = why(segment)}
				<tr
					data-root={segment.id}
					class={['cursor-pointer', roots.selectedId === segment.id ? 'bg-duff' : 'hover:bg-duff/50']}
					onclick={() => (roots.selectedId = segment.id)}
				>
					<td class={['py-1 pr-2 font-display font-semibold whitespace-nowrap', treated.tone]}
						><span aria-hidden="true">{treated.text}</span><span class="sr-only">{treated.name}</span></td
					>
					<td class="py-1 pr-2">
						<button
							class="min-h-7 min-w-7 text-left hover:underline"
							aria-pressed={roots.selectedId === segment.id}
							onclick={() => (roots.selectedId = segment.id)}>{format().clock(roots.clock(segment))}</button
						>
					</td>
					<td class="py-1 pr-2 text-right whitespace-nowrap"
						>{format().measure(segment.diameterStartMm, 'mm')}</td
					>
					<td class="w-full py-1 pr-2">
						<span class="flex items-center gap-1.5"
							><Glyph path={classGlyphs[segment.rootClass]} />{segment.rootClass}</span
						>
						{#if reason}<span class="block max-w-56 truncate text-xs text-slate" title={reason}>{reason}</span
							>{/if}
					</td>
					<td class="py-1 text-right whitespace-nowrap"
						>{format().percent(roots.standing.ledger.carried.get(segment.id) ?? 0, 1)}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
