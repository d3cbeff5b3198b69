<script lang="ts">
	import { holds } from '$core/examine/diagnosis/open-causes';
	import { enhance } from '$app/forms';
	import { hasLapsed, headed, timed, type ReleaseFacts } from '$core/aftercare/tasks/release';
	import { firstWaterOpen } from '$core/aftercare/tasks/pressing';
	import { taskKinds, type Task } from '$core/vocabulary/task';
	import { addDays } from '$core/maths/calendar';
	import { usualCrownSchool } from '$core/aftercare/crown/crown';
	import { ruleOf, workedOn } from '$core/aftercare/tasks/source';
	import type { Urgent } from '$core/tree/urgent';
	import type { Kind } from '$core/vocabulary/kind';
	import type { LastWork } from '$core/tree/losses';
	import type { CrownSchool, WaterSchool } from '$core/vocabulary/words';
	import type { Tree } from '$core/take-in/tree';
	import { markSentence } from '$core/values/define';
	import type { PotMateRecords } from '$core/tree/case';
	import type { Values } from '$core/values/values';
	import type { WaterOfTree } from '$core/tree/water-state';
	import type { Watering } from '$core/aftercare/water/watering';
	import { resolve } from '$app/paths';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import ArrowRight from '@lucide/svelte/icons/arrow-right';
	import { untrack, type ComponentProps } from 'svelte';
	import GroundWaterSection from './GroundWaterSection.svelte';
	import DoneButton from './DoneButton.svelte';
	import DoneSheet from './DoneSheet.svelte';
	import SkipSheet from './SkipSheet.svelte';
	import WaterSection from './WaterSection.svelte';

	interface Props {
		tree: Tree;
		kind: Kind;
		tasks: Task[];
		lastWork: LastWork | null;
		lastPlantedOn: string | null;
		/** What each choice of schools would still make, and what of it had its days, by `crown water`. */
		proposals: Record<
			string,
			{
				toMake: Pick<Task, 'title' | 'reason' | 'mark' | 'fromOn' | 'toOn'>[];
				over: Pick<Task, 'title' | 'fromOn' | 'toOn'>[];
			}
		>;
		workOn: string;
		/** Its water; neither where the pot is not known. */
		water: WaterOfTree;
		/** Days from full to its next water, without rain; null for one that stands in no pot. */
		dryDownDays: number | null;
		/** School on the first water that its work, or a look that presses, asks for. */
		usualSchool: WaterSchool;
		/** What the last look says to act on now. */
		urgent: Urgent | null;
		/** What presses of a mate in its pot and wants less water. */
		mateLess: { tag: string; subject: string; chance: number } | null;
		/** Its pot is too heavy for a scale. */
		tooHeavy: boolean;
		waterings: Watering[];
		/** Trees in the same pot. */
		mates: readonly PotMateRecords[];
		values: Values;
		/** What was seen, for what waits for the tree. */
		facts: ReleaseFacts;
		today: string;
		refused?: Refused | null;
	}
	let {
		tree,
		kind,
		tasks,
		lastWork,
		lastPlantedOn,
		proposals,
		workOn,
		water,
		dryDownDays,
		usualSchool,
		urgent,
		mateLess,
		tooHeavy,
		waterings,
		mates,
		values,
		facts,
		today,
		refused
	}: Props = $props();
	const lostBy = {
		cut: 'was cut',
		lift: 'stayed in the ground',
		'lift-and-cut': 'is gone with the lift and the cuts'
	} as const;
	const format = useFormat();

	let crownSchool = $state<CrownSchool>(
		untrack(() =>
			tasks.some(({ source }) => ruleOf(source) === 'crown' && workedOn(source) === workOn)
				? 'balance'
				: tree.situation === 'in-ground'
					? 'keep-leaves'
					: usualCrownSchool(kind.group)
		)
	);
	let waterSchool = $state<WaterSchool>(untrack(() => usualSchool));
	const chosen = $derived(proposals[`${crownSchool} ${waterSchool}`]);
	const proposed = $derived(chosen?.toMake ?? []);
	const over = $derived(chosen?.over ?? []);
	const openAll = $derived(
		tasks
			.filter((task) => task.state === 'open')
			.map((task) => timed(task, facts, today, values))
			.sort((a, b) => a.toOn.localeCompare(b.toOn))
	);
	const open = $derived(openAll.filter((task) => task.released?.state !== 'held'));
	const waiting = $derived(openAll.filter((task) => task.released?.state === 'held'));
	const closed = $derived(
		tasks
			.filter((task) => task.state !== 'open')
			.sort((a, b) => ((a.closedOn ?? '') < (b.closedOn ?? '') ? 1 : -1))
	);
	const isClosed = $derived(tree.state !== 'in-care');
	let doing = $state<ComponentProps<typeof DoneSheet>['task']>(null);
	let skipping = $state<ComponentProps<typeof SkipSheet>['task']>(null);
	let adding = $state(false);
	let making = $state(false);
	const when = (task: { fromOn: string; toOn: string }): string => format().span(task.fromOn, task.toOn);
	const late = (task: Task): boolean => !isClosed && task.toOn < today;
	const lapsed = (task: Task): boolean => !isClosed && hasLapsed(task, today, values);
	const kindNames: Record<Task['kind'], string> = {
		water: 'water',
		'dry-rest': 'dry rest',
		shelter: 'shelter',
		cold: 'cold',
		feeding: 'feeding',
		crown: 'crown',
		look: 'look',
		'root-stage': 'root stage',
		pest: 'pest',
		neighbours: 'neighbours',
		backup: 'backup',
		collar: 'collar',
		referral: 'referral',
		turning: 'turning',
		suckers: 'suckers',
		other: 'other'
	};
	/** Taken in and left as it is, it has no work that its aftercare would be of. */
	const worked = $derived(lastWork !== null || lastPlantedOn === workOn);
