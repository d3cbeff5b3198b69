<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { Place } from '$core/vocabulary/place';
	import {
		deviceKindNames,
		deviceKinds,
		type Device,
		type DeviceHealth,
		type DeviceKind,
		type ReadingHour
	} from '$core/aftercare/weather/device';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { line, scaleLinear, scaleUtc } from 'd3';

	type Told = Pick<ReadingHour, 'lastAt' | 'weightKg' | 'moisture' | 'temperatureC' | 'humidityPercent'>;
	type Point = { at: string; value: number };
	/** Scales, probes and air sensors: what they last said, their battery, gaps and drift. */
	interface Props {
		rows: {
			device: Omit<Device, 'tokenHash'>;
			at: string;
			health: DeviceHealth;
			last: Told | null;
			week: Point[];
		}[];
		places: Place[];
		trees: { id: string; tag: string; name: string }[];
		today: string;
		/** Told once, after a device was added. */
		token?: string | null | undefined;
		refused?: Refused | null | undefined;
	}
	let { rows, places, trees, today, token, refused }: Props = $props();
	const format = useFormat();
	let kind = $state<DeviceKind>('scale');
	const said = (reading: Told): string =>
		[
			reading.weightKg === null ? '' : format().measure(reading.weightKg, 'kg'),
			reading.moisture === null ? '' : `${format().percent(reading.moisture)} moist`,
			reading.temperatureC === null ? '' : format().measure(reading.temperatureC, '°C', 1),
			reading.humidityPercent === null ? '' : `${format().number(reading.humidityPercent)} % humid`
		]
			.filter((text) => text !== '')
			.join(', ');
	function spark(points: Point[]): string {
		const numbers = points.map(({ value }) => value);
		const x = scaleUtc()
			.domain([new Date(`${today}T00:00:00Z`).getTime() - 7 * 86_400_000, new Date(`${today}T23:59:00Z`)])
			.range([2, 178]);
		const y = scaleLinear()
			.domain([Math.min(...numbers), Math.max(...numbers)])
			.range([34, 4]);
		return (
			line<Point>()
				.x((reading) => x(new Date(reading.at)))
				.y((reading) => y(reading.value))(points) ?? ''
		);
	}
</script>

<svelte:head><title>Devices · Bruntle</title></svelte:head>

<div class="page pt-6 pb-16">
	<h1 class="text-3xl">Devices</h1>
	<p class="mt-1 max-w-3xl text-slate">
		Scales, probes and sensors post readings to <code>/api/v1/readings</code> as JSON or CSV, a station its
		weather to <code>/api/v1/weather</code>, each with a token of its own.
		<a class="chalk" href={resolve('/yard/weather')}>Weather</a>,
		<a class="chalk" href={resolve('/yard')}>back to the yard</a>.
	</p>
	<ul class="mt-4 divide-y border-y">
		{#each rows as { device, at, health, last, week } (device.id)}
			<li class="flex flex-wrap items-center gap-x-5 gap-y-2 py-3">
				<div class="min-w-0 flex-1 basis-64">
					<strong>{device.name}</strong>{#if device.simulated}<span class="ml-1.5 text-ochre">simulated</span
						>{/if}
					<span class="block text-sm text-slate">{deviceKindNames[device.kind]}, {at}</span>
					<span class="block text-sm"
						>{last
							? `${said(last)}, ${format().instant(last.lastAt)}`
							: device.kind === 'station'
								? 'What it sends stands under Weather.'
								: 'No reading this week.'}</span
					>
				</div>
				{#if week.length > 1}
					<svg
						viewBox="0 0 180 38"
						class="h-10 w-44"
						role="img"
						aria-label="Readings of {device.name} over a week"
					>
						<path d={spark(week)} fill="none" class="stroke-rain" stroke-width="2" />
					</svg>
				{/if}
				{#if device.kind !== 'station'}<dl class="grid grid-cols-[auto_auto] gap-x-3 text-sm">
						<dt class="text-slate">battery</dt>
						<dd class={health.battery !== null && health.battery < 0.2 ? 'font-semibold text-oxide' : ''}>
							{health.battery === null ? 'not told' : format().percent(health.battery)}
						</dd>
						<dt class="text-slate">longest gap</dt>
						<dd class={(health.gapH ?? 0) > 24 ? 'font-semibold text-oxide' : ''}>
							{health.gapH === null
								? '–'
								: health.gapH < 1
									? 'under 1 h'
									: `${format().number(health.gapH, 1)} h`}
						</dd>
						{#if health.driftKgPerDay !== null}
							<dt class="text-slate">driest of a day moves</dt>
							<dd>{format().number(health.driftKgPerDay * 1000)} g a day</dd>
						{/if}
					</dl>{/if}
				<ForOwners
					><form method="POST" action="?/remove" use:enhance={act()}>
						<input type="hidden" name="id" value={device.id} /><input
							type="hidden"
							name="version"
							value={device.version}
						/>
						<Button size="small" tone="quiet" type="submit" aria-label="Remove {device.name}">Remove</Button>
					</form></ForOwners
				>
			</li>
		{:else}
			<li class="py-3 text-slate">None yet.</li>
		{/each}
	</ul>
	<section aria-labelledby="add-title" class="mt-8 max-w-2xl">
		<h2 id="add-title" class="text-lg">Add a device</h2>
		{#if token}
			<div class="mt-2 border-l-4 border-ochre py-1 pl-3" role="status">
				<p class="font-semibold">Its token, told once:</p>
				<p><code class="break-all">{token}</code></p>
				<p class="text-sm text-slate">
					Send it as Authorization: Bearer … with every reading. Lost, it is replaced by adding the device
					anew.
				</p>
			</div>
		{/if}
		<ForOwners told="An owner of the yard does that: each device is given a token of its own."
			><form
				method="POST"
				action="?/add"
				use:enhance={act()}
				class="mt-2 grid gap-3 sm:grid-cols-2"
				novalidate
			>
				<div class="sm:col-span-2"><Problem {refused} /></div>
				<TextField name="name" label="Name" placeholder="Scale under the yew" {refused} />
				<SelectField
					name="kind"
					label="What it is"
					value={kind}
					onchange={(event) => {
						kind = deviceKinds.find((word) => word === event.currentTarget.value) ?? 'scale';
					}}
					options={deviceKinds.map((value) => ({ value, label: deviceKindNames[value] }))}
				/>
				{#if kind === 'air' || kind === 'station'}
					<SelectField
						name="placeId"
						label="Hangs at"
						value={places[0]?.id ?? ''}
						options={places.map((place) => ({ value: place.id, label: place.name }))}
						{refused}
					/>
				{:else}
					<SelectField
						name="onTreeId"
						label="Belongs to"
						value={trees[0]?.id ?? ''}
						options={trees.map((tree) => ({ value: tree.id, label: `${tree.tag} ${tree.name}` }))}
						{refused}
					/>
				{/if}
				<label class="flex items-end gap-2 pb-2.5"
					><input type="checkbox" class="size-5" name="simulated" value="true" />It is simulated</label
				>
				<div class="sm:col-span-2"><Button type="submit" tone="solid">Add it and show its token</Button></div>
			</form></ForOwners
		>
	</section>
</div>
