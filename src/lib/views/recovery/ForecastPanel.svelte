<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { counted } from '$core/text/plural';
	import { pullWords } from '$core/examine/diagnosis/pull';
	import type { RecoveryForecast } from '$core/recovery/forecast';
	import type { SeasonPoint } from '$core/recovery/season';
	import { markOf, type Values } from '$core/values/values';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { line, scaleLinear, scaleUtc } from 'd3';
	import CourseChart from './CourseChart.svelte';

	/** Whether it comes back: a probability with its range, its path, what moved it, and the course of the roots. */
	interface Props {
		forecast: RecoveryForecast | null;
		weighed: readonly { on: string; phi: number }[];
		season: SeasonPoint;
		sinceOn: string;
		/** What the verdict says of its roots: drinking is thought of here, and has to be seen there. */
		rootsSeen: 'met' | 'not-met' | 'unknown';
		since: string;
		values: Values;
		today: string;
		closed: boolean;
	}
	let { forecast, weighed, season, sinceOn, rootsSeen, since, values, today, closed }: Props = $props();
	const format = useFormat();
	const days = $derived(Math.round((Date.parse(today) - Date.parse(sinceOn)) / 86_400_000));
	const at = (on: string): Date => new Date(`${on}T00:00:00Z`);
	const [W, H] = [220, 56];
	const path = $derived.by(() => {
		if (!forecast) return '';
		const x = scaleUtc()
			.domain([at(sinceOn), at(today)])
			.range([2, W - 6]);
		const y = scaleLinear()
			.domain([0, 1])
			.range([H - 4, 4]);
		return (
			line<{ on: string; probability: number }>()
				.x((point) => x(at(point.on)))
				.y((point) => y(point.probability))([...forecast.path, { on: today, probability: forecast.now }]) ??
			''
		);
	});
	/** Where nobody has looked, nothing was seen; and a look at its buds has not seen what its roots do. */
	const reckonedBy = $derived(
		!forecast?.lastSeenOn
			? 'By reckoning alone'
			: rootsSeen === 'met'
				? 'By what was seen'
				: 'By reckoning from what was seen'
	);
	const nearly = (share: number): string => chanceSaid(share, format().percent);
</script>

