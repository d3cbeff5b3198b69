<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { checkSentence, type Check as NextCheck } from '$core/examine/diagnosis/next-check';
	import type { DueDecision } from '$core/recovery/decisions';
	import { decisionKinds, decisionNames, type Decision, type DecisionKind } from '$core/recovery/said';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Tree } from '$core/take-in/tree';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import Check from '@lucide/svelte/icons/check';

	/** What is to be decided now, with its evidence, and what was decided before. */
	interface Props {
		tree: Pick<Tree, 'id' | 'situation'>;
		due: readonly DueDecision[];
		/** The check to look closer with, once it is worked out. */
		check: NextCheck | null;
		decisions: readonly Decision[];
		today: string;
		refused?: Refused | null;
	}
	let { tree, due, check, decisions, today, refused }: Props = $props();
	const format = useFormat();
	/** Days in a sentence of the core, as the person writes them. */
	const inWords = (text: string): string => format().inWords(text, today);
	let otherwise = $state<DecisionKind | null>(null);
	const stageWords: Record<NonNullable<DueDecision['stage']>, string> = {
		examine: 'Open Examine',
		replant: 'Open Replant',
		roots: 'Open Roots',
		aftercare: 'Open Aftercare',
		recovery: ''
	};
	const decidedLately = (kind: DecisionKind): Decision | undefined =>
		decisions.findLast((one) => one.advised === kind && one.decidedOn === today);
</script>

<section aria-labelledby="decisions-title">
	<h2 id="decisions-title" class="text-lg">Now to decide</h2>
	<ol class="mt-1 divide-y border-y">
		{#each due as one (one.kind + one.what)}
			{@const decided = decidedLately(one.kind)}
			<li class="py-3">
				<p class={['text-lg font-semibold', one.presses && 'text-oxide']}>
					{decisionNames[one.kind]}<span class="text-ink">. {inWords(one.what)}</span>
				</p>
				{#if one.evidence.length > 0}<p class="text-sm text-slate">
						<Terms text={inWords(one.evidence.join(' '))} />
					</p>{/if}
				{#if one.first.length > 0}
					<ul class="mt-1 list-disc pl-5 text-sm">
						{#if check && one.kind === 'look-closer' && one.stage === 'examine'}
							<li>
								<strong>Now tells most, in {check.minutes} min:</strong>
								{checkSentence(check, tree.situation, (chance) => chanceSaid(chance, format().percent))}
							</li>
						{/if}
						{#each one.first as step (step)}<li>{inWords(step)}</li>{/each}
					</ul>
				{/if}
				<div class="mt-2 flex flex-wrap items-center gap-2">
					{#if decided}
						<p class="text-sm">
							<Check size={16} class="inline text-lichen" /> Decided today: {decisionNames[
								decided.decided
							].toLowerCase()}{decided.note ? `. ${decided.note}` : ''}
						</p>
					{:else}
						<form method="POST" action="?/decide" use:enhance={act()}>
							<input type="hidden" name="decidedOn" value={today} />
							<input type="hidden" name="advised" value={one.kind} />
							<input type="hidden" name="decided" value={one.kind} />
							<Button size="small" type="submit" aria-label="So decided: {decisionNames[one.kind]}"
								>So decided</Button
							>
						</form>
						<Button
							size="small"
							tone="quiet"
							aria-label="Decide otherwise than: {decisionNames[one.kind]}"
							onclick={() => (otherwise = one.kind)}>Otherwise</Button
						>
					{/if}
					{#if one.stage && one.stage !== 'recovery'}
						<a class="chalk text-sm" href={resolve(`/trees/[id]/${one.stage}`, { id: tree.id })}
							>{stageWords[one.stage]}</a
						>
					{/if}
				</div>
			</li>
		{/each}
	</ol>
	{#if decisions.length > 0}
		<details class="mt-3">
			<summary class="font-semibold"
				>Decided before <span class="font-normal text-slate">{decisions.length}</span></summary
			>
			<ul class="mt-1 divide-y border-y text-sm">
				{#each [...decisions].reverse() as one (one.id)}
					<li class="grid grid-cols-[7rem_1fr] gap-3 py-1.5">
						<span class="text-slate">{format().day(one.decidedOn, today)}</span>
						<span
							>{decisionNames[one.decided]}{one.decided === one.advised
								? ''
								: `, against “${decisionNames[one.advised].toLowerCase()}”: ${one.note}`}<span
								class="block text-slate"
								>{inWords(one.because)}{one.probability === null
									? ''
									: ` Thought to come back with ${format().percent(one.probability)}.`}</span
							></span
						>
					</li>
				{/each}
			</ul>
		</details>
	{/if}
</section>

<Sheet
	bind:open={
		() => otherwise !== null,
		(open) => {
			if (!open) otherwise = null;
		}
	}
	title="Decide otherwise"
	description="What you decide is kept beside what was advised, with your reason."
>
	<form
		method="POST"
		action="?/decide"
		use:enhance={act({ done: () => (otherwise = null) })}
		class="flex flex-col gap-4"
		novalidate
	>
		<Problem {refused} />
		<input type="hidden" name="decidedOn" value={today} />
		<input type="hidden" name="advised" value={otherwise} />
		<SelectField
			name="decided"
			label="Decided"
			value={otherwise === 'carry-on' ? 'look-closer' : 'carry-on'}
			options={decisionKinds
				.filter((value) => value !== otherwise)
				.map((value) => ({ value, label: decisionNames[value] }))}
			{refused}
		/>
		<TextField name="note" label="Reason" rows={3} required {refused} />
		<Button type="submit" tone="solid">Keep the decision</Button>
	</form>
</Sheet>
