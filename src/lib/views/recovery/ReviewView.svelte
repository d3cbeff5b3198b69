<script lang="ts">
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import type { Review } from '$core/recovery/outcomes/review';
	import type { Values } from '$core/values/values';
	import TreeTag from '$ui/TreeTag.svelte';
	import { useFormat } from '$ui/format';

	interface Props {
		/** The whole yard in spring and autumn, on one sheet. */
		review: Review;
		values: Values;
		today: string;
	}
	let { review, values, today }: Props = $props();
	const format = useFormat();
	const parts = $derived([
		{
			title: 'Root stages that are due',
			note: `Planned within ${values['review.stagesDays']} days. Whether a tree has paid back the last one is asked where it is opened.`,
			rows: review.stages,
			stage: 'roots' as const,
			none: 'No stage is due.'
		},
		{
			title: 'Pots that ask',
			note: `Roots at the edge, or planted more than ${values['review.repotYears']} years ago. Repot on need, not by the calendar.`,
			rows: review.pots,
			stage: 'replant' as const,
			none: 'No pot asks for another.'
		},
		{
			title: `Nobody looked for ${values['look.overdueDays']} days`,
			note: 'Longest first.',
			rows: review.unseen,
			stage: 'recovery' as const,
			none: 'Every tree in care was seen.'
		},
		{
			title: 'Nothing planned',
			note: 'In care, without a next look or work.',
			rows: review.undecided,
			stage: 'aftercare' as const,
			none: 'Every tree has its next date.'
		}
	]);
	const total = $derived(parts.reduce((sum, part) => sum + part.rows.length, 0));
</script>

<div class="page pt-6 pb-20" data-sheet>
	<div class="flex flex-wrap items-end justify-between gap-3">
		<div>
			<h1 class="text-3xl">Review of the yard</h1>
			<p class="mt-1 text-slate">
				{format().date(today)}. {total === 0
					? 'Nothing is open.'
					: `${total} things to settle before the season.`}
			</p>
		</div>
		<SheetActions title="Review of the yard" print="Print it" />
	</div>
	<div class="mt-5 grid gap-x-10 gap-y-8 lg:grid-cols-2">
		{#each parts as part (part.title)}
			<section aria-labelledby="review-{part.stage}">
				<h2 id="review-{part.stage}" class="text-lg">
					{part.title} <span class="text-base font-normal text-slate">{part.rows.length}</span>
				</h2>
				<p class="text-sm text-slate">{part.note}</p>
				<ul class="mt-2 divide-y border-y">
					{#each part.rows.slice(0, 200) as row (row.treeId)}
						<li class="flex flex-wrap items-baseline gap-x-3 gap-y-1 py-2">
							<TreeTag tag={row.tag} size="small" />
							<span class="min-w-0 flex-1 basis-40"
								><a class="chalk" href={resolve(`/trees/[id]/${part.stage}`, { id: row.treeId })}
									>{row.name}</a
								>
								<span class="text-sm text-slate">{row.placeName}</span></span
							>
							<span class="text-sm sm:ml-auto"
								>{format().inWords(row.why)}{row.on ? `, ${format().day(row.on, today)}` : ''}</span
							>
						</li>
					{:else}
						<li class="py-2 text-slate">{part.none}</li>
					{/each}
				</ul>
				{#if part.rows.length > 200}<p class="text-sm text-slate">and {part.rows.length - 200} more</p>{/if}
			</section>
		{/each}
	</div>
</div>
