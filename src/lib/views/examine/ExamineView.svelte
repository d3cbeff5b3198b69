<script lang="ts">
	import { enhance } from '$app/forms';
	import { conditionOf, type ConditionId } from '$core/diagnosis/conditions';
	import { diagnose, type Finding } from '$core/diagnosis/diagnose';
	import type { Examination } from '$core/diagnosis/examination';
	import { signApplies, signIds, signOf, type Sign, type SignId } from '$core/diagnosis/signs';
	import type { Tree } from '$core/tree/tree';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { ToggleGroup } from 'bits-ui';
	import { untrack } from 'svelte';

	interface Props {
		tree: Tree;
		examinations: Examination[];
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { tree, examinations, values, today, refused }: Props = $props();
	const format = useFormat();

	const parts: Sign['part'][] = ['crown', 'stem', 'collar', 'pot and soil', 'roots'];
	const partTitles: Record<Sign['part'], string> = {
		crown: 'Crown',
		stem: 'Stem and bark',
		collar: 'Foot of the trunk',
		'pot and soil': 'Pot and soil',
		roots: 'Roots'
	};
	/** Which examination is shown beside: the one being made, or an earlier one by identity. */
	let viewing = $state<string>(untrack(() => examinations.at(-1)?.id ?? 'new'));
	let answers = $state<Partial<Record<SignId, Finding['state']>>>({});
	const past = $derived(examinations.find((examination) => examination.id === viewing));
	const applicable = $derived(signIds.filter((id) => signApplies(id, tree.situation)));
	const typed = $derived(
		signIds.flatMap((signId) => {
			const state = answers[signId];
			return state ? [{ signId, state }] : [];
		})
	);
	const findings = $derived(past ? past.findings : typed);
	const diagnosis = $derived(diagnose(tree.situation, findings, values));
	let openCause = $state<string | null>(null);
	const leading = $derived(
		diagnosis.ranking.filter((cause, index) => index < 5 || cause.chance >= 0.15).slice(0, 9)
	);
	const latest = $derived(examinations.at(-1));

	const chance = (value: number): string =>
		value < 0.01 ? 'under 1 %' : value > 0.99 ? 'over 99 %' : format().percent(value);
	const pull = (value: number): string => {
		const strength = Math.abs(value) >= 1.5 ? 'strongly ' : Math.abs(value) < 0.4 ? 'slightly ' : '';
		return `speaks ${strength}${value > 0 ? 'for it' : 'against it'}`;
	};
	function kept(): void {
		answers = {};
		viewing = examinations.at(-1)?.id ?? 'new';
	}
	function repeatLast(): void {
		if (!latest) return;
		viewing = 'new';
		answers = Object.fromEntries(latest.findings.map((finding) => [finding.signId, finding.state]));
	}
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label="Signs" class="pt-5 pb-20">
		<div class="flex flex-wrap items-end justify-between gap-3">
			<Choice
				label="Examination"
				bind:value={viewing}
				size="small"
				options={[
					{ value: 'new', label: 'New look' },
					...examinations
						.slice(-4)
						.reverse()
						.map((examination) => ({
							value: examination.id,
							label: format().day(examination.examinedOn, today)
						}))
				]}
			/>
			{#if viewing === 'new' && latest && typed.length === 0}
				<Button size="small" onclick={repeatLast}>Begin from {format().day(latest.examinedOn, today)}</Button>
			{/if}
		</div>
		{#if past}
			<h2 class="mt-5 text-lg">Found on {format().date(past.examinedOn)}</h2>
			{#if past.note}<p class="mt-1">{past.note}</p>{/if}
			<ul class="mt-3 divide-y border-y">
				{#each past.findings as finding (finding.signId)}
					<li class="flex items-baseline justify-between gap-4 py-2">
						<span>{signOf(finding.signId).label}</span>
						<strong class={finding.state === 'present' ? 'text-oxide' : 'text-slate'}
							>{finding.state === 'present' ? 'seen' : 'looked, not there'}</strong
						>
					</li>
				{:else}
					<li class="py-2 text-slate">No sign was set.</li>
				{/each}
			</ul>
		{:else}
			<p class="mt-3 text-sm text-slate">
				From the least to the most invasive. Leave open what you did not look for: unknown moves nothing.
			</p>
			<form method="POST" action="?/record" use:enhance={act({ done: kept })} class="mt-3">
				<Problem {refused} />
				{#each parts as part (part)}
					{@const inPart = applicable.filter((id) => signOf(id).part === part)}
					<fieldset class="mt-3">
						<legend class="font-display text-lg font-semibold">{partTitles[part]}</legend>
						<ul class="divide-y border-y">
							{#each inPart as id (id)}
								{@const sign = signOf(id)}
								<li class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
									<span class="min-w-0 flex-1 basis-56">
										<span id="sign-{id}">{sign.label}</span>
										<span class="block text-xs text-slate">{sign.how} {sign.minutes} min</span>
									</span>
									<ToggleGroup.Root
										type="single"
										value={answers[id] ?? ''}
										onValueChange={(value) => {
											if (value === 'present' || value === 'absent') answers[id] = value;
											else delete answers[id];
										}}
										aria-labelledby="sign-{id}"
										class="flex gap-1"
									>
										<ToggleGroup.Item
											value="present"
											class="min-h-11 min-w-16 rounded-md border border-edge px-3 font-semibold data-[state=on]:border-oxide data-[state=on]:bg-oxide data-[state=on]:text-paper"
											>Seen</ToggleGroup.Item
										>
										<ToggleGroup.Item
											value="absent"
											class="min-h-11 rounded-md border border-edge px-3 data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper"
											>Not there</ToggleGroup.Item
										>
									</ToggleGroup.Root>
								</li>
							{/each}
						</ul>
					</fieldset>
				{/each}
				<input type="hidden" name="findings" value={JSON.stringify(typed)} />
				<div class="mt-5 grid gap-4 sm:grid-cols-[11rem_1fr]">
					<TextField name="examinedOn" label="Looked on" type="date" value={today} max={today} {refused} />
					<TextField name="note" label="What else" optional {refused} />
				</div>
				<Button type="submit" tone="solid" size="large" class="mt-5" disabled={typed.length === 0}>
					Keep this look, {typed.length} sign{typed.length === 1 ? '' : 's'}
				</Button>
			</form>
		{/if}
	</section>

	<Consequences title="What it may be">
		{#snippet summary()}
			{@const first = diagnosis.ranking[0]}
			{#if first && findings.length > 0}
				<strong class="font-display text-2xl">{chance(first.chance)}</strong>
				<span class="truncate">{conditionOf(first.conditionId as ConditionId).label}</span>
			{:else}<span>What it may be: set a sign</span>{/if}
		{/snippet}
		<p class="text-sm text-slate" role="status">
			{findings.length === 0
				? 'Only what is usual among trees brought in like this one; set a sign.'
				: `From ${findings.length} sign${findings.length === 1 ? '' : 's'}; several may hold at once.`}
		</p>
		<ol class="mt-2 divide-y border-y">
			{#each leading as cause (cause.conditionId)}
				{@const condition = conditionOf(cause.conditionId as ConditionId)}
				<li class="py-2">
					<button
						class="grid w-full grid-cols-[1fr_auto] items-baseline gap-x-3 text-left"
						aria-expanded={openCause === cause.conditionId}
						onclick={() => (openCause = openCause === cause.conditionId ? null : cause.conditionId)}
					>
						<span class="font-semibold">{condition.label}</span>
						<span class="font-display font-semibold">{chance(cause.chance)}</span>
						<span class="relative col-span-2 mt-1 block h-2 rounded-sm bg-duff">
							<span
								class={[
									'absolute inset-y-0 left-0 rounded-sm',
									condition.urgent && cause.chance >= 0.5 ? 'bg-oxide' : 'bg-bark'
								]}
								style="width: {cause.chance * 100}%"
							></span>
							<span
								class="absolute -inset-y-0.5 w-0.5 bg-ink"
								style="left: {cause.prior * 100}%"
								title="before any sign: {chance(cause.prior)}"
							></span>
						</span>
					</button>
					{#if openCause === cause.conditionId || (openCause === null && cause === leading[0] && findings.length > 0)}
						<div class="mt-2 text-sm">
							<p>{condition.meaning}{condition.urgent ? ' Not bound to a season.' : ''}</p>
							<ul class="mt-1.5">
								{#each cause.reasons as reason (reason.signId)}
									<li class="flex items-baseline gap-2 py-0.5">
										<span
											aria-hidden="true"
											class={['font-bold', reason.pull > 0 ? 'text-oxide' : 'text-lichen']}
											>{reason.pull > 0 ? '+' : '−'}</span
										>
										<span
											>{signOf(reason.signId as SignId).label}{reason.state === 'absent'
												? ', not there'
												: ''}: {pull(reason.pull)}</span
										>
										<span class="ml-auto shrink-0 text-slate"
											>{reason.pull > 0 ? '+' : '−'}{format().number(Math.abs(reason.pull), 1)}</span
										>
									</li>
								{:else}
									<li class="text-slate">No finding moves it; this is how usual it is.</li>
								{/each}
							</ul>
							<p class="mt-1 text-xs text-slate">
								Numbers are log-odds lost when the finding is taken away. The mark on the bar is the chance
								before any sign.
							</p>
						</div>
					{/if}
				</li>
			{/each}
		</ol>
		{#if findings.length > 0 && diagnosis.combination.length > 1}
			<p class="mt-3 text-sm">
				Most probable together: <strong
					>{diagnosis.combination
						.map((id) => conditionOf(id as ConditionId).label.toLowerCase())
						.join(' with ')}</strong
				>, {chance(diagnosis.combinationChance)}.
			</p>
		{/if}
		<p class="mt-3 text-sm text-slate">
			Exact over all combinations of 16 causes, each sign a noisy-OR. Every number in it is our own working
			default and can be changed under Reference, Values.
		</p>
		{#if tree.situation === 'in-ground' && tree.trunkDiameterMm >= 200}
			<div class="mt-4">
				<Caution title="A big tree"
					>With cut, rotten or girdled anchors it can fall. Whether it stands is judged by a qualified
					arborist; brackets, cracks or lifted soil call for one at once.</Caution
				>
			</div>
		{/if}
	</Consequences>
</div>
