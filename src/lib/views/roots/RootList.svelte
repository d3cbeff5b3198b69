<script lang="ts">
	import { readMeasure, readTwoWays } from '$core/text/typed';
	import { roman } from '$core/roots/plan/plan';
	import { rootClasses, rootConditions, rootFlawNames, type Segment } from '$core/roots/map/root-map';
	import { useFormat } from '$ui/format';
	import Glyph from './Glyph.svelte';
	import { classGlyphs } from './glyphs';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();

	const mm = $derived(format().unitOf('mm'));
	const tidy = (stored: number): string => String(Math.round(mm.toShown(stored) * 100) / 100);
	/** Takes a thickness as typed in the list; what is none goes back to what stood there. */
	function setThickness(segment: Segment, input: HTMLInputElement): void {
		const twoWays = readTwoWays(input.value, format().decimalSign);
		if (twoWays) {
			roots.problem = `${twoWays}.`;
			return;
		}
		const stored = readMeasure(input.value, 'mm', format().settings.units) ?? NaN;
		const most = segment.parentId === null ? roots.map.trunkDiameterMm : 1500;
		if (!(stored >= 0.2 && stored <= most)) {
			roots.problem = `The thickness must be from ${format().measure(0.2, 'mm', 2)} to ${format().measure(most, 'mm')}.`;
			input.value = tidy(segment.diameterStartMm);
			return;
		}
		roots.problem = '';
		const scale = stored / segment.diameterStartMm;
		roots.change(segment.id, {
			diameterStartMm: stored,
			diameterEndMm: Math.max(0.1, segment.diameterEndMm * scale)
		});
	}
	function setCondition(segment: Segment, condition: Segment['condition']): void {
		roots.change(segment.id, {
			condition,
			deadFromMm: condition === 'dead' ? (segment.deadFromMm ?? 0) : null,
			doubtfulFromMm: condition === 'sound' ? null : segment.doubtfulFromMm,
			flaws: condition === 'dead' ? segment.flaws : segment.flaws.filter((flaw) => flaw !== 'rotten')
		});
	}

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
		format().inWords(roots.reason(segment)) ||
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
	<table class="w-full text-sm" aria-label="Roots mapped">
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
					<td class="py-1 pr-2 text-right whitespace-nowrap">
						{#if roots.selectedId === segment.id && treated.name !== 'cut, done'}
							<input
								class="h-8 w-16 rounded-md border border-edge bg-leaf px-1.5 text-right"
								inputmode="decimal"
								aria-label="Thickness of the root at {format().clock(roots.clock(segment))}"
								value={tidy(segment.diameterStartMm)}
								onclick={(event) => event.stopPropagation()}
								onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
								onchange={(event) => setThickness(segment, event.currentTarget)}
							/>
						{:else}{format().measure(segment.diameterStartMm, 'mm')}{/if}
					</td>
					<td class="w-full py-1 pr-2">
						{#if roots.selectedId === segment.id && treated.name !== 'cut, done'}
							<span class="flex flex-col gap-1">
								<select
									class="select h-8 w-28 rounded-md border border-edge bg-leaf px-1.5"
									aria-label="Class of the root at {format().clock(roots.clock(segment))}"
									value={segment.rootClass}
									onclick={(event) => event.stopPropagation()}
									onchange={(event) =>
										roots.change(segment.id, {
											rootClass: event.currentTarget.value as Segment['rootClass']
										})}
								>
									{#each rootClasses as value (value)}<option {value}>{value}</option>{/each}
								</select>
								<select
									class="select h-8 w-28 rounded-md border border-edge bg-leaf px-1.5"
									aria-label="Condition of the root at {format().clock(roots.clock(segment))}"
									value={segment.condition}
									onclick={(event) => event.stopPropagation()}
									onchange={(event) =>
										setCondition(segment, event.currentTarget.value as Segment['condition'])}
								>
									{#each rootConditions as value (value)}<option {value}>{value}</option>{/each}
								</select>
							</span>
						{:else}
							<span class="flex items-center gap-1.5"
								><Glyph path={classGlyphs[segment.rootClass]} />{segment.rootClass}</span
							>
						{/if}
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
