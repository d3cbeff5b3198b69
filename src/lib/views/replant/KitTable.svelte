<script lang="ts">
	import type { KitLine } from '$core/replant/kit/kit';
	import type { SupplyUnit } from '$core/replant/kit/stock';
	import { useFormat } from '$ui/format';

	/** What is needed against what is at hand: packs to open, and what is missing. */
	interface Props {
		lines: readonly KitLine[];
		/** With what it is for. */
		uses?: boolean;
	}
	let { lines, uses = false }: Props = $props();
	const format = useFormat();
	const amount = (value: number, unit: SupplyUnit): string => {
		if (unit === 'pieces') return format().number(Math.ceil(value));
		const said = format().measure(value, unit, unit === 'm²' ? 2 : undefined);
		// What is needed in little is still needed.
		return value > 0 && !/[1-9]/.test(said) ? format().measure(value, unit, 3) : said;
	};
</script>

<ul class="divide-y border-y text-sm" aria-label="Materials">
	{#each lines as line (line.item)}
		<li class="py-1.5">
			<span class="flex justify-between gap-3">
				<span>{line.name}{uses ? `, ${line.use}` : ''}</span><strong class="shrink-0"
					>{amount(line.need, line.unit)}</strong
				>
			</span>
			<span class={line.short > 0 ? 'text-oxide' : 'text-slate'}>
				{#if line.have === 0}
					none at hand{line.buyPacks
						? `: buy ${line.buyPacks} ${line.buyPacks === 1 ? 'pack' : 'packs'}`
						: ''}
				{:else if line.short > 0}
					will not reach: {amount(line.have, line.unit)} at hand, {amount(line.short, line.unit)} short{line.buyPacks
						? `, buy ${line.buyPacks} ${line.buyPacks === 1 ? 'pack' : 'packs'}`
						: ''}
				{:else}
					at hand: {line.open === 0
						? 'what is open reaches'
						: `open ${line.open} ${line.open === 1 ? 'pack' : 'packs'}`}
				{/if}
			</span>
		</li>
	{/each}
</ul>