<section aria-labelledby="forecast-title" aria-busy={forecast === null}>
	<h2 id="forecast-title" class="text-lg">{closed ? 'What was thought of it' : 'Is it coming back?'}</h2>
	<p class="text-sm text-slate">
		{counted(days, 'day')} since {since}: {format().number(season.seasons, 1)} growing season{season.seasons >=
			0.95 && season.seasons < 1.05
			? ''
			: 's'}{closed
			? ''
			: season.progress > 0
				? `; this one is ${format().percent(season.progress)} over, by ${season.by === 'warmth' ? 'its warmth so far' : 'the calendar'}`
				: '; it is not growing now'}.
	</p>
	{#if forecast}
		<div class="mt-2 flex flex-wrap items-center gap-x-8 gap-y-2">
			<p>
				<Workings
					label="Probability of re-establishment"
					formula="chance of standing above the tipping point at the horizon, by how it stood at the work, the seasons since and all that was seen"
					lines={[
						{ label: 'as judged at the work', value: nearly(forecast.prior) },
						{ label: 'that it comes through, now', value: nearly(forecast.through) },
						{ label: 'that its roots or shoots are enough in time', value: nearly(forecast.inTime) },
						{
							label: 'counted until',
							value: format().date(forecast.horizonOn),
							mark: markOf('forecast.horizonDays')
						},
						{
							label: 'for all living root taken',
							value: `${values['forecast.lossOdds']} log-odds`,
							mark: markOf('forecast.lossOdds')
						},
						{
							label: 'pace of regrowth differs by',
							value: format().number(values['forecast.paceSpread'], 2),
							mark: markOf('forecast.paceSpread')
						},
						{
							label: 'a look counts, of one alone',
							value: format().percent(values['forecast.looksPower']),
							mark: markOf('forecast.looksPower')
						}
					]}
					changes="Every look: above all leaf cover and shoots in season, and weighings."
					><strong class="font-display text-4xl">{forecast.known ? nearly(forecast.now) : 'Not known'}</strong
					></Workings
				>
				<span class="ml-2 text-slate"
					>{forecast.known ? '' : 'it may be anything from '}{nearly(forecast.low)} to {nearly(
						forecast.high
					)}</span
				>
			</p>
			<svg
				viewBox="0 0 {W} {H}"
				width={W}
				height={H}
				role="img"
				aria-label="Path of the probability from {nearly(forecast.path[0]?.probability ?? 0)} to {nearly(
					forecast.now
				)}"
			>
				<path d="M2 {H / 2}H{W - 6}" class="stroke-line" stroke-dasharray="2 3" />
				<path d="M2 {H - 4}H{W - 6}" class="stroke-line" />
				<path d={path} fill="none" class="stroke-lichen" stroke-width="2.5" />
			</svg>
		</div>
		{#if forecast.known && !closed && forecast.inTime < values['forecast.timeTold'] && forecast.through > forecast.now}
			<p class="mt-1">
				It is thought to come through with {nearly(forecast.through)}; with {nearly(forecast.inTime)} its roots
				are enough by {format().monthYear(forecast.horizonOn)}.
			</p>
		{/if}
		{#if !forecast.known && !closed}
			<p class="mt-1 font-semibold text-ochre">
				Nobody has seen anything of it {forecast.lastSeenOn
					? `since ${format().date(forecast.lastSeenOn)}`
					: `since ${since}`}. What was thought then, {nearly(forecast.now)}, says nothing of today: look at
				it.
			</p>
		{/if}
		{#if forecast.dead && !closed}
			<p class="mt-1 font-semibold text-oxide">
				Dead, by what was seen: {forecast.dead.slice(0, 4).join('; ')}. Look once more at the flare before you
				close the case.
			</p>
		{/if}
		{#if forecast.reaches && forecast.known && !forecast.dead && !closed}
			<p class="mt-1">
				{#if forecast.reaches.late <= sinceOn}
					{reckonedBy}, enough of its roots drink as it stands.
				{:else if forecast.reaches.late <= today}
					{reckonedBy}, enough roots drink since about {format().monthYear(forecast.reaches.middle)}.
				{:else if forecast.reaches.middle <= today}
					{reckonedBy}, enough roots may drink already, since about {format().monthYear(
						forecast.reaches.middle
					)}; it may take until {format().monthYear(forecast.reaches.late)}.
				{:else}
					If it recovers, enough roots drink about {format().monthYear(forecast.reaches.middle)}, between
					{format().monthYear(forecast.reaches.early)} and {format().monthYear(forecast.reaches.late)}.
				{/if}
				{#if forecast.reaches.middle <= today && rootsSeen !== 'met'}
					{rootsSeen === 'unknown'
						? 'Neither shoots nor weighings have shown it yet.'
						: 'Its shoots or weighings do not show it yet.'}
				{/if}
			</p>
		{/if}
		<div class="mt-3">
			<CourseChart
				expected={forecast.expected}
				course={forecast.course}
				{weighed}
				wanted={values['verdict.rootFunction']}
				{today}
				{closed}
			/>
		</div>
		{#if forecast.moved.length > 0}
			<details class="mt-2">
				<summary class="font-semibold">What moved it</summary>
				<ul class="mt-1 divide-y border-y text-sm" aria-label="What moved it">
					{#each forecast.moved.slice(0, 8) as one (one.on + one.what)}
						<li class="grid grid-cols-[7rem_1fr_auto] gap-3 py-1.5">
							<span class="text-slate">{format().day(one.on, today)}</span>
							<span>{format().inWords(one.what)}</span>
							<span class={one.by > 0 ? 'text-lichen' : 'text-oxide'}
								>{one.by > 0 ? '▲' : '▼'}
								{pullWords(one.by, values)}</span
							>
						</li>
					{/each}
				</ul>
			</details>
		{/if}
	{:else}
		<!-- As high as what comes: what stands below stays where the hand goes for it. -->
		<p class="mt-2 min-h-90 text-slate" role="status">Working it out …</p>
	{/if}
</section>
