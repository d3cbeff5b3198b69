<script lang="ts">
	import { atStart, midSentence } from '$core/text/mid-sentence';
	import { enhance } from '$app/forms';
	import { lossCauseNames, lossCauses, type Tree } from '$core/take-in/tree';
	import { treeStateNames } from '$core/vocabulary/words';
	import type { Answer, Verdict } from '$core/recovery/verdict';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Choice from '$ui/Choice.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import Check from '@lucide/svelte/icons/check';
	import CircleHelp from '@lucide/svelte/icons/circle-help';
	import X from '@lucide/svelte/icons/x';

	/** The criteria as they stand, and the end of the case with what was learned. */
	interface Props {
		tree: Tree;
		verdict: Verdict;
		today: string;
		refused?: Refused | null;
	}
	let { tree, verdict, today, refused }: Props = $props();
	const format = useFormat();
	let closing = $state(false);
	let ending = $state<'re-established' | 'dead' | 'gone'>('re-established');
	const answerNames: Record<Answer, string> = { met: 'met', 'not-met': 'not met', unknown: 'not known' };
	const unmet = $derived(verdict.criteria.filter((criterion) => criterion.answer !== 'met'));
</script>

<Consequences
	title={tree.state === 'in-care' ? 'Is it re-established?' : atStart(treeStateNames[tree.state])}
>
	{#snippet summary()}
		{#if tree.state === 'in-care'}
			<strong class="font-display text-2xl"
				>{verdict.criteria.length - unmet.length} of {verdict.criteria.length}</strong
			>
			<span class="truncate">criteria met</span>
		{:else}<span class="truncate">{treeStateNames[tree.state]}</span>{/if}
	{/snippet}
	{#if tree.state !== 'in-care'}
		<p class="text-slate">{tree.closedOn ? format().date(tree.closedOn) : ''}</p>
		{#if tree.lossCause}
			<p class="mt-2 text-lg font-semibold">Cause: {lossCauseNames[tree.lossCause]}</p>
		{/if}
		{#if tree.closingNote}
			<h3 class="mt-4 text-base">What was learned</h3>
			<p class="mt-1 text-lg">{tree.closingNote}</p>
		{/if}
		{#if tree.shownEarlier}
			<h3 class="mt-3 text-base">What would have shown it earlier</h3>
			<p class="mt-1">{tree.shownEarlier}</p>
		{/if}
		{#if tree.lossConditions}
			<h3 class="mt-3 text-base">Conditions then</h3>
			<p class="mt-1">{tree.lossConditions}</p>
		{/if}
		<form method="POST" action="?/reopen" use:enhance={act()} class="mt-5">
			<input type="hidden" name="version" value={tree.version} />
			<Button type="submit">Open the case again</Button>
		</form>
		<h3 class="mt-6 text-base">The criteria, as they stand</h3>
	{:else}
		<p class="mt-1 font-display text-2xl leading-tight font-semibold">
			{#if verdict.reEstablished}
				<span class="text-lichen">Yes, by every criterion.</span>
			{:else}
				Not yet: {verdict.criteria.length - unmet.length} of {verdict.criteria.length} met.
			{/if}
		</p>
	{/if}
	<ul class="mt-3 divide-y border-y">
		{#each verdict.criteria as criterion (criterion.name)}
			<li class="grid grid-cols-[1.75rem_1fr] py-2.5">
				<span
					class={criterion.answer === 'met'
						? 'text-lichen'
						: criterion.answer === 'not-met'
							? 'text-oxide'
							: 'text-slate'}
					aria-hidden="true"
				>
					{#if criterion.answer === 'met'}<Check
							size={20}
							strokeWidth={3}
						/>{:else if criterion.answer === 'not-met'}<X size={20} strokeWidth={3} />{:else}<CircleHelp
							size={20}
						/>{/if}
				</span>
				<span>
					<span class="font-semibold">{criterion.label}</span>
					<span
						class={[
							'text-sm',
							criterion.answer === 'met'
								? 'text-lichen'
								: criterion.answer === 'not-met'
									? 'text-oxide'
									: 'text-slate'
						]}>{answerNames[criterion.answer]}</span
					>
					<span class="block text-sm text-slate"><Terms text={format().inWords(criterion.because)} /></span>
				</span>
			</li>
		{/each}
	</ul>
	{#if tree.state === 'in-care' && verdict.owed.length > 0}
		<h3 class="mt-3 text-base">Looks that are owed</h3>
		<ul class="list-disc pl-5 text-sm">
			{#each verdict.owed as look (look)}<li>
					{format().inWords(look.replace(/[.?]?$/, (end) => end || '.'))}
				</li>{/each}
		</ul>
	{/if}
	<p class="mt-2 text-sm text-slate">
		All must hold. What was never looked at stays not known and does not count. The limits are our own working
		defaults; change them under Reference, Values.
	</p>
	{#if tree.state === 'in-care'}
		<div class="mt-4">
			<Button tone={verdict.reEstablished ? 'solid' : 'outline'} onclick={() => (closing = true)}
				>Close the case</Button
			>
		</div>
	{/if}
</Consequences>

<Sheet
	bind:open={closing}
	title="Close the case"
	description="A closed case stays in the record and can be opened again."
>
	<form
		method="POST"
		action="?/closeCase"
		use:enhance={act({ done: () => (closing = false) })}
		{@attach keepTyped(`closing.${tree.id}`)}
		class="flex flex-col gap-4"
		novalidate
	>
		<Problem {refused} />
		<input type="hidden" name="version" value={tree.version} />
		<Choice
			label="How it ended"
			name="state"
			bind:value={ending}
			options={[
				{ value: 're-established', label: 'Re-established' },
				{ value: 'dead', label: 'Dead' },
				{ value: 'gone', label: 'Gone elsewhere' }
			]}
		/>
		{#if ending === 're-established' && unmet.length > 0}
			<p class="text-sm font-semibold text-ochre">
				Not all criteria are met ({unmet.map((criterion) => midSentence(criterion.label)).join('; ')}). You
				may close it all the same: note why.
			</p>
		{/if}
		<DateField name="closedOn" label="On" value={today} max={today} {refused} />
		<TextField
			name="closingNote"
			label={ending === 'dead' ? 'What was learned, for the next tree' : 'What was learned, what remains'}
			rows={3}
			{refused}
			optional={ending !== 'dead'}
		/>
		{#if ending === 'dead'}
			<SelectField
				name="lossCause"
				label="Of what, as far as it is known"
				value="not-known"
				options={lossCauses.map((value) => ({ value, label: lossCauseNames[value] }))}
				{refused}
			/>
			<TextField
				name="lossConditions"
				label="Conditions then: weather, place, water"
				rows={2}
				optional
				{refused}
			/>
			<TextField name="shownEarlier" label="What would have shown it earlier" rows={2} optional {refused} />
		{/if}
		<Button type="submit" tone="solid">Close it</Button>
	</form>
</Sheet>
