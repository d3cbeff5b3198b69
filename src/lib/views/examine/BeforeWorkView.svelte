<script lang="ts">
	import { enhance } from '$app/forms';
	import { daysBetween } from '$core/maths/calendar';
	import {
		pestStateNames,
		pestStates,
		purposeNames,
		purposes,
		triageDecisionNames,
		triageDecisions,
		vitalities
	} from '$core/examine/triage/triage';
	import { markOf } from '$core/values/values';
	import { permissionNames, permissions } from '$core/vocabulary/words';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import DateField from '$ui/DateField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import TreeField from '$views/tree/TreeField.svelte';
	import type { TreeName } from '$core/take-in/tree';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { keepTyped } from '$ui/keep-typed';
	import { untrack } from 'svelte';
	import { BeforeWorkState, type BeforeWorkOf } from './before-work-state.svelte';
	import DecidedBefore from './DecidedBefore.svelte';
	import ExamineParts from './ExamineParts.svelte';
	import WhatFollows from './WhatFollows.svelte';

	/** Go, nurse it first, or leave it: the look before lifting or treating, and what follows from it. */
	interface Props extends BeforeWorkOf {
		others: TreeName[];
		refused?: Refused | null;
	}
	let { records, kind, place, others, values, today, refused }: Props = $props();
	const format = useFormat();
	const before = new BeforeWorkState(untrack(() => ({ records, kind, place, values, today })));
	$effect.pre(() => {
		before.of = { records, kind, place, values, today };
	});

	const tree = $derived(records.tree);
	const advice = $derived(before.advice);
	const chosen = $derived(before.decision);
	const stale = $derived(before.stale);
	const backups = $derived(advice?.backups ?? 0);
	type Known = 'yes' | 'no' | 'unknown';
	const known = (value: boolean | null): Known => (value === null ? 'unknown' : value ? 'yes' : 'no');
	const truth = (value: Known): boolean | null => (value === 'unknown' ? null : value === 'yes');
	const knownOptions = [
		{ value: 'yes' as const, label: 'Yes' },
		{ value: 'no' as const, label: 'No' },
		{ value: 'unknown' as const, label: 'Not known' }
	];
</script>

