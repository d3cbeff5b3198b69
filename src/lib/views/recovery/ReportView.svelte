<script lang="ts">
	import { counted } from '$core/text/plural';
	import { groundWorksDone } from '$core/replant/ground/ground-said';
	import { atStart, midSentence } from '$core/text/mid-sentence';
	import { chanceSaid } from '$core/text/percent';
	import { contextFor } from '$core/tree/carried';
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import type { Place } from '$core/vocabulary/place';
	import { conditionOf } from '$core/vocabulary/conditions';
	import { bookSentence } from '$core/aftercare/book/book';
	import { diagnose } from '$core/examine/diagnosis/diagnose';
	import { addDays } from '$core/maths/calendar';
	import { viewsOf } from '$core/take-in/picture';
	import { backupKindNames } from '$core/vocabulary/backup-kinds';
	import { backupStanding } from '$core/recovery/backup';
	import { recoveryForecast } from '$core/recovery/forecast';
	import { readingsOf } from '$core/examine/looks/observation';
	import { decisionNames } from '$core/recovery/said';
	import { roman } from '$core/roots/plan/plan';
	import { sessionsOf } from '$core/roots/plan/done';
	import { lossCauseNames } from '$core/take-in/tree';
	import { situationNames, treeStateNames } from '$core/vocabulary/words';
	import type { Values } from '$core/values/values';
	import { useFormat } from '$ui/format';
	import ShareLink from '$views/people/ShareLink.svelte';
	import FromAbove from '$views/roots/FromAbove.svelte';
	import { RootsState } from '$views/roots/roots-state.svelte';
	import { untrack } from 'svelte';
	import CourseChart from './CourseChart.svelte';
	import MeasureChart from './MeasureChart.svelte';
	import { measuredOf, twinReadings, type Twin } from './measured';
	import type { RecoveryOf } from '$core/tree/recovery-of';

	/** The whole case on paper: findings, roots before and after, plan and actual, aftercare, curves, verdict. */
	interface Props {
		records: TreeRecords;
		place: Place;
		of: RecoveryOf;
		shootMm: number | null;
		twin: Twin | null;
		values: Values;
		today: string;
		/** Key of the link by which somebody reads it from outside. */
		sharedBy?: string;
		/** Whether one may give it to read by a link. */
		mayShare?: boolean;
	}
	let { records, place, of, shootMm, twin, values, today, sharedBy, mayShare = false }: Props = $props();
	const format = useFormat();
	const { tree, kind } = $derived(records);
	const look = $derived(records.examinations.at(-1));
	const causes = $derived(
		look
			? diagnose(
					contextFor(records, look.examinedOn, look.events, look.id, values).context,
					look.findings,
					values
				).ranking.slice(0, 3)
			: []
	);
	const rootsFor = (withCuts: boolean): RootsState | null =>
		records.rootMap
			? new RootsState({
					tree,
					kind,
					place,
					values,
					today,
					flags: [],
					liftLeft: 1,
					permission: tree.permission,
					ball: { widthMm: null, depthMm: null },
					ends: [],
					tiltDone: null,
					buds: { value: null, on: null },
					rootMap: records.rootMap,
					plan:
						records.plan && !withCuts
							? { ...records.plan, cuts: [] }
							: records.plan && {
									...records.plan,
									cuts: records.plan.cuts.filter((cut) => cut.state === 'done')
								},
					observations: records.observations,
					nightC: null,
					referenceShootMm: shootMm,
					pictures: [],
					mates: []
				})
			: null;
	const before = untrack(() => rootsFor(false));
	const after = untrack(() => rootsFor(true));
	const sessions = $derived(
		records.rootMap && records.plan ? sessionsOf(records.rootMap, records.plan, values) : []
	);
	const planting = $derived(records.plantings.at(-1));
	const groundWorks = $derived(groundWorksDone(records.groundPlans));
	const forecast = $derived(recoveryForecast(of.case, values));
	const tasks = $derived(
		records.tasks
			.filter((task) => task.state !== 'open')
			.sort((a, b) => ((a.closedOn ?? '') < (b.closedOn ?? '') ? -1 : 1))
	);
	const open = $derived(records.tasks.filter((task) => task.state === 'open'));
	/** On paper stand those that say most of how it went. */
	const drawn = $derived(
		measuredOf(format())
			.slice(0, 3)
			.filter((one) => readingsOf(records.observations, one.key).length > 1)
	);
	const works = $derived(
		sessions.map((session) => ({ on: session.on, label: format().percent(session.livingShare) }))
	);
	/** First and last of the views that were taken most. */
	const pairs = $derived(
		viewsOf(records.pictures)
			.filter((one) => one.count > 0)
			.slice(0, 3)
			.map(({ view }) => {
				const list = records.pictures.filter((picture) => picture.view === view);
				return { view, pictures: list.length > 1 ? [list[0], list.at(-1)] : [list[0]] };
			})
			.map(({ view, pictures }) => ({ view, pictures: pictures.filter((one) => one !== undefined) }))
	);
	const until = $derived(tree.closedOn ?? today);
	const pictureAt = (file: string): string =>
		sharedBy === undefined
			? resolve('/pictures/[file]', { file })
			: resolve('/shared/[key]/[file]', { key: sharedBy, file });
