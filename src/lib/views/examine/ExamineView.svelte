<script lang="ts">
	import { counted } from '$core/text/plural';
	import { chanceSaid } from '$core/text/percent';
	import { midSentence } from '$core/text/mid-sentence';
	import { contextFor, foundLately, shownSince } from '$core/tree/carried';
	import { actedSince, followsFrom, openCausesOf } from '$core/tree/urgent';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import type { Place } from '$core/vocabulary/place';
	import { seasonFitNames } from '$core/climate/windows';
	import { standingOn } from '$core/examine/diagnosis/act-now';
	import {
		recentEventNames,
		recentEvents,
		seasonPhaseNames,
		type RecentEvent
	} from '$core/vocabulary/season-and-events';
	import { conditionOf } from '$core/vocabulary/conditions';
	import { diagnose } from '$core/examine/diagnosis/diagnose';
	import { holdsBy } from '$core/examine/diagnosis/open-causes';
	import type { Examination } from '$core/examine/diagnosis/examination';
	import type { Finding } from '$core/examine/diagnosis/finding';
	import { neighbourChecks, spreading, type YardNeighbour } from '$core/examine/diagnosis/neighbours';
	import { nextChecks, type NextChecks } from '$core/examine/diagnosis/next-check';
	import { referrals } from '$core/examine/diagnosis/referral';
	import {
		firstLookOf,
		signApplies,
		signIds,
		gradeWord,
		howToLook,
		signOf,
		signParts,
		type SignId,
		type SignPart
	} from '$core/vocabulary/signs';
	import type { Kind } from '$core/vocabulary/kind';
	import { soilTools, toolFor } from '$core/examine/measuring/measurement';
	import { needsNewLook } from '$core/examine/triage/triage';
	import type { TreeRecords } from '$core/tree/case';
	import { defaultValues, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Chips from '$ui/Chips.svelte';
	import Choice from '$ui/Choice.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Printer from '@lucide/svelte/icons/printer';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import { onMount, tick, untrack } from 'svelte';
	import Causes from './Causes.svelte';
	import ExamineParts from './ExamineParts.svelte';
	import KeptLook from './KeptLook.svelte';
	import { LookDraft } from './look-draft.svelte';
	import NextCheck from './NextCheck.svelte';
	import SignRow from './SignRow.svelte';

	/** A look at a tree: signs in the order of their harm, what they point to, and the next one worth looking for. */
	interface Props {
		records: TreeRecords;
		kind: Kind;
		place: Place | null;
		values: Values;
		overridden: readonly string[];
		around: YardNeighbour[];
		today: string;
		refused?: Refused | null;
	}
	let { records, kind, place, values, overridden, around, today, refused }: Props = $props();
	const format = useFormat();

	const partTitles: Record<SignPart, string> = {
		crown: 'Crown',
		stem: 'Stem and bark',
		collar: 'Foot of the trunk',
		'pot and soil': 'Pot and soil',
		roots: 'Roots'
	};
	const tree = $derived(records.tree);
	const examinations = $derived(records.examinations);
	const latest = $derived(examinations.at(-1));
	/** Its day; of several on one day, which of them. */
	const nameOf = (look: Examination): string => {
		const alike = examinations.filter((one) => one.examinedOn === look.examinedOn);
		const day = format().day(look.examinedOn, today);
		return alike.length > 1 ? `${day}, ${alike.indexOf(look) + 1} of ${alike.length}` : day;
	};
	/** Which look is shown: the one being made, or a kept one by identity. */
	let viewing = $state<string>(untrack(() => examinations.at(-1)?.id ?? 'new'));
	const draft = new LookDraft(
		untrack(() => records.tree.id),
		untrack(() => page.data.practice?.day ?? null)
	);
	onMount(() => {
		draft.open(localStorage);
		if (draft.count > 0) viewing = 'new';
		// What was set or measured stands open, so that nobody looks for it twice.
		const said = [...Object.keys(draft.answers), ...measured.map((finding) => finding.signId)] as SignId[];
		openParts = [...new Set(said.filter((id) => !first.includes(id)).map((id) => signOf(id).part))];
	});
	let lookedOn = $state(untrack(() => today));

	const past = $derived(examinations.find((examination) => examination.id === viewing));
	const on = $derived(past?.examinedOn ?? (lookedOn || today));
	const earlierLook = $derived(
		past
			? examinations[examinations.indexOf(past) - 1]
			: examinations.filter((look) => look.examinedOn <= on).at(-1)
	);
	const measured = $derived(foundLately(records, on, values));
	const measuredOn = (finding: Finding | undefined): string => {
		const from = records.measurements.find((measurement) => measurement.id === finding?.measuredBy);
		const booked = records.book.find((entry) => entry.id === finding?.measuredBy);
		return from
			? format().day(from.measuredOn, today)
			: booked
				? `field book, ${format().day(booked.on, today)}`
				: records.rootMap && records.rootMap.id === finding?.measuredBy
					? `root map, ${format().day(records.rootMap.mappedOn, today)}`
					: '';
	};
	const findings = $derived(past ? past.findings : draft.findings(measured));
	const events = $derived(past ? past.events : draft.events);
	const failingFast = $derived(past ? past.failingFast : draft.failingFast);
	const begun = $derived(contextFor(records, on, events, past?.id ?? draft.corrects?.id ?? null, values));
	const context = $derived(begun.context);
	const grade = (sign: SignId): number => findings.find((finding) => finding.signId === sign)?.grade ?? 0;
	/** What was found last is acted on today, in the season of today. */
	const actsOn = $derived(past && past.id === examinations.at(-1)?.id ? today : on);
	const standing = $derived(
		standingOn({ tree, kind, place }, actsOn, { failingFast, girdlerGrade: grade('girdler-seen') }, values)
	);
	const again = (numbers: Values) => diagnose(context, findings, numbers);
	const diagnosis = $derived(again(values));
	const shipped = $derived(
		overridden.some((key) => key.startsWith('diagnosis.')) ? again(defaultValues) : null
	);
	const earlier = $derived(
		earlierLook && findings.length > 0
			? diagnose(
					contextFor(records, earlierLook.examinedOn, earlierLook.events, earlierLook.id, values).context,
					earlierLook.findings,
					values
				)
			: null
	);
	const warned = $derived(referrals(tree, findings, diagnosis, values));
	const sick = $derived(around.find((entry) => entry.id === tree.id));
	const neighbours = $derived(
		sick && findings.length > 0 ? neighbourChecks(sick, spreading(diagnosis, values), around, values) : []
	);

	// The ranking is on the screen at once; the next check follows when the browser has a moment.
	let next = $state.raw<NextChecks | null>(null);
	$effect(() => {
		if (past) return;
		const args = [context, findings, standing, values] as const;
		const timer = setTimeout(() => (next = nextChecks(...args)), 30);
		return () => clearTimeout(timer);
	});

	const applicable = $derived(signIds.filter((id) => signApplies(id, tree.situation)));
	const first = $derived(firstLookOf(context));
	let search = $state('');
	let openParts = $state<string[]>([]);
	const wanted = $derived(search.trim().toLowerCase());
	const rest = $derived(
		applicable.filter(
			(id) =>
				!first.includes(id) &&
				(wanted === '' ||
					`${signOf(id).label} ${howToLook(id, tree.situation)}`.toLowerCase().includes(wanted))
		)
	);
	const answerOf = (id: SignId): number | null => draft.answers[id] ?? null;
	/** What decides a likely cause before it is acted on, and nobody has looked for yet. */
	const deciding = $derived(page.data.practice ? null : openCausesOf(records, today, values).check);
	let keeping: HTMLFormElement | undefined = $state();
	/** One sign more to a look kept today, else a look of today that begins from it; a look that was begun goes on. */
	async function answer(kept: Examination, id: SignId, grade: number | null): Promise<void> {
		if (draft.count === 0)
			if (kept.examinedOn === today) draft.correct(kept);
			else draft.begin(kept.findings);
		draft.set(id, grade);
		openParts = [...openParts, signOf(id).part];
		viewing = 'new';
		await tick();
		keeping?.scrollIntoView({ block: 'end' });
	}
	const measureLink = (id: SignId): string | null => {
		const tool = toolFor(id, tree.situation);
		if (!tool) return null;
		const soil = (soilTools as readonly string[]).includes(tool);
		return `${resolve(soil ? '/trees/[id]/examine/soil' : '/trees/[id]/examine/measure', { id: tree.id })}?tool=${tool}`;
	};
	const overruled = $derived(draft.overruled(measured));
	const signsCounted = $derived(findings.length);
	function kept(): void {
		draft.clear();
		viewing = records.examinations.at(-1)?.id ?? 'new';
	}
	const lastTriage = $derived(records.triages.at(-1));
	const asks = $derived(
		lastTriage && needsNewLook(lastTriage, today, values) && lastTriage.decision !== 'leave'
			? { part: '/before', word: 'look again' }
			: null
	);
	const chance = (value: number): string => chanceSaid(value, format().percent);
</script>

{#snippet row(id: SignId, brief: boolean, onset = (value: number | null) => draft.set(id, value))}
	{@const found = measured.find((finding) => finding.signId === id)}
	<SignRow
		{id}
		situation={tree.situation}
		{brief}
		grade={answerOf(id)}
		measured={found ?? null}
		measuredOn={measuredOn(found)}
		measureHref={page.data.practice ? null : measureLink(id)}
		minutes={values[`diagnosis.minutes.${id}`]}
		{onset}
	/>
{/snippet}

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label="Signs" class="min-w-0 pt-1 pb-24">
		<ExamineParts treeId={tree.id} {asks} />
		<div class="mt-2 flex flex-wrap items-end justify-between gap-3">
			<Choice
				label="Examination"
				hideLabel
				bind:value={viewing}
				size="small"
				options={[
					{
						value: 'new',
						label: draft.corrects
							? `Correcting ${format().day(draft.corrects.examinedOn, today)}`
							: draft.count > 0
								? `New look, ${draft.count} set`
								: 'New look'
					},
					...examinations
						.slice(-4)
						.reverse()
						.map((examination) => ({
							value: examination.id,
							label: nameOf(examination)
						}))
				]}
			/>
			<div class="flex gap-1">
				{#if viewing === 'new' && latest && draft.count === 0 && !page.data.practice}
					<Button size="small" tone="quiet" onclick={() => draft.begin(latest.findings)}
						>Begin from {format().day(latest.examinedOn, today)}</Button
					>
				{/if}
				{#if viewing === 'new' && draft.count > 0}
					<Button size="small" tone="quiet" onclick={() => draft.undo()}
						><Undo2 size={15} aria-hidden="true" />Last sign back</Button
					>
				{/if}
				{#if latest}
					<Button size="small" tone="quiet" href={resolve('/trees/[id]/examine/sheet', { id: tree.id })}
						><Printer size={15} aria-hidden="true" />Finding sheet</Button
					>
				{/if}
			</div>
		</div>

		{#if past}
			{@const since = past === latest ? shownSince(records, past, today, values) : []}
			{#if since.length > 0}
				<div class="mt-4 border-l-4 border-ochre py-1 pl-3">
					<p>
						Its records show what this look does not say: {since
							.map(
								(one) =>
									`${midSentence(signOf(one.signId).label)}, ${gradeWord(one.signId, one.grade)} (${measuredOn(one)})`
							)
							.join('; ')}.
					</p>
					<Button size="small" class="mt-2" onclick={() => (viewing = 'new')}>Look anew, with that</Button>
				</div>
			{:else if past === latest && deciding?.check}
				{@const { signId } = deciding.check}
				<section aria-label="What decides it" class="mt-4 border-l-4 border-ochre pl-3">
					<p><strong>{holdsBy(deciding)}</strong>; this decides it:</p>
					<ul>{@render row(signId, false, (value) => void answer(past, signId, value))}</ul>
					<p class="text-sm text-slate">
						{past.examinedOn === today
							? 'The answer goes into this look.'
							: 'The answer begins a look of today from this one.'}
					</p>
				</section>
			{/if}
			<KeptLook
				look={past}
				before={earlierLook ?? null}
				{tree}
				measurements={records.measurements}
				mapId={records.rootMap?.id ?? null}
				{today}
				correct={() => {
					draft.correct(past);
					lookedOn = past.examinedOn;
					viewing = 'new';
				}}
			/>
		{:else}
			<div class="mt-4">
				<NextCheck
					{next}
					situation={tree.situation}
					harmNote="Harm counts for this tree today: {seasonFitNames[standing.seasonFit]}, {standing.vigour}."
					onset={(sign, value) => draft.set(sign, value)}
				/>
			</div>
			{#if begun.carried.length > 0 || begun.told.length > 0}
				<p class="mt-4 border-l-4 border-lichen py-1 pl-3 text-sm">
					{#if begun.carried[0]}
						It begins from the look of {format().day(begun.carried[0].on, today)}:
						{begun.carried
							.slice(0, 3)
							.map(
								(one) =>
									`${midSentence(conditionOf(one.conditionId).label)} ${chance(one.chance)}${one.treatedOn ? `, treated ${format().day(one.treatedOn, today)}` : ''}`
							)
							.join('; ')}. It counts the less the longer ago.
					{/if}
					{#if begun.told.length > 0}
						By its records it was lately {begun.told.map((event) => recentEventNames[event]).join(' and ')}.
					{/if}
				</p>
			{/if}
			<section aria-label="First look" class="mt-5">
				<h2 class="text-lg">First look</h2>
				<p class="text-sm text-slate">
					{context.season ? `It is ${seasonPhaseNames[context.season]}. ` : ''}Leave open what you did not
					look for: unknown moves nothing.
				</p>
				<ul class="mt-1 divide-y border-y">
					{#each first as id (id)}{@render row(id, true)}{/each}
				</ul>
			</section>
			<div class="mt-5 grid gap-x-6 gap-y-3 sm:grid-cols-[1fr_auto]">
				<Chips
					label="In the last weeks it was or had"
					options={recentEvents.map((value) => ({ value, label: recentEventNames[value] }))}
					value={draft.events}
					onchange={(value: RecentEvent[]) => draft.setEvents(value)}
				/>
				<label class="flex min-h-11 items-center gap-2 self-end font-semibold"
					><input
						type="checkbox"
						class="size-5"
						checked={draft.failingFast}
						onchange={(event) => draft.setFailingFast(event.currentTarget.checked)}
					/>It fails within weeks</label
				>
			</div>
			<section aria-label="Further signs" class="mt-6">
				<div class="flex flex-wrap items-end justify-between gap-3">
					<h2 class="text-lg">{applicable.length - first.length} further signs, gentlest first</h2>
					<label class="w-full sm:w-56"
						><span class="sr-only">Find a sign</span><input
							class="input"
							type="search"
							placeholder="Find a sign"
							bind:value={search}
						/></label
					>
				</div>
				{#each signParts as part (part)}
					{@const inPart = rest.filter((id) => signOf(id).part === part)}
					{#if inPart.length > 0}
						{@const set = inPart.filter((id) => answerOf(id) !== null).length}
						{@const shown = wanted !== '' || openParts.includes(part)}
						<h3 class="mt-1 border-b">
							<button
								type="button"
								class="flex min-h-11 w-full items-center justify-between gap-3 text-left"
								aria-expanded={shown}
								onclick={() =>
									(openParts = openParts.includes(part)
										? openParts.filter((other) => other !== part)
										: [...openParts, part])}
							>
								<span
									>{partTitles[part]}<span class="ml-2 font-sans text-sm font-normal text-slate"
										>{counted(inPart.length, 'sign')}{set > 0 ? `, ${set} set` : ''}</span
									></span
								>
								<span aria-hidden="true" class="text-slate">{shown ? '−' : '+'}</span>
							</button>
						</h3>
						{#if shown}
							<ul class="divide-y border-b">
								{#each inPart as id (id)}{@render row(id, false)}{/each}
							</ul>
						{/if}
					{/if}
				{:else}<span></span>{/each}
				{#if rest.length === 0}<p class="py-2 text-slate">No sign has such words.</p>{/if}
			</section>
			<form
				bind:this={keeping}
				method="POST"
				action="?/record"
				use:enhance={act({ done: kept })}
				class="mt-6 scroll-mb-40 border-t pt-4"
			>
				<Problem {refused} />
				<input type="hidden" name="findings" value={JSON.stringify(findings)} />
				{#each draft.events as event (event)}<input type="hidden" name="events" value={event} />{/each}
				<input type="hidden" name="failingFast" value={draft.failingFast} />
				<input type="hidden" name="correctsId" value={draft.corrects?.id ?? ''} />
				<input type="hidden" name="correctsVersion" value={draft.corrects?.version ?? ''} />
				<div class="grid gap-4 sm:grid-cols-[11rem_1fr]">
					<DateField
						name="examinedOn"
						label="Looked on"
						value={draft.corrects?.examinedOn ?? today}
						max={today}
						oninput={(day) => (lookedOn = day)}
						{refused}
					/>
					<TextField name="note" label="What else" value={draft.corrects?.note ?? ''} optional {refused} />
				</div>
				{#if overruled.length > 0}
					<p class="mt-3 text-sm text-ochre">
						Set otherwise than measured: {overruled
							.map((finding) => midSentence(signOf(finding.signId).label))
							.join(', ')}. What you set by hand counts.
					</p>
				{/if}
				<Button type="submit" tone="solid" size="large" class="mt-4" disabled={signsCounted === 0}>
					{draft.corrects ? 'Keep the correction' : 'Keep this look'}, {counted(signsCounted, 'sign')}
				</Button>
				{#if draft.corrects}<Button size="large" class="mt-4" onclick={() => draft.clear()}
						>Leave it as it is</Button
					>{/if}
				{#if signsCounted > draft.count}<p class="mt-1 text-sm text-slate">
						{signsCounted - draft.count} of them from its records: measured, mapped, or in the field book.
					</p>{/if}
			</form>
		{/if}

		{#if neighbours.length > 0}
			<section aria-label="Trees to check" class="mt-8">
				<h2 class="text-lg">
					{neighbours.length} tree{neighbours.length === 1 ? '' : 's'} may have it too
				</h2>
				<p class="text-sm text-slate">
					{spreading(diagnosis, values)
						.map((id) => conditionOf(id).label)
						.join(', ')}: what shares batch, mix, watering or place, most shared first.
				</p>
				<ul class="mt-1 divide-y border-y">
					{#each neighbours.slice(0, 12) as check (check.tree.id)}
						<li class="flex flex-wrap items-baseline gap-x-4 py-2">
							<a class="chalk font-semibold" href={resolve('/trees/[id]/examine', { id: check.tree.id })}
								>{check.tree.tag} {check.tree.name}</a
							>
							<span class="text-sm text-slate">same {check.shares.join(', ')}</span>
							<span class="w-full text-sm sm:ml-auto sm:w-auto"
								>{signOf(check.signId).label}? {format().number(values[`diagnosis.minutes.${check.signId}`])} min</span
							>
						</li>
					{/each}
				</ul>
				{#if past}
					<form method="POST" action="?/neighbours" use:enhance={act({ keep: true })} class="mt-3">
						<input type="hidden" name="examinationId" value={past.id} />
						<Button type="submit"
							>Put {neighbours.length === 1 ? 'it' : `all ${neighbours.length}`} on Today</Button
						>
					</form>
				{:else}
					<p class="mt-2 text-sm text-slate">Keep the look to put them on Today.</p>
				{/if}
			</section>
		{/if}
	</section>

	<Consequences title="What it may be">
		{#snippet summary()}
			{@const top = diagnosis.ranking[0]}
			{#if top && findings.length > 0}
				<strong class="font-display text-2xl">{chance(top.chance)}</strong>
				<span class="truncate">{conditionOf(top.conditionId).label}</span>
			{:else}<span>Possible causes: record a sign to start</span>{/if}
		{/snippet}
		<Causes
			{diagnosis}
			{shipped}
			{earlier}
			{context}
			{findings}
			{standing}
			referrals={warned}
			{values}
			{overridden}
			{again}
			{today}
			acted={(cause) => actedSince(records, cause, past?.examinedOn ?? null, values)}
			follows={(cause) => followsFrom(records, cause, today, values)}
		/>
	</Consequences>
</div>