</script>

{#snippet allTheSame(task: Pick<Task, 'id' | 'version' | 'title'>)}
	<form method="POST" action="?/close" use:enhance={act()}>
		<input type="hidden" name="treeId" value={tree.id} />
		<input type="hidden" name="taskId" value={task.id} />
		<input type="hidden" name="version" value={task.version} />
		<input type="hidden" name="state" value="done" />
		<Button size="small" type="submit" aria-label="Done all the same: {task.title}">Done all the same</Button>
	</form>
{/snippet}

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-labelledby="open-title" class="pt-5 pb-20">
		{#if urgent}
			<div class="mb-4">
				<Caution title="{holds(urgent)}: act now"
					>Looked at {format().day(urgent.on, today)}. {urgent.meaning}
					{urgent.water === 'less' ? 'Feel it before any water; what follows here waits for that work.' : ''}
					<a class="chalk" href={resolve('/trees/[id]/examine', { id: tree.id })}>The look</a></Caution
				>
			</div>
		{/if}
		{#if water.pot}
			<WaterSection
				treeId={tree.id}
				plantCount={tree.plantCount}
				water={water.pot}
				{dryDownDays}
				{urgent}
				{mateLess}
				firstWater={firstWaterOpen(tasks, today)}
				fall={water.fall}
				trigger={kind.wetnessTrigger}
				{waterings}
				{tooHeavy}
				{mates}
				{values}
				{today}
				{refused}
			/>
		{:else if water.ground}
			<GroundWaterSection
				treeId={tree.id}
				plantCount={tree.plantCount}
				water={water.ground}
				lessWater={urgent?.water === 'less'}
				{waterings}
				{values}
				{today}
				{refused}
			/>
		{/if}
		<div class={['flex items-baseline justify-between gap-3', (water.pot ?? water.ground) && 'mt-5']}>
			<h2 id="open-title" class="text-lg">
				{isClosed ? 'Left open' : 'To do'} <span class="text-base font-normal text-slate">{open.length}</span>
			</h2>
			{#if !isClosed}<span class="flex items-baseline gap-4"
					><a class="chalk text-sm" href={resolve('/trees/[id]/rehearse', { id: tree.id })}>Rehearse</a>
					<Button size="small" onclick={() => (adding = true)}>Add a task</Button></span
				>{/if}
		</div>
		<ol class="mt-2 divide-y border-y">
			{#each open as task (task.id)}
				<li class="flex flex-wrap items-start gap-x-4 gap-y-2 py-3">
					<p
						class={[
							'w-36 shrink-0 text-sm font-semibold',
							late(task) ? 'text-oxide' : task.fromOn <= today ? 'text-ink' : 'text-slate'
						]}
					>
						{when(task)}{#if late(task)}<span class="block">past its window</span>{/if}
					</p>
					<div class="min-w-0 flex-1 basis-64">
						<p class="text-lg leading-6 font-semibold">
							{lapsed(task)
								? `Done or missed? ${format().inWords(task.title)}`
								: format().inWords(headed(task))}
						</p>
						<p class="text-sm text-slate">
							<Terms text={format().inWords(task.reason, today)} />
							<span class="whitespace-nowrap">({markSentence[task.mark]})</span>
							{#if task.released}<span class="block"
									>{task.released.ask === ''
										? `Released: ${format().inWords(task.released.because, today)}`
										: `“${format().inWords(task.title)}” ${format().inWords(task.released.because, today)}`}.</span
								>{/if}
						</p>
					</div>
					{#if !isClosed}<div class="flex flex-wrap items-center gap-1.5 sm:ml-auto">
							{#if (task.released?.ask ?? '') === '' || lapsed(task)}
								<DoneButton
									task={{ ...task, lapsed: lapsed(task) }}
									treeId={tree.id}
									of={task.title}
									action="?/close"
									ask={(asked) => (doing = asked)}
								/>
							{:else}
								<Button
									href={resolve('/trees/[id]/recovery', { id: tree.id })}
									aria-label="Take the look: {task.title}">Take the look <ArrowRight size={18} /></Button
								>
								{@render allTheSame(task)}
							{/if}
							<Button
								tone="quiet"
								aria-label="Skip: {task.title}"
								onclick={() => (skipping = { ...task, treeId: tree.id })}>Skip</Button
							>
						</div>{/if}
				</li>
			{:else}
				<li class="py-4 text-slate">
					{isClosed
						? 'Nothing was left open.'
						: tree.situation === 'just-lifted'
							? 'Nothing is planned.'
							: 'Nothing is planned. Make the aftercare of the last work, or add the next look by hand.'}
				</li>
			{/each}
		</ol>
		{#if waiting.length > 0}
			<h3 class="mt-6 text-base">
				Waiting for the tree <span class="font-normal text-slate">{waiting.length}</span>
			</h3>
			<ul class="mt-1 divide-y border-y text-sm" aria-label="Waiting for the tree">
				{#each waiting as task (task.id)}
					<li class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
						<span class="min-w-0 flex-1 basis-64"
							><strong>{format().inWords(task.title)}</strong><span class="block text-slate"
								>{format().inWords(task.released?.because ?? '', today)}{task.release &&
								task.release.after === '' &&
								task.release.condition !== 'growth-regained'
									? `; brought up on ${format().day(task.fromOn > task.release.byOn ? task.fromOn : task.release.byOn, today)} at the latest`
									: ''}</span
							></span
						>
						{#if !isClosed}{@render allTheSame(task)}{/if}
					</li>
				{/each}
			</ul>
		{/if}
		{#if closed.length > 0}
			<details class="mt-6">
				<summary class="font-display text-lg font-semibold"
					>Closed <span class="text-base font-normal text-slate">{closed.length}</span></summary
				>
				<ul class="mt-2 divide-y border-y text-sm">
					{#each closed as task (task.id)}
						<li class="grid grid-cols-[7rem_1fr] gap-3 py-2">
							<span class="text-slate">{task.closedOn ? format().day(task.closedOn, today) : ''}</span>
							<span
								>{format().inWords(task.title)}<span class="block text-slate"
									>{task.state === 'done'
										? task.result === ''
											? 'done'
											: task.result
										: `skipped: ${task.skipReason}`}</span
								></span
							>
						</li>
					{/each}
				</ul>
			</details>
		{/if}
	</section>

	{#if !isClosed && tree.situation === 'just-lifted'}
		<p class="mt-6 border-t pt-4 text-slate">
			{#if lastWork}{format().percent(lastWork.livingLoss)} of the living root {lostBy[lastWork.by]}.{/if}
			It was lifted and stands nowhere yet: its aftercare is offered once it is set. Until then its roots are kept
			moist, shaded and from frost.
		</p>
	{:else if !isClosed}<Consequences
			title="{worked ? 'Aftercare of the work on' : 'Aftercare from'} {format().date(workOn)}"
			bind:open={making}
		>
			{#snippet summary()}
				{#if proposed.length > 0}<strong class="font-display text-2xl">{proposed.length}</strong>
					<span class="truncate"
						>{proposed.length === 1 ? 'task' : 'tasks'} to make from {format().day(workOn, today)} on</span
					>
				{:else}<span class="truncate">Nothing more to make from {format().day(workOn, today)} on</span>{/if}
			{/snippet}
			<p class="mt-1 text-sm text-slate">
				{#if lastWork}
					{lastWork.livingLoss < 0.005
						? 'Only dead and rotten root was cut'
						: `${format().percent(lastWork.livingLoss)} of the living root ${lostBy[lastWork.by]}${lastWork.rotWasCut ? '; rot was cut out' : ''}`}{lastWork.nextStageOn
						? lastWork.nextStageOn < today
							? `; the next stage was planned for ${format().day(lastWork.nextStageOn)} and is not done`
							: `; the next stage falls on ${format().day(lastWork.nextStageOn)}`
						: ''}.{lastWork.on === workOn ? '' : ` It counts from ${format().day(workOn)}, when it was set.`}
				{:else if lastPlantedOn === workOn}
					It was planted that day; no root cut is recorded for it.
				{:else}
					No root work is recorded yet; this counts from taking in. What is missing lowers confidence.
				{/if}
			</p>
			<form
				method="POST"
				action="?/make"
				use:enhance={act({ keep: true, done: () => (making = false) })}
				class="mt-3 flex flex-col gap-4"
			>
				{#if !doing && !skipping && !adding}<Problem {refused} />{/if}
				<input type="hidden" name="workOn" value={workOn} />
				<div>
					<Choice
						label="Two schools on the crown"
						name="crownSchool"
						bind:value={crownSchool}
						options={[
							{ value: 'keep-leaves', label: 'Keep the leaves' },
							{ value: 'balance', label: 'Balance the crown' }
						]}
					/>
					<p class="mt-1 text-xs text-slate">
						{crownSchool === 'balance'
							? 'For leafy or burnt tops, top-heavy trees, small balls.'
							: 'For the leafless with reserves, tops already cut, light root work.'}
					</p>
				</div>
				<div>
					<Choice
						label="Two schools on water after cutting"
						name="waterSchool"
						bind:value={waterSchool}
						options={[
							{ value: 'at-once', label: 'At once' },
							{ value: 'dry-rest', label: 'Dry first' }
						]}
					/>
					<p class="mt-1 text-xs text-slate">
						{waterSchool === 'at-once'
							? 'For woody, fine roots.'
							: 'For fleshy plants and after rot surgery.'}
					</p>
				</div>
				<ol class="divide-y border-y text-sm">
					{#each proposed as task (task.title)}
						<li class="py-2">
							<strong>{format().inWords(task.title)}</strong>
							<span class="block text-slate"
								>{when(task)}. {format().inWords(task.reason, today)} ({markSentence[task.mark]})</span
							>
						</li>
					{:else}
						<li class="py-2 text-slate">
							{over.length > 0 ? 'Nothing of it is left to plan.' : 'All of it is planned already.'}
						</li>
					{/each}
				</ol>
				{#if over.length > 0}<details class="text-sm text-slate">
						<summary class="cursor-pointer"
							>{over.length === 1 ? 'One more had its days' : `${over.length} more had their days`} before today,
							and
							{over.length === 1 ? 'is' : 'are'} not offered</summary
						>
						<ul class="mt-1 ml-4 list-disc">
							{#each over as task (task.title)}<li>{format().inWords(task.title)}, {when(task)}</li>{/each}
						</ul>
					</details>{/if}
				{#if proposed.length > 0}<Button type="submit" tone="solid"
						>{proposed.length === 1 ? 'Make this task' : `Make these ${proposed.length} tasks`}</Button
					>{/if}
			</form>
		</Consequences>{/if}
</div>

<SkipSheet bind:task={skipping} action="?/close" {refused} />
<DoneSheet bind:task={doing} action="?/close" {today} {refused} />
<Sheet bind:open={adding} title="Add a task">
	<form
		method="POST"
		action="?/add"
		use:enhance={act({ done: () => (adding = false) })}
		{@attach keepTyped(`task.${tree.id}`)}
		class="flex flex-col gap-3"
		novalidate
	>
		<Problem {refused} />
		<TextField name="title" label="What" {refused} required />
		<TextField name="reason" label="Why" optional {refused} />
		<SelectField
			name="kind"
			label="Kind of work"
			value="look"
			options={taskKinds.map((value) => ({ value, label: kindNames[value] }))}
		/>
		<div class="grid grid-cols-2 gap-3">
			<DateField name="fromOn" label="From" value={today} {refused} />
			<DateField name="toOn" label="To" value={addDays(today, 7)} {refused} />
		</div>
		<input type="hidden" name="mark" value="ours" /><input type="hidden" name="stage" value="aftercare" />
		<TextField name="minutes" label="Minutes" value="10" inputmode="numeric" {refused} />
		<Button type="submit" tone="solid">Add it</Button>
	</form>
</Sheet>
