<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { midSentence, atStart } from '$core/text/mid-sentence';
	import { conditionOf } from '$core/vocabulary/conditions';
	import type { Check, NextChecks } from '$core/examine/diagnosis/next-check';
	import { procedures, type ProcedureId } from '$core/vocabulary/procedures';
	import { gradeWord, howToLook, signOf, type SignId } from '$core/vocabulary/signs';
	import type { Situation } from '$core/vocabulary/words';
	import { page } from '$app/state';
	import Button from '$ui/Button.svelte';
	import { makeMove } from '../practice/move';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import ArrowRight from '@lucide/svelte/icons/arrow-right';

	/** The check that would tell most for its effort and harm, with its answers as keys; and the ones after it. */
	interface Props {
		next: NextChecks | null;
		/** How the tree stands: what is looked at differs by it. */
		situation: Situation;
		/** How the harm of this season and vigour is said. */
		harmNote: string;
		onset: (sign: SignId, grade: number) => void;
	}
	let { next, situation, harmNote, onset }: Props = $props();
	const format = useFormat();
	const SHOWN = 3;
	let passed = $state<SignId[]>([]);
	const list = $derived((next?.checks ?? []).filter((check) => !passed.includes(check.signIds[0] as SignId)));
	const first = $derived(list[0]);
	const later = $derived(list.slice(1, 1 + SHOWN));
	const percent = (chance: number): string => chanceSaid(chance, format().percent);
	const harm = (check: Check): string =>
		check.harm <= 0
			? 'no harm'
			: check.harm < 0.005
				? 'hardly any harm'
				: `costs it about ${format().percent(check.harm, check.harm < 0.1 ? 1 : 0)} of its chance`;
	/** A practice tree answers by itself: all that the same step shows. */
	const practice = $derived(page.data.practice);
	async function see(check: Check): Promise<void> {
		for (const signId of check.signIds as SignId[]) {
			const answer = practice && (await makeMove(practice.id, { move: 'see', signId }));
			if (answer?.grade !== undefined) onset(signId, answer.grade);
		}
	}
	/** Answers of the first sign, from the strongest down. */
	const answers = (check: Check) =>
		check.answers.filter((answer) => answer.signId === check.signIds[0]).toReversed();
</script>

{#if next && first}
	{@const sign = signOf(first.signIds[0] as SignId)}
	{@const subject = conditionOf(first.subject).label}
	<section aria-label="Next check" class="border-l-4 border-lichen pl-4">
		<div class="flex flex-wrap items-baseline justify-between gap-x-4">
			<h2 class="text-lg">The next check worth making</h2>
			<Workings
				label="Worth of this check"
				formula="entropy it takes away ÷ (minutes + harm as minutes)"
				lines={[
					{
						label: 'Expected drop, over causes that would change what is done',
						value: `${format().number(first.gainBits, 3)} bit`
					},
					{ label: 'Minutes', value: format().number(first.minutes, 1), mark: 'our own working default' },
					{
						label: `Harm to this tree today (${procedures[first.procedure as ProcedureId].label})`,
						value: format().percent(first.harm, 2),
						mark: 'our own working default'
					},
					{ label: 'Cost as minutes', value: format().number(first.cost, 1) },
					{ label: 'Causes that count', value: String(next.relevant.length) }
				]}
				changes={harmNote}
			>
				<span class="text-sm text-slate">{format().number(first.minutes)} min, {harm(first)}</span>
			</Workings>
		</div>
		<p class="mt-1 text-lg font-semibold">{sign.label}?</p>
		<p class="text-sm">
			<Terms text="{howToLook(first.signIds[0] as SignId, situation)} With {sign.tool}." />
		</p>
		<div class="mt-2 flex flex-wrap gap-2">
			{#each answers(first) as answer (answer.grade)}
				{@const word = gradeWord(answer.signId as SignId, answer.grade)}
				{#snippet means()}
					<span class="block font-semibold">{atStart(word)}</span>
					<span class="block text-sm text-slate"
						>{subject}: {percent(answer.chance)}{answer.acts ? ', then act' : ''}</span
					>
				{/snippet}
				{#if practice}<span class="px-1 py-1.5">{@render means()}</span>{:else}<button
						type="button"
						class="min-h-11 rounded-md border border-edge px-3 py-1.5 text-left hover:border-ink hover:bg-duff"
						onclick={() => onset(answer.signId as SignId, answer.grade)}>{@render means()}</button
					>{/if}
			{/each}
			{#if practice}<Button size="small" class="self-center" onclick={() => void see(first)}
					>Make this check</Button
				>{/if}
			<Button
				tone="quiet"
				size="small"
				class="self-center"
				onclick={() => passed.push(first.signIds[0] as SignId)}>Not now</Button
			>
		</div>
		{#if first.signIds.length > 1}
			<p class="mt-2 text-sm text-slate">
				The same step also shows: {first.signIds
					.slice(1)
					.map((id) => midSentence(signOf(id).label))
					.join('; ')}.
			</p>
		{/if}
		{#if later.length > 0}
			<details class="mt-2 text-sm">
				<summary class="chalk min-h-9 content-center">And after it</summary>
				<ol class="mt-1 divide-y border-y">
					{#each later as check (check.signIds[0])}
						<li class="flex items-baseline gap-3 py-1.5">
							<ArrowRight size={15} class="shrink-0 self-center text-slate" aria-hidden="true" />
							<span class="flex-1"
								>{check.signIds.map((id) => signOf(id).label).join(' · ')}
								<span class="text-slate">– tells of {midSentence(conditionOf(check.subject).label)}</span
								></span
							>
							<span class="text-slate">{format().number(check.minutes)} min, {harm(check)}</span>
						</li>
					{/each}
				</ol>
			</details>
		{/if}
	</section>
{:else if next}
	<p class="border-l-4 border-edge pl-4 text-sm text-slate">
		No further sign would change what is done. Keep the look, or measure.
	</p>
{/if}
