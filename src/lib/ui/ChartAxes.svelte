<script lang="ts">
	/** Lines across a chart with what they stand for, and what stands along its foot. */
	interface Props {
		/** Edges of the plot. */
		left: number;
		right: number;
		/** Base line of the words along the foot. */
		foot: number;
		/** Where small marks stand over those words; none without it. */
		marksAt?: number;
		rows: readonly { at: number; label: string; dashed?: boolean; tone?: string }[];
		columns: readonly { at: number; label: string }[];
	}
	let { left, right, foot, marksAt, rows, columns }: Props = $props();
	/** Half the width of a word, near enough to keep it within the plot. */
	const half = (label: string): number => label.length * 3.4;
	/** Words that would run into the one before are left out; their marks stay. */
	const readable = $derived.by(() => {
		let end = -Infinity;
		return columns.map((column) => {
			const at = Math.min(column.at, right - half(column.label));
			const free = at - half(column.label) > end;
			if (free) end = at + half(column.label) + 4;
			return { ...column, wordAt: at, shown: free };
		});
	});
</script>

{#each rows as row (row.at)}
	<path
		d="M{left} {row.at}H{right}"
		class={row.tone ?? 'stroke-line'}
		stroke-dasharray={row.dashed ? '2 3' : undefined}
	/>
	<text x={left - 6} y={row.at + 4} text-anchor="end" font-size="12.5" class="fill-slate">{row.label}</text>
{/each}
{#each readable as column (column.at)}
	{#if marksAt !== undefined}<path d="M{column.at} {marksAt}v5" class="stroke-slate" />{/if}
	{#if column.shown}<text x={column.wordAt} y={foot} text-anchor="middle" font-size="12.5" class="fill-slate"
			>{column.label}</text
		>{/if}
{/each}
