<script lang="ts">
	/** What a chart draws, as a table for whoever hears the page. */
	interface Props {
		caption: string;
		columns: readonly string[];
		rows: readonly (readonly string[])[];
		/** At most so many rows, evenly out of all; the first and the last are always told. */
		most?: number;
	}
	let { caption, columns, rows, most = 24 }: Props = $props();
	const told = $derived(
		rows.length <= most
			? rows
			: Array.from({ length: most }, (_, i) => rows[Math.round((i * (rows.length - 1)) / (most - 1))] ?? [])
	);
</script>

{#if rows.length > 0}
	<!-- A box of its own: a table takes no height, and none is to be seen. -->
	<div class="sr-only">
		<table>
			<caption>{caption}</caption>
			<thead
				><tr
					>{#each columns as column, i (i)}<th scope="col">{column}</th>{/each}</tr
				></thead
			>
			<tbody>
				{#each told as row, i (i)}
					<tr>
						{#each row as cell, column (column)}
							{#if column === 0}<th scope="row">{cell}</th>{:else}<td>{cell}</td>{/if}
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
{/if}
