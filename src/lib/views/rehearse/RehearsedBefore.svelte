<script lang="ts">
	import type { KeptRehearsal } from '$core/recovery/rehearsal/kept';
	import type { CameLine } from '$core/rehearse/came';
	import { useFormat } from '$ui/format';

	/** Rehearsals whose plan was taken over, against what came since. */
	interface Props {
		before: readonly { kept: KeptRehearsal; came: CameLine[] }[];
		today: string;
	}
	let { before, today }: Props = $props();
	const format = useFormat();
</script>

<section class="mt-10" aria-labelledby="before-title">
	<h2 id="before-title" class="text-xl">Rehearsed before, and what came</h2>
	{#each before as { kept, came } (kept.id)}
		{@const taken = kept.outcomes[kept.taken]}
		<article class="mt-4">
			<h3 class="text-lg">
				{format().day(kept.rehearsedOn, today)}: “{taken?.plan.name}” was taken over
			</h3>
			{#if kept.outcomes.length > 1}<p class="text-sm text-slate">
					Beside it stood {kept.outcomes
						.filter((_, i) => i !== kept.taken)
						.map(
							(one) =>
								`“${one.plan.name}” (${format().percent(one.end.established)} re-established at the end)`
						)
						.join(', ')}.
				</p>{/if}
			<div class="mt-1 overflow-x-auto">
				<table class="w-full text-sm">
					<thead
						><tr class="border-b text-left"
							><th class="py-1 pr-4 font-semibold" scope="col">What</th><th
								class="py-1 pr-4 font-semibold"
								scope="col">Rehearsed</th
							><th class="py-1 font-semibold" scope="col">What came</th></tr
						></thead
					>
					<tbody>
						{#each came as line (line.what)}
							<tr class="border-b align-top">
								<th class="py-1.5 pr-4 text-left font-semibold" scope="row">{format().inWords(line.what)}</th>
								<td class="py-1.5 pr-4">{format().inWords(line.rehearsed, today)}</td>
								<td class={['py-1.5', line.within === false && 'font-semibold text-ochre']}
									>{format().inWords(line.came, today)}{line.within === false
										? ': otherwise than rehearsed'
										: ''}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		</article>
	{/each}
</section>
