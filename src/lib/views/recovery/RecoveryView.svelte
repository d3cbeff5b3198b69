<script lang="ts">
	import { enhance } from '$app/forms';
	import { addDays } from '$core/climate/calendar';
	import type { FunctionPoint } from '$core/recovery/expected';
	import {
		budStates,
		firmnesses,
		leafStates,
		readingsOf,
		type MeasureKey,
		type Observation
	} from '$core/recovery/observation';
	import type { Answer, Verdict } from '$core/recovery/verdict';
	import { treeStateNames, type Tree } from '$core/tree/tree';
	import Button from '$ui/Button.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Check from '@lucide/svelte/icons/check';
	import CircleHelp from '@lucide/svelte/icons/circle-help';
	import X from '@lucide/svelte/icons/x';
	import { untrack } from 'svelte';
	import MeasureChart from './MeasureChart.svelte';

	interface Props {
		tree: Tree;
		observations: Observation[];
		verdict: Verdict;
		sinceOn: string;
		/** What happened on that day. */
		since: string;
		works: { on: string; label: string }[];
		expected: FunctionPoint[];
		reference: { name: string; observations: Observation[] } | null;
		today: string;
		refused?: Refused | null;
	}
	let { tree, observations, verdict, sinceOn, since, works, expected, reference, today, refused }: Props =
		$props();
	const format = useFormat();

	const measures: { key: MeasureKey; label: string; share?: boolean; show: (value: number) => string }[] = [
		{ key: 'leafCover', label: 'Leaf cover', share: true, show: (value) => format().percent(value) },
		{ key: 'shootExtensionMm', label: 'Shoots', show: (value) => format().measure(value, 'mm') },
		{ key: 'diebackLimitMm', label: 'Dieback limit', show: (value) => format().measure(value / 1000, 'm') },
		{ key: 'weightKg', label: 'Weight', show: (value) => format().measure(value, 'kg', 1) }
	];
	const measured = $derived(measures.filter((measure) => readingsOf(observations, measure.key).length > 0));
	let chosen = $state<MeasureKey>(
		untrack(() => measures.find((m) => readingsOf(observations, m.key).length > 0)?.key ?? 'leafCover')
	);
	const measure = $derived(measured.find((candidate) => candidate.key === chosen) ?? measured[0]);
	const first = $derived(
		[tree.takenInOn, observations[0]?.observedOn ?? tree.takenInOn].sort()[0] ?? tree.takenInOn
	);
	const until = $derived(addDays(tree.closedOn ?? today, 14));
	const losses = $derived(observations.filter((look) => look.lostCount !== null));
	const days = $derived(Math.round((Date.parse(today) - Date.parse(sinceOn)) / 86_400_000));

	let buds = $state<(typeof budStates)[number] | ''>('');
	let leafState = $state<(typeof leafStates)[number] | ''>('');
	let firmness = $state<(typeof firmnesses)[number] | ''>('');
	let whiteTips = $state<'true' | 'false' | ''>('');
	let rootsAtEdge = $state<'true' | 'false' | ''>('');
	let leafCover = $state<string>('');
	const coverSteps = [0, 0.1, 0.25, 0.5, 0.75, 0.9, 1];
	function clear(): void {
		buds = leafState = firmness = whiteTips = rootsAtEdge = '';
		leafCover = '';
	}
	const words = <T extends string>(list: readonly T[]) =>
		list.map((value) => ({ value, label: value as string }));
	const yesNo = [
		{ value: 'true', label: 'yes' },
		{ value: 'false', label: 'no' }
	] as const;

	let closing = $state(false);
	let ending = $state<'re-established' | 'dead' | 'gone'>('re-established');
	const answerNames: Record<Answer, string> = { met: 'met', 'not-met': 'not met', unknown: 'not known' };
	const unmet = $derived(verdict.criteria.filter((criterion) => criterion.answer !== 'met'));
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section class="pt-5 pb-20" aria-label="What was measured">
		{#if measure}
			<div class="flex flex-wrap items-end justify-between gap-3">
				<Choice
					label="Measured"
					hideLabel
					size="small"
					bind:value={chosen}
					options={measured.map(({ key, label }) => ({ value: key, label }))}
				/>
				<p class="text-sm text-slate">
					{#if reference}<span class="text-rain">◇ {reference.name}</span>{/if}
					{#if measure.share && expected.length > 0}<span class="ml-3 text-lichen"
							>band: root function expected from what was cut</span
						>{/if}
				</p>
			</div>
			<div class="mt-2">
				<MeasureChart
					label={measure.label}
					readings={readingsOf(observations, measure.key)}
					reference={reference && measure.key !== 'weightKg' && measure.key !== 'diebackLimitMm'
						? {
								name: reference.name,
								readings: readingsOf(reference.observations, measure.key).filter(
									(reading) => reading.on >= first
								)
							}
						: null}
					{expected}
					{works}
					from={first}
					to={until}
					show={measure.show}
					share={measure.share}
				/>
			</div>
		{:else if losses.length === 0}
			<p class="mt-2 text-lg text-slate">
				Nothing was measured yet. The first look is the baseline for all that follow.
			</p>
		{/if}
		{#if tree.plantCount > 1 && losses.length > 0}
			{@const dead = losses.at(-1)?.lostCount ?? 0}
			<p class="mt-3 text-lg">
				<strong>{tree.plantCount - dead} of {tree.plantCount}</strong> alive at the last count, {format().day(
					losses.at(-1)?.observedOn ?? today,
					today
				)}.
			</p>
		{/if}

		{#if tree.state === 'in-care'}
			<form
				method="POST"
				action="?/look"
				use:enhance={act({ done: clear })}
				class="mt-6 border-t pt-4"
				novalidate
			>
				<h2 class="text-lg">A look</h2>
				<p class="mb-3 text-sm text-slate">
					Only what you looked at. {days} days since {since}.
				</p>
				<Problem {refused} />
				<div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
					<Choice label="Buds" name="buds" bind:value={buds} options={words(budStates)} />
					<Choice label="Leaves" name="leafState" bind:value={leafState} options={words(leafStates)} />
					<Choice
						label="Crown in leaf"
						name="leafCover"
						bind:value={leafCover}
						options={coverSteps.map((share) => ({ value: String(share), label: format().percent(share) }))}
					/>
					<Choice label="Stands" name="firmness" bind:value={firmness} options={words(firmnesses)} />
					<MeasureField
						name="shootExtensionMm"
						label="This season’s shoots, mean"
						unit="mm"
						optional
						{refused}
					/>
					<MeasureField
						name="diebackLimitMm"
						label="Alive up to"
						unit="mm"
						optional
						hint="Scratch and tap from the base upward; height of the last green"
						{refused}
					/>
					{#if tree.situation !== 'in-ground'}<MeasureField
							name="weightKg"
							label="Weight"
							unit="kg"
							optional
							{refused}
						/>{/if}
					{#if tree.plantCount > 1}<TextField
							name="lostCount"
							label="Of {tree.plantCount}, dead so far"
							inputmode="numeric"
							optional
							{refused}
						/>{/if}
					<Choice label="White root tips seen" name="whiteTips" bind:value={whiteTips} options={yesNo} />
					<Choice
						label="Roots at the edge of the ball"
						name="rootsAtEdge"
						bind:value={rootsAtEdge}
						options={yesNo}
					/>
					<TextField name="observedOn" label="Looked on" type="date" value={today} max={today} {refused} />
					<TextField name="note" label="What else" optional {refused} />
				</div>
				<Button type="submit" tone="solid" size="large" class="mt-4">Keep this look</Button>
			</form>
		{/if}
		{#if observations.length > 0}
			<details class="mt-6">
				<summary class="font-display text-lg font-semibold"
					>All looks <span class="text-base font-normal text-slate">{observations.length}</span></summary
				>
				<div class="relative overflow-x-auto">
					<table class="mt-2 w-full text-sm whitespace-nowrap">
						<thead>
							<tr class="border-b text-left text-slate">
								{#each ['day', 'buds', 'leaves', 'cover', 'shoots', 'alive to', 'weight', 'stands', 'note'] as heading (heading)}<th
										class="py-1 pr-3 font-normal">{heading}</th
									>{/each}
							</tr>
						</thead>
						<tbody class="divide-y">
							{#each [...observations].reverse() as look (look.id)}
								<tr>
									<td class="py-1 pr-3">{format().day(look.observedOn, today)}</td>
									<td class="py-1 pr-3">{look.buds ?? ''}</td>
									<td class="py-1 pr-3">{look.leafState ?? ''}</td>
									<td class="py-1 pr-3">{look.leafCover === null ? '' : format().percent(look.leafCover)}</td>
									<td class="py-1 pr-3"
										>{look.shootExtensionMm === null ? '' : format().measure(look.shootExtensionMm, 'mm')}</td
									>
									<td class="py-1 pr-3"
										>{look.diebackLimitMm === null
											? ''
											: format().measure(look.diebackLimitMm / 1000, 'm')}</td
									>
									<td class="py-1 pr-3"
										>{look.weightKg === null ? '' : format().measure(look.weightKg, 'kg')}</td
									>
									<td class="py-1 pr-3">{look.firmness ?? ''}</td>
									<td class="py-1 whitespace-normal"
										>{look.lostCount === null ? '' : `${look.lostCount} lost. `}{look.note}</td
									>
								</tr>
							{/each}
						</tbody>
					</table>
				</div>
			</details>
		{/if}
	</section>

	<Consequences
		title={tree.state === 'in-care'
			? 'Is it re-established?'
			: treeStateNames[tree.state].replace(/^./, (letter) => letter.toUpperCase())}
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
			{#if tree.closingNote}
				<h3 class="mt-4 text-base">What was learned</h3>
				<p class="mt-1 text-lg">{tree.closingNote}</p>
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
						<span class="block text-sm text-slate">{criterion.because}</span>
					</span>
				</li>
			{/each}
		</ul>
		<p class="mt-2 text-sm text-slate">
			All must hold. What was never looked at stays not known and does not count. The limits are our own
			working defaults; change them under Reference, Values.
		</p>
		{#if tree.state === 'in-care'}
			<div class="mt-4">
				<Button tone={verdict.reEstablished ? 'solid' : 'outline'} onclick={() => (closing = true)}
					>Close the case</Button
				>
			</div>
		{/if}
	</Consequences>
</div>

<Sheet
	bind:open={closing}
	title="Close the case"
	description="A closed case stays in the record and can be opened again."
>
	<form
		method="POST"
		action="?/closeCase"
		use:enhance={act({ done: () => (closing = false) })}
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
				Not all criteria are met ({unmet.map((criterion) => criterion.label.toLowerCase()).join('; ')}). You
				may close it all the same: note why.
			</p>
		{/if}
		<TextField name="closedOn" label="On" type="date" value={today} max={today} {refused} />
		<TextField
			name="closingNote"
			label={ending === 'dead'
				? 'What was learned: what would have shown it earlier?'
				: 'What was learned, what remains'}
			rows={3}
			{refused}
			optional={ending !== 'dead'}
		/>
		<Button type="submit" tone="solid">Close it</Button>
	</form>
</Sheet>
