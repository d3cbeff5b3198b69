<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { goto } from '$app/navigation';
	import type { Place } from '$core/vocabulary/place';
	import { placeKindNames } from '$core/vocabulary/place';
	import { degreeDays, gapsOf, type SeriesDay } from '$core/climate/series';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import WeatherChart from './WeatherChart.svelte';

	/** Weather of a place: measured, forecast, and what was filled in, said openly. */
	interface Props {
		places: Place[];
		chosen: Place | null;
		station: Place | null;
		series: readonly SeriesDay[];
		disagree: { on: string; byC: number }[];
		forecast: { service: string; fetchedAt: string | null };
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { places, chosen, station, series, disagree, forecast, values, today, refused }: Props = $props();
	const format = useFormat();
	const rain = (mm: number): string =>
		format().measure(mm, 'mm', format().settings.units === 'metric' ? 1 : 2);
	const gaps = $derived(gapsOf(series.filter((day) => day.on < today)));
	const measured = $derived(series.filter((day) => day.on <= today && day.how === ''));
	const week = $derived(series.filter((day) => day.on >= today).slice(0, 7));
	const ahead = $derived(week.some((day) => day.source === 'forecast'));
	const warm = $derived(
		degreeDays(
			series.filter((day) => day.on <= today),
			values['degreeDays.shootBaseC']
		)
	);
	const service = $derived(forecast.service);
	const address = $derived(service !== 'off' && service !== 'simulated' ? service : '');
	/** Of the name of the service, not of the whole record: a choice outlives other data read anew. */
	let kind = $derived<string>(address ? 'address' : service);
	const choose = (placeId: string): void => {
		const page = resolve('/yard/weather');
		// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved above
		void goto(`${page}?place=${placeId}`, { keepFocus: true, noScroll: true });
	};
</script>

<svelte:head><title>Weather · Bruntle</title></svelte:head>

<div class="page pt-6 pb-16">
	<h1 class="text-3xl">Weather</h1>
	<p class="mt-1 max-w-3xl text-slate">
		What trees drink and what tonight touches is reckoned from this. <a class="chalk" href={resolve('/yard')}
			>Back to the yard</a
		>, <a class="chalk" href={resolve('/yard/devices')}>devices</a>.
	</p>
	{#if chosen}
		<div class="mt-4 max-w-sm">
			<SelectField
				name="place"
				label="At"
				value={chosen.id}
				onchange={(event) => choose(event.currentTarget.value)}
				options={places.map((place) => ({
					value: place.id,
					label: `${place.name}, ${placeKindNames[place.kind]}`
				}))}
			/>
		</div>
		<p class="mt-3 max-w-3xl">
			{#if !station}
				Nothing was measured here or near: the climate of the place stands in, from its latitude and height
				alone.
			{:else}
				{station.id === chosen.id
					? `${measured.length} of the last days were measured here`
					: `It borrows the weather of ${station.name} and applies its own shelter`}; ET₀ by {measured.some(
					(day) => day.method === 'penman-monteith'
				)
					? 'Penman–Monteith'
					: 'Hargreaves'}.
			{/if}
			<Workings
				label="What this place makes of the weather"
				formula="ET₀ × light and wind, rain × what reaches the pot, temperature + shelter"
				lines={[
					{
						label: 'evaporation against the open',
						value: `× ${values[`place.demand.${chosen.kind}`]}`,
						mark: markOf(`place.demand.${chosen.kind}`)
					},
					{
						label: 'rain that reaches the pot',
						value: `× ${values[`place.rain.${chosen.kind}`]}`,
						mark: markOf(`place.rain.${chosen.kind}`)
					},
					{
						label: 'wind',
						value: `× ${values[`place.wind.${chosen.kind}`]}`,
						mark: markOf(`place.wind.${chosen.kind}`)
					}
				]}
				changes="An air sensor at the place itself knows better than any factor."
				>Degree days over {format().measure(values['degreeDays.shootBaseC'], '°C')} in these weeks: {format().number(
					warm
				)}</Workings
			>.
		</p>
		<div class="mt-3"><WeatherChart {series} {today} /></div>
		{#if week.length > 0}
			<div class="relative mt-4 overflow-x-auto">
				<table class="w-full min-w-[40rem] border-t text-sm">
					<thead
						><tr class="border-b text-left text-slate"
							>{#each ['day', 'low', 'high', 'rain', 'gusts', 'dry air', 'ET₀', 'from'] as head (head)}<th
									class="py-1 pr-4 font-normal">{head}</th
								>{/each}</tr
						></thead
					>
					<tbody class="divide-y">
						{#each week as day (day.on)}
							<tr>
								<th class="py-1 pr-4 text-left font-semibold">{format().day(day.on, today)}</th>
								<td class="py-1 pr-4">{format().measure(day.minC, '°C')}</td>
								<td class="py-1 pr-4">{format().measure(day.maxC, '°C')}</td>
								<td class="py-1 pr-4">{rain(day.rainMm)}</td>
								<td class="py-1 pr-4">{day.gustMs === null ? '–' : format().measure(day.gustMs, 'm/s')}</td>
								<td class="py-1 pr-4"
									>{day.vpdKpa === null ? '–' : `${format().number(day.vpdKpa, 2)} kPa`}</td
								>
								<td class="py-1 pr-4">{rain(day.et0Mm)}</td>
								<td class="py-1"
									>{day.source === 'forecast'
										? 'forecast'
										: day.how === ''
											? day.source
											: day.source === 'filled'
												? 'filled'
												: 'climate'}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		{/if}
		{#if disagree.length > 0}
			<div class="mt-3">
				<Caution title="Two sources disagree"
					>On {disagree
						.slice(0, 4)
						.map(({ on, byC }) => `${format().day(on, today)} by ${format().number(byC, 1)} °C`)
						.join(', ')}. The station is taken; look at where both stand.</Caution
				>
			</div>
		{/if}
		{#if gaps.length > 0}
			<details class="mt-4">
				<summary class="font-semibold"
					>Days that nobody measured: {gaps.length} {gaps.length === 1 ? 'stretch' : 'stretches'}</summary
				>
				<ul class="mt-1 divide-y border-y text-sm" aria-label="How gaps were filled">
					{#each gaps as gap (gap.from)}
						<li class="py-1">{format().span(gap.from, gap.to)}: {gap.how}</li>
					{/each}
				</ul>
			</details>
		{/if}

		<div class="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-2">
			<section aria-labelledby="forecast-title">
				<h2 id="forecast-title" class="text-lg">Forecast</h2>
				<p class="text-sm text-slate">
					{ahead
						? 'A forecast is in use.'
						: 'None is in use: the days ahead are the climate of the place.'}{forecast.fetchedAt
						? ` Fetched ${format().instant(forecast.fetchedAt)}.`
						: ''}
				</p>
				<ForOwners told="An owner of the yard chooses where a forecast comes from.">
					<form
						method="POST"
						action="?/forecast"
						use:enhance={act({ keep: true })}
						class="mt-2 flex flex-col gap-3"
						novalidate
					>
						<Problem {refused} />
						<input type="hidden" name="placeId" value={chosen.id} />
						<SelectField
							name="kind"
							label="Service"
							bind:value={kind}
							options={[
								{ value: 'off', label: 'none' },
								{ value: 'simulated', label: 'simulated, to try it out' },
								{ value: 'address', label: 'a service that answers in JSON' }
							]}
						/>
						{#if kind === 'address'}
							<TextField
								name="address"
								label="Its address"
								value={address}
								hint="It is asked with latitude, longitude, elevation and days; see Formats"
								{refused}
							/>
						{/if}
						<div>
							<Button type="submit" tone="solid">{kind === 'off' ? 'Use none' : 'Use and fetch it'}</Button>
						</div>
					</form></ForOwners
				>
			</section>
			<section aria-labelledby="typed-title">
				<h2 id="typed-title" class="text-lg">Read off a thermometer</h2>
				<form
					method="POST"
					action="?/day"
					use:enhance={act()}
					class="mt-2 grid gap-3 sm:grid-cols-3"
					novalidate
				>
					<input type="hidden" name="placeId" value={chosen.id} />
					<DateField name="on" label="Day" value={today} max={today} {refused} />
					<MeasureField name="minC" label="Low" unit="°C" {refused} />
					<MeasureField name="maxC" label="High" unit="°C" {refused} />
					<MeasureField name="rainMm" label="Rain" unit="mm" optional {refused} />
					<MeasureField name="humidityPercent" label="Humidity, %" unit="" optional {refused} />
					<MeasureField name="windMs" label="Wind" unit="m/s" optional {refused} />
					<div class="sm:col-span-3"><Button type="submit">Keep the day</Button></div>
				</form>
				<h2 class="mt-6 text-lg">From a station</h2>
				<p class="mt-1 text-sm text-slate">
					As it exports them: days with a date and the lowest and highest temperature, or hours with a time
					and the temperature. Each heading says its unit, as “Temp min °C”, “Rain mm” or “Wind km/h”.
				</p>
				<form
					method="POST"
					action="?/file"
					enctype="multipart/form-data"
					use:enhance={act()}
					class="mt-2 flex flex-wrap items-end gap-3"
					novalidate
				>
					<input type="hidden" name="placeId" value={chosen.id} />
					<label class="flex flex-col gap-1"
						><span class="text-sm font-semibold">CSV file</span><input
							class="input"
							type="file"
							name="file"
							accept=".csv,text/csv"
						/></label
					>
					<Button type="submit">Read it</Button>
				</form>
				<ForOwners>
					<form method="POST" action="?/simulate" use:enhance={act()} class="mt-3">
						<input type="hidden" name="placeId" value={chosen.id} />
						<Button type="submit" tone="quiet" size="small">Fill 60 days with simulated weather</Button>
					</form></ForOwners
				>
			</section>
		</div>
	{:else}
		<p class="mt-4">
			No place is known yet. <a class="chalk" href={resolve('/yard')}>Say where your trees stand</a> first.
		</p>
	{/if}
</div>