</script>

<div class="page py-5">
	{#if sharedBy === undefined}
		<div class="no-print mb-4 flex flex-wrap items-end justify-between gap-3">
			<a class="chalk" href={resolve('/trees/[id]/recovery', { id: tree.id })}>Back to Recovery</a>
			<SheetActions title="{tree.tag} case report" print="Print the report" />
			{#if mayShare}<ShareLink {tree} page="report" {today} />{/if}
		</div>
	{/if}
	<article data-sheet class="sheet mx-auto max-w-[50rem] border bg-leaf p-3 sm:p-8" aria-label="Case report">
		<header class="border-b-2 border-ink pb-2">
			<div class="flex flex-wrap items-baseline justify-between gap-x-6">
				<h2 class="text-2xl">{tree.tag} {tree.name}</h2>
				<p>{format().date(today)}</p>
			</div>
			<p>
				{kind.commonName}, {situationNames[tree.situation]}, {place.name}; trunk {format().measure(
					tree.trunkDiameterMm,
					'mm'
				)}{tree.plantCount > 1 ? `; lot of ${tree.plantCount}` : ''}. Taken in {format().date(
					tree.takenInOn
				)}{tree.origin ? `: ${tree.origin.replace(/\.+$/, '')}` : ''}.
			</p>
			<p class="font-semibold">
				{atStart(treeStateNames[tree.state])}{tree.closedOn
					? `, ${format().date(tree.closedOn)}`
					: !forecast.known
						? '. Nobody has seen anything of it for so long that its chance is not known.'
						: forecast.dead
							? `. Dead, by what was seen: ${forecast.dead.slice(0, 3).join('; ')}.`
							: `. Thought to be re-established with ${format().percent(forecast.now)} (${format().percent(forecast.low)} to ${format().percent(forecast.high)}).`}
			</p>
		</header>

		<h3 class="mt-4 text-lg">What was found</h3>
		{#if look}
			<p>
				Examined {format().date(look.examinedOn)}; {counted(look.findings.length, 'sign')} looked for. Likeliest
				causes:
				{causes
					.map(
						(cause) => `${conditionOf(cause.conditionId).label} ${chanceSaid(cause.chance, format().percent)}`
					)
					.join(', ')}.
			</p>
		{:else}<p>It was never examined; what follows is the less sure.</p>{/if}

		{#if before && after}
			<h3 class="mt-4 text-lg">Roots, before and after</h3>
			<div class="grid gap-3 sm:grid-cols-2 print:grid-cols-2">
				<figure>
					<FromAbove roots={before} />
					<figcaption class="text-sm">
						As mapped, {format().date(records.rootMap?.mappedOn ?? today)}
					</figcaption>
				</figure>
				<figure>
					<FromAbove roots={after} />
					<figcaption class="text-sm">With what was cut</figcaption>
				</figure>
			</div>
			<table class="mt-2 w-full text-sm">
				<thead class="border-b text-left"
					><tr
						><th class="py-1">day</th><th>stage</th><th>roots cut</th><th class="text-right">planned</th><th
							class="text-right">taken of living root</th
						></tr
					></thead
				>
				<tbody>
					{#each sessions as session (session.on)}
						<tr class="border-b">
							<td class="py-1">{format().date(session.on)}</td>
							<td>{session.stages.map((stage) => roman(stage)).join(', ')}</td>
							<td>{session.cuts.length} of {session.plannedCount}</td>
							<td class="text-right">{format().percent(session.plannedShare)}</td>
							<td class="text-right">{format().percent(session.livingShare)}</td>
						</tr>
					{:else}<tr><td colspan="5" class="py-1 text-slate">No root was cut yet.</td></tr>{/each}
				</tbody>
			</table>
		{/if}

		{#if groundWorks.length > 0}
			<h3 class="mt-4 text-lg">Work in the ground</h3>
			<ul class="text-sm">
				{#each groundWorks as one (one.id)}
					<li class="break-inside-avoid py-0.5">
						{format().date(one.on)}: {format().inWords(midSentence(one.what))}.
					</li>
				{/each}
			</ul>
		{/if}
		{#if planting}
			<h3 class="mt-4 text-lg">Planting</h3>
			<p>
				{format().date(planting.plantedOn)}: {format().measure(planting.pot.topWidthMm, 'mm')} wide, {format().measure(
					planting.pot.heightMm,
					'mm'
				)} deep, {planting.mix.name}; ball {format().measure(planting.ballDiameterMm, 'mm')} by {format().measure(
					planting.ballDepthMm,
					'mm'
				)}.
			</p>
		{/if}

		{#if records.book.length > 0}
			<h3 class="mt-4 text-lg">Field book</h3>
			<ul class="text-sm">
				{#each records.book as entry (entry.id)}
					<li class="break-inside-avoid py-0.5">
						{format().date(entry.on)}: {format().inWords(
							bookSentence(entry, tree.situation === 'in-ground')
						)}{entry.details.first ? ` First: ${entry.details.first}` : ''}
					</li>
				{/each}
			</ul>
		{/if}

		<h3 class="mt-4 text-lg">Aftercare</h3>
		<p class="text-sm">
			{tasks.filter((task) => task.state === 'done').length} done, {tasks.filter(
				(task) => task.state === 'skipped'
			).length} skipped, {counted(records.waterings.length, 'watering')} written down, {open.length} open.
		</p>
		<ul class="mt-1 columns-1 gap-6 text-sm sm:columns-2 print:columns-2">
			{#each tasks as task (task.id)}
				<li class="break-inside-avoid py-0.5">
					{task.closedOn ? format().day(task.closedOn) : ''}: {format().inWords(task.title)}{task.state ===
					'skipped'
						? ` (skipped: ${task.skipReason})`
						: ''}
				</li>
			{/each}
		</ul>

		<h3 class="mt-4 text-lg">How it went</h3>
		<CourseChart
			expected={forecast.expected}
			course={forecast.course}
			weighed={of.case.functionSeen}
			wanted={values['verdict.rootFunction']}
			today={until}
			closed={tree.state !== 'in-care'}
		/>
		{#each drawn as curve (curve.key)}
			{@const reference = twinReadings(twin, curve.key, tree.takenInOn)}
			<h4 class="mt-3 text-base">
				{curve.label}{#if reference}<span class="ml-3 font-sans text-sm font-normal text-rain"
						>◇ {reference.name}</span
					>{/if}
			</h4>
			<MeasureChart
				label={curve.label}
				readings={readingsOf(records.observations, curve.key)}
				{reference}
				fits={curve.key === 'shootExtensionMm'
					? of.growth.map((season) => season.curve).filter((fit) => fit.length > 0)
					: []}
				{works}
				from={tree.takenInOn}
				to={addDays(until, 14)}
				show={curve.show}
				share={curve.share}
				unit={curve.unit}
			/>
		{/each}
		{#if pairs.length > 0}
			<h3 class="mt-4 text-lg">Pictures</h3>
			{#each pairs as pair (pair.view)}
				<div class="mt-2 grid break-inside-avoid grid-cols-2 gap-3">
					{#each pair.pictures as picture (picture.id)}
						<figure>
							<img
								src={pictureAt(`${picture.hash}.jpg`)}
								alt="{picture.view}, {format().date(picture.takenOn)}"
								class="w-full rounded-sm border"
							/>
							<figcaption class="text-sm">{picture.view}, {format().date(picture.takenOn)}</figcaption>
						</figure>
					{/each}
				</div>
			{/each}
		{/if}
		{#if records.decisions.length > 0}
			<h3 class="mt-4 text-lg">Decisions</h3>
			<ul class="text-sm">
				{#each records.decisions as one (one.id)}
					<li>
						{format().date(one.decidedOn)}: {decisionNames[one.decided]}{one.decided === one.advised
							? ''
							: `, against “${decisionNames[one.advised].toLowerCase()}”`}. {one.note}
					</li>
				{/each}
			</ul>
		{/if}
		{#if records.backups.length > 0}
			<h3 class="mt-4 text-lg">Backups</h3>
			<ul class="text-sm">
				{#each records.backups as one (one.id)}
					{@const standing = backupStanding(one)}
					<li>
						{format().date(one.takenOn)}: {one.count}
						{backupKindNames[one.kind]} from {one.source}; {standing.alive}
						alive, {standing.lost} lost.
					</li>
				{/each}
			</ul>
		{/if}
		<h3 class="mt-4 text-lg">Verdict</h3>
		<table class="w-full text-sm">
			<tbody>
				{#each of.verdict.criteria as criterion (criterion.name)}
					<tr class="border-b align-top">
						<td class="py-1 pr-4 font-semibold">{criterion.label}</td>
						<td class="py-1 pr-4 whitespace-nowrap"
							>{criterion.answer === 'met'
								? 'met'
								: criterion.answer === 'not-met'
									? 'not met'
									: 'not known'}</td
						>
						<td class="py-1">{format().inWords(criterion.because)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if tree.closingNote}
			<p class="mt-2">
				<strong>What was learned.</strong>
				{tree.lossCause ? `Cause: ${lossCauseNames[tree.lossCause]}. ` : ''}{tree.closingNote}
				{tree.shownEarlier ? `It would have been shown earlier by: ${tree.shownEarlier}` : ''}
			</p>
		{/if}
		<p class="mt-6 text-xs text-slate">
			Numbers are worked out from what was measured with the working values of this yard; each opens to its
			workings in the app. Nothing here certifies that a tree stands.
		</p>
	</article>
</div>