{#snippet yesNo(label: string, name: 'scratchAlive' | 'protectedSpecies' | 'servicesLocated')}
	<div>
		<Choice
			{label}
			bind:value={() => known(before.typed[name]), (value) => (before.typed[name] = truth(value))}
			options={knownOptions}
		/>
		<input type="hidden" {name} value={before.typed[name] ?? ''} />
	</div>
{/snippet}

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label="Before the work" class="min-w-0 pt-1 pb-24">
		<ExamineParts treeId={tree.id} asks={stale ? { part: '/before', word: 'look again' } : null} />
		{#if stale}
			<div class="mt-3 border-l-4 border-ochre py-1 pl-3" role="note">
				<p class="font-semibold text-ochre">
					“{triageDecisionNames[stale.decision]}” was decided {daysBetween(stale.decidedOn, today)} days ago. Look
					again before you work by it.
				</p>
				<p class="text-sm">A decision stands for {format().number(values['triage.new-look-days'])} days.</p>
			</div>
		{/if}
		<form
			method="POST"
			action="?/decide"
			use:enhance={act({ keep: true, done: () => before.kept() })}
			{@attach keepTyped(`before.${tree.id}`)}
			class="mt-3 flex flex-col gap-5"
			novalidate
		>
			<Problem {refused} />
			<Choice
				label="The work is to"
				name="purpose"
				bind:value={before.typed.purpose}
				options={purposes.map((value) => ({ value, label: purposeNames[value] }))}
			/>
			<Choice
				label="Today it is"
				name="vitality"
				bind:value={before.typed.vitality}
				options={vitalities.map((value) => ({ value, label: value }))}
			/>
			<div class="grid gap-5 sm:grid-cols-2">
				{@render yesNo('A scratched twig is alive', 'scratchAlive')}
				<Choice
					label="Pests"
					name="pests"
					bind:value={before.typed.pests}
					options={pestStates.map((value) => ({ value, label: pestStateNames[value] }))}
				/>
			</div>
			<Choice
				label="Permission"
				name="permission"
				bind:value={before.typed.permission}
				options={permissions.map((value) => ({ value, label: permissionNames[value] }))}
			/>
			<div class="grid gap-5 sm:grid-cols-2">
				{#if before.asksProtected}
					{@render yesNo('Protected species or site', 'protectedSpecies')}
				{/if}
				{#if before.lifting}
					{@render yesNo('Gas, power, water, telecoms located', 'servicesLocated')}
				{/if}
			</div>
			{#if before.lifting}
				<fieldset class="grid items-end gap-3 sm:grid-cols-4">
					<legend class="mb-1 font-display text-lg font-semibold">The ball and its weight</legend>
					<MeasureField
						name="ballDiameterMm"
						label="Ball across"
						unit="mm"
						optional
						value={before.typed.ballDiameterMm}
						oninput={(mm) => (before.typed.ballDiameterMm = mm)}
						{refused}
					/>
					<MeasureField
						name="ballDepthMm"
						label="Ball deep"
						unit="mm"
						optional
						value={before.typed.ballDepthMm}
						oninput={(mm) => (before.typed.ballDepthMm = mm)}
						{refused}
					/>
					<MeasureField
						name="kept"
						label="Roots kept, %"
						unit=""
						optional
						value={before.typed.rootsKept === null ? null : before.typed.rootsKept * 100}
						oninput={(percent) => (before.typed.rootsKept = percent === null ? null : percent / 100)}
						{refused}
					/>
					<input type="hidden" name="rootsKept" value={before.typed.rootsKept ?? ''} />
					<MeasureField
						name="helpers"
						label="Helpers beside you"
						unit=""
						value={before.typed.helpers}
						oninput={(people) => (before.typed.helpers = people ?? 0)}
						{refused}
					/>
					<label class="flex min-h-11 items-center gap-2 sm:col-span-4"
						><input type="checkbox" class="size-5" name="machine" bind:checked={before.typed.machine} />A
						barrow, sling or machine takes the weight</label
					>
				</fieldset>
			{/if}
			<label class="flex min-h-11 items-center gap-2"
				><input
					type="checkbox"
					class="size-5"
					name="dyingInPlace"
					bind:checked={before.typed.dyingInPlace}
				/>It is lost where it stands, whatever is done</label
			>
			<fieldset class="flex flex-col gap-4 border-t pt-4">
				<legend class="sr-only">The decision</legend>
				<Choice
					label="You decide"
					name="decision"
					value={chosen}
					onchange={(value) => before.decide(value)}
					options={triageDecisions.map((value) => ({ value, label: triageDecisionNames[value] }))}
				/>
				{#if advice && before.turned}
					<p class="text-sm text-ochre" role="status">
						The advice is another now ({triageDecisionNames[advice.decision].toLowerCase()}): decide anew.
					</p>
				{:else if advice && chosen !== '' && chosen !== advice.decision}
					<p class="text-sm text-ochre">
						Otherwise than advised ({triageDecisionNames[advice.decision].toLowerCase()}). Say why in the
						note.
					</p>
				{/if}
				<div class="grid gap-3 sm:grid-cols-2">
					<TreeField
						name="secondTreeId"
						label="If not this one, then"
						optional
						offered={others}
						except={tree.id}
						inCare
						{refused}
					/>
					<MeasureField
						name="backups"
						label="Cuttings or divisions first"
						unit=""
						value={backups}
						hint={backups > 0
							? `It may well be lost: of ${backups} one takes with ${format().percent(values['triage.backups-sure'])} (${markOf('triage.cutting-strikes')}).`
							: undefined}
						{refused}
					/>
					<DateField
						name="decidedOn"
						label="Decided on"
						value={today}
						max={today}
						oninput={(day) => (before.typed.decidedOn = day)}
						{refused}
					/>
					<TextField name="note" label="Why, and what else" optional {refused} />
				</div>
				<Button type="submit" tone="solid" size="large" class="self-start" disabled={chosen === ''}
					>Keep the decision</Button
				>
				{#if chosen === ''}<p class="text-sm text-slate">
						It is for you to decide; the advice stands beside it.
					</p>{/if}
			</fieldset>
		</form>
		<DecidedBefore triages={records.triages} {others} {today} />
	</section>

	<WhatFollows {before} />
</div>
