<script lang="ts">
	import { browser } from '$app/environment';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import { addDays } from '$core/maths/calendar';
	import type { Place } from '$core/vocabulary/place';
	import type { Check } from '$core/examine/diagnosis/next-check';
	import { checkNow } from '$core/tree/closer';
	import type { RecoveryForecast } from '$core/recovery/forecast';
	import { byForecast, decisionsDue } from '$core/recovery/decisions';
	import type { FunctionPoint } from '$core/recovery/expected';
	import type { LookQuestion } from '$core/recovery/look';
	import { readingsOf, type MeasureKey, type Observation } from '$core/examine/looks/observation';
	import { wilsonInterval } from '$core/maths/wilson';
	import type { Values } from '$core/values/values';
	import Choice from '$ui/Choice.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { createForecaster, type Forecaster } from '$lib/workers/forecaster';
	import Eye from '@lucide/svelte/icons/eye';
	import { onMount, untrack } from 'svelte';
	import Decisions from './Decisions.svelte';
	import ForecastPanel from './ForecastPanel.svelte';
	import LookForm from './LookForm.svelte';
	import LooksTable from './LooksTable.svelte';
	import MeasureChart from './MeasureChart.svelte';
	import { measuredOf, twinReadings, type Twin } from './measured';
	import type { RecoveryOf } from '$core/tree/recovery-of';
	import ShootGrowth from './ShootGrowth.svelte';
	import VerdictPanel from './VerdictPanel.svelte';

	interface Props {
		records: TreeRecords;
		place: Place | null;
		of: RecoveryOf;
		questions: LookQuestion[];
		works: { on: string; label: string }[];
		expected: FunctionPoint[];
		twin: Twin | null;
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { records, place, of, questions, works, expected, twin, values, today, refused }: Props = $props();
	const format = useFormat();
	const tree = $derived(records.tree);
	const observations = $derived(records.observations);
	const decisions = $derived(records.decisions);

	const measured = $derived(
		measuredOf(format()).filter((one) => readingsOf(observations, one.key).length > 0)
	);
	let chosen = $state<MeasureKey>(untrack(() => measured[0]?.key ?? 'leafCover'));
	const measure = $derived(measured.find((candidate) => candidate.key === chosen) ?? measured[0]);
	const first = $derived(
		[tree.takenInOn, observations[0]?.observedOn ?? tree.takenInOn].sort()[0] ?? tree.takenInOn
	);
	const until = $derived(addDays(tree.closedOn ?? today, 14));
	const reference = $derived(measure ? twinReadings(twin, measure.key, first) : null);
	/** A look that is being corrected. */
	let correcting = $state.raw<Observation | null>(null);
	const losses = $derived(observations.filter((look) => look.lostCount !== null));
	const sample = $derived(observations.findLast((look) => look.sample !== null)?.sample ?? null);
	const sinceWords = $derived(
		{
			'root-work': 'the last root work',
			lift: 'it was lifted',
			planting: 'it was replanted',
			'taking-in': 'it was taken in'
		}[of.since.what]
	);

	// The simulation runs beside the page and is made anew when something was written.
	let forecast = $state.raw<RecoveryForecast | null>(null);
	let forecaster = $state.raw<Forecaster | null>(null);
	onMount(() => {
		forecaster = createForecaster();
		return () => forecaster?.stop();
	});
	$effect(() => {
		if (!browser || !forecaster) return;
		let stale = false;
		void forecaster.forecast(of.case, values).then((made) => {
			if (!stale) forecast = made;
		});
		return () => {
			stale = true;
		};
	});
	const fitted = $derived(of.growth.map((season) => season.curve).filter((curve) => curve.length > 0));
	const due = $derived(forecast ? decisionsDue({ ...of.facts, ...byForecast(forecast) }, values) : null);
	const closed = $derived(tree.state !== 'in-care');

	// Looking closer names its check; it follows when the browser has a moment.
	let closer = $state.raw<Check | null>(null);
	const wantsCheck = $derived(
		!closed && due?.some((one) => one.kind === 'look-closer' && one.stage === 'examine')
	);
	$effect(() => {
		if (!wantsCheck) return;
		const args = [records, place, today, values] as const;
		const timer = setTimeout(() => (closer = checkNow(...args)), 30);
		return () => clearTimeout(timer);
	});
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<div class="pt-5 pb-20">
		<nav class="flex flex-wrap items-center gap-x-5 gap-y-2 text-sm" aria-label="Of its recovery">
			{#if !closed}<a
					class="inline-flex min-h-11 items-center gap-2 rounded-md bg-ink px-4 text-base font-semibold text-paper max-sm:w-full max-sm:justify-center"
					href="#look"><Eye size={18} /> Look at it now</a
				>{/if}
			{#if !closed}<a class="chalk" href={resolve('/trees/[id]/rehearse', { id: tree.id })}>Rehearse</a>{/if}
			<a class="chalk" href={resolve('/trees/[id]/recovery/pictures', { id: tree.id })}>Pictures</a>
			<a class="chalk" href={resolve('/trees/[id]/recovery/backups', { id: tree.id })}
				>Cuttings and divisions</a
			>
			<a class="chalk" href={resolve('/trees/[id]/book?kind=crown-cut', { id: tree.id })}
				>Crown or stem cut: write it down</a
			>
			<a class="chalk" href={resolve('/trees/[id]/recovery/report', { id: tree.id })}>Case report</a>
			{#if tree.situation === 'in-ground'}
				<a class="chalk" href={resolve('/trees/[id]/recovery/letter', { id: tree.id })}>Letter to the owner</a
				>
			{/if}
		</nav>
		<div class="mt-4">
			<ForecastPanel
				{forecast}
				weighed={of.case.functionSeen}
				season={of.season}
				sinceOn={of.since.on}
				rootsSeen={of.verdict.criteria.find((one) => one.name === 'function')?.answer ?? 'unknown'}
				since={sinceWords}
				{values}
				today={of.facts.today}
				{closed}
			/>
		</div>
		{#if !closed}
			<div class={due ? 'mt-6' : 'mt-6 min-h-48'}>
				{#if due}<Decisions {tree} {due} check={closer} {decisions} {today} {refused} />{/if}
			</div>
		{/if}
		{#if !closed}{#key correcting?.id}
				<LookForm
					{tree}
					{questions}
					{today}
					corrects={correcting}
					done={() => (correcting = null)}
					{refused}
				/>
			{/key}{/if}

		<section aria-label="What was measured" class="mt-6">
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
						{#if measure.key === 'shootExtensionMm' && fitted.length > 0}<span class="ml-3 text-lichen"
								>dotted: growth as fitted, ± one standard error</span
							>{/if}
						{#if measure.share && expected.length > 0}<span class="ml-3 text-lichen"
								>band: root function expected from what was cut</span
							>{/if}
					</p>
				</div>
				<div class="mt-2">
					<MeasureChart
						label={measure.label}
						readings={readingsOf(observations, measure.key)}
						{reference}
						{expected}
						fits={measure.key === 'shootExtensionMm' ? fitted : []}
						{works}
						from={first}
						to={until}
						show={measure.show}
						share={measure.share}
						unit={measure.unit}
					/>
				</div>
				{#if measure.key === 'shootExtensionMm' && of.growth.length > 0}
					<ShootGrowth seasons={of.growth} baseC={values['degreeDays.shootBaseC']} {today} />
				{/if}
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
			{#if sample}
				{@const share = wilsonInterval(sample.alive, sample.looked)}
				<p class="mt-2">
					Of {sample.looked} looked at, {sample.alive} are alive: {format().percent(share.low)} to {format().percent(
						share.high
					)} of the lot.
				</p>
			{/if}
			{#if observations.length > 0}<LooksTable
					{observations}
					own={records.observations}
					{today}
					correct={closed
						? null
						: (look) => {
								correcting = look;
								document.getElementById('look')?.scrollIntoView();
							}}
				/>{/if}
		</section>
	</div>
	<VerdictPanel {tree} verdict={of.verdict} {today} {refused} />
</div>
