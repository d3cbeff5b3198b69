<script lang="ts">
	import TreeField from '$views/tree/TreeField.svelte';
	import type { TreeName } from '$core/take-in/tree';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import {
		changedTogether,
		daysOfChange,
		factorNames,
		factors,
		staggeredPlan,
		type Factor
	} from '$core/tree/changes';
	import { isCalendarDate } from '$core/maths/calendar';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Chips from '$ui/Chips.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import ExamineParts from './ExamineParts.svelte';

	/** What was changed about a tree, by day; and what cannot be told apart because of it. */
	interface Props {
		records: TreeRecords;
		others: TreeName[];
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { records, others, values, today, refused }: Props = $props();
	const format = useFormat();

	const tree = $derived(records.tree);
	let changed = $state<Factor[]>([]);
	let changedOn = $state(untrack(() => today));
	let planned = $state<Factor[]>([]);
	let startOn = $state(untrack(() => today));
	const days = $derived(daysOfChange(records.factorChanges, records.plantings, records.plan));
	const together = $derived(changedTogether(days));
	/** The same, if what is being entered were kept. */
	const would = $derived(
		changed.length > 0 && isCalendarDate(changedOn)
			? changedTogether(
					daysOfChange(
						[...records.factorChanges, { id: '', version: 1, changedOn, factors: changed, note: '' }],
						records.plantings,
						records.plan
					)
				).find((group) => group.fromOn <= changedOn && changedOn <= group.toOn)
			: undefined
	);
	const steps = $derived(
		planned.length > 1 && isCalendarDate(startOn) ? staggeredPlan(planned, startOn, values) : []
	);
	const twin = $derived(others.find((other) => other.id === tree.referenceTreeId));
	const options = factors.map((value) => ({ value, label: factorNames[value] }));
	const inGroup = (on: string) => together.find((group) => group.fromOn <= on && on <= group.toOn);
	const list = (words: readonly Factor[]): string => words.map((factor) => factorNames[factor]).join(', ');
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label="What was changed" class="min-w-0 pt-1 pb-24">
		<ExamineParts treeId={tree.id} />
		<form
			method="POST"
			action="?/change"
			use:enhance={act({ done: () => (changed = []) })}
			class="mt-3 flex flex-col gap-4"
		>
			<Problem refused={refused?.typed.changedOn === undefined ? null : refused} />
			<Chips label="Changed that day" name="factors" {options} bind:value={changed} />
			<div class="grid gap-3 sm:grid-cols-[11rem_1fr]">
				<DateField
					name="changedOn"
					label="On"
					value={today}
					max={today}
					oninput={(day) => (changedOn = day)}
					{refused}
				/>
				<TextField name="note" label="From what to what" optional maxlength={400} {refused} />
			</div>
			{#if would}
				<p class="border-l-4 border-ochre py-1 pl-3 text-sm" role="status">
					<strong class="text-ochre">Changed together.</strong> The effects of {list(would.factors)} could not be
					told apart. Change one now and the others later, or name a twin that stays as it is.
				</p>
			{/if}
			<Button type="submit" tone="solid" class="self-start" disabled={changed.length === 0}
				>Keep the change</Button
			>
		</form>
		<h2 class="mt-8 text-lg">By day, latest first</h2>
		<p class="text-sm text-slate">Plantings and cuts are taken from their own records.</p>
		<ol class="mt-1 divide-y border-y">
			{#each days.toReversed() as day (day.on)}
				{@const group = inGroup(day.on)}
				{@const written = records.factorChanges.filter((change) => change.changedOn === day.on)}
				<li class="flex items-start gap-4 py-2">
					<span class="w-28 shrink-0 font-semibold">{format().day(day.on, today)}</span>
					<span class="min-w-0 flex-1"
						><span class="inline-block first-letter:uppercase">{list(day.factors)}</span>
						{#each day.notes as note (note)}<span class="block text-sm text-slate">{note}</span>{/each}
						{#if group}<span class="block text-sm font-semibold text-ochre"
								>Together: {list(group.factors)}; effects cannot be told apart.</span
							>{/if}</span
					>
					{#each written as change (change.id)}
						<form method="POST" action="?/remove" use:enhance={act({ keep: true })}>
							<input type="hidden" name="id" value={change.id} /><input
								type="hidden"
								name="version"
								value={change.version}
							/>
							<button
								class="chalk min-h-9 px-1 text-sm whitespace-nowrap text-slate"
								aria-label="Take out: {list(change.factors)}, {format().day(change.changedOn)}"
								>Take out</button
							>
						</form>
					{/each}
				</li>
			{:else}
				<li class="py-2 text-slate">Nothing is written down yet.</li>
			{/each}
		</ol>
	</section>

	<Consequences title="To tell effects apart">
		{#snippet summary()}
			<span class="truncate font-semibold"
				>{together.length === 0
					? 'Effects can be told apart'
					: `${together.length} time${together.length === 1 ? '' : 's'} changed together`}</span
			>
		{/snippet}
		<p role="status">
			{#if together.length === 0}
				Never more than one thing at a time so far: what followed can be told apart.
			{:else}
				{together.length === 1 ? 'Once,' : `${together.length} times`} several things were changed on the same or
				the next day.
			{/if}
		</p>
		<h3 class="mt-5 text-base">A twin that stays as it is</h3>
		{#if twin}
			<p class="text-sm">
				Compared with <a class="chalk font-semibold" href={resolve('/trees/[id]/recovery', { id: twin.id })}
					>{twin.tag} {twin.name}</a
				>. Change nothing about it while you watch.
			</p>
		{/if}
		<form method="POST" action="?/twin" use:enhance={act({ keep: true })} class="mt-1 flex items-end gap-2">
			<TreeField
				name="twinId"
				label={twin ? 'Another twin' : 'Same kind, same place tells most'}
				value={twin?.id ?? ''}
				offered={others}
				except={tree.id}
				inCare
				fieldClass="min-w-0 flex-1"
				{refused}
			/>
			<Button type="submit">Name it</Button>
		</form>
		<h3 class="mt-6 text-base">Or one thing at a time</h3>
		<form
			method="POST"
			action="?/oneByOne"
			use:enhance={act({ keep: true, done: () => (planned = []) })}
			class="mt-1 flex flex-col gap-3"
		>
			<Chips label="You want to change" name="factors" {options} bind:value={planned} />
			<DateField name="startOn" label="From" value={today} oninput={(day) => (startOn = day)} />
			{#if steps.length > 0}
				<ol class="divide-y border-y text-sm">
					{#each steps as step (step.factor)}
						<li class="flex justify-between gap-3 py-1.5">
							<span class="inline-block first-letter:uppercase">{factorNames[step.factor]}</span>
							<span
								><strong>{format().day(step.on, today)}</strong>, watch until {format().day(
									step.watchUntil,
									today
								)}</span
							>
						</li>
					{/each}
				</ol>
				<p class="text-xs text-slate">
					<Workings
						label="Time of watching"
						formula="what is easily taken back first, the roots last"
						lines={[
							{
								label: 'Watch after each',
								value: `${format().number(values['changes.watch-days'])} days`,
								mark: markOf('changes.watch-days')
							}
						]}
						changes="Slow kinds and cold months need longer."
						>Watched {format().number(values['changes.watch-days'])} days each</Workings
					>. Rot does not wait for its turn.
				</p>
			{/if}
			<Button type="submit" disabled={planned.length < 2} class="self-start"
				>Plan {planned.length < 2 ? 'them' : planned.length} one by one</Button
			>
		</form>
	</Consequences>
</div>
