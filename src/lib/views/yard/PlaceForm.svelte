<script lang="ts">
	import { enhance } from '$app/forms';
	import {
		exposureNames,
		exposures,
		lightLevelNames,
		lightLevels,
		placeKindNames,
		placeKinds,
		type Place
	} from '$core/vocabulary/place';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import type { ClimateValues } from '$core/climate/normals';
	import type { Town } from '$core/vocabulary/town';
	import ComboField from '$ui/ComboField.svelte';
	import LocateFixed from '@lucide/svelte/icons/locate-fixed';
	import { onMount, untrack } from 'svelte';
	import { PlacePosition, townLabel } from './place-position.svelte';

	interface Props {
		place?: Place;
		/** Position taken over from another place of the yard. */
		near?: Place;
		/** How far off a town may lie whose height stands for that of a position, km. */
		heightWithinKm: number;
		climateValues: ClimateValues;
		refused?: Refused | null;
		done?: () => void;
	}
	let { place, near, heightWithinKm, climateValues, refused, done }: Props = $props();
	const format = useFormat();
	let kind = $state<string>(untrack(() => place?.kind ?? 'open'));

	const ask = async (query: string): Promise<Town[]> => {
		try {
			const response = await fetch(`/api/v1/towns?${query}`);
			return response.ok ? ((await response.json()) as { towns: Town[] }).towns : [];
		} catch {
			// Without a server the position is typed.
			return [];
		}
	};
	const position = untrack(() => {
		const from = place ?? near;
		return new PlacePosition(
			from ? { position: from, from: place ? 'kept' : 'yard' } : null,
			ask,
			heightWithinKm
		);
	});
	/** The refusal since which a town or this machine set it: what was sent then is not shown again. */
	let setSince = $state.raw<Refused | null>(null);
	const positionRefused = $derived.by(() => {
		if (!refused || refused !== setSince) return refused;
		const typed = Object.fromEntries(
			Object.entries(refused.typed).filter(
				([name]) => !/^(latitudeDeg|longitudeDeg|elevationM|coldestMonthC|warmestMonthC)\b/.test(name)
			)
		);
		return { ...refused, typed };
	});
	const guessed = $derived(position.guessed(climateValues));
	let townShown = $state('');
	/** Only a page that is served safely is told where it is. */
	let locatable = $state(false);
	let locating = $state(false);
	onMount(() => {
		locatable = window.isSecureContext && 'geolocation' in navigator;
		if (!place && !near) void position.guess(Intl.DateTimeFormat().resolvedOptions().timeZone);
	});
	function locate(): void {
		locating = true;
		navigator.geolocation.getCurrentPosition(
			({ coords }) => {
				locating = false;
				townShown = '';
				setSince = refused ?? null;
				void position.here(coords.latitude, coords.longitude, coords.altitude);
			},
			() => {
				locating = false;
				position.problem = 'This machine does not say where it is. Type the name of a town near you instead.';
			},
			{ timeout: 15_000, maximumAge: 600_000 }
		);
	}
</script>

<form
	method="POST"
	action={place ? '?/change' : '?/add'}
	use:enhance={act({ done })}
	{@attach keepTyped(`place.${place?.id ?? 'new'}`)}
	class="flex flex-col gap-4"
	novalidate
>
	<Problem {refused} />
	{#if place}<input type="hidden" name="id" value={place.id} /><input
			type="hidden"
			name="version"
			value={place.version}
		/>{/if}
	<div class="grid gap-3 sm:grid-cols-2">
		<TextField
			name="name"
			label="Name"
			value={place?.name ?? ''}
			placeholder="East bench"
			{refused}
			required
		/>
		<SelectField
			name="kind"
			label="Shelter"
			bind:value={kind}
			options={placeKinds.map((value) => ({ value, label: placeKindNames[value] }))}
			{refused}
		/>
		{#if kind === 'heated' || kind === 'indoors' || kind === 'greenhouse'}
			<MeasureField
				name="heldMinimumC"
				label="Never colder than"
				unit="°C"
				value={place?.heldMinimumC ?? null}
				optional
				{refused}
			/>
		{/if}
		<SelectField
			name="light"
			label="Light there"
			value={place?.light ?? ''}
			optional
			options={[
				{ value: '', label: 'not written' },
				...lightLevels.map((value) => ({ value, label: lightLevelNames[value] }))
			]}
			{refused}
		/>
		<SelectField
			name="wind"
			label="Wind there"
			value={place?.wind ?? ''}
			optional
			options={[
				{ value: '', label: 'not written' },
				...exposures.map((value) => ({ value, label: exposureNames[value] }))
			]}
			{refused}
		/>
		<MeasureField
			name="waterM"
			label="Way to the nearest water"
			unit="m"
			value={place?.waterM ?? null}
			optional
			{refused}
		/>
		<TextField
			name="note"
			label="Note"
			value={place?.note ?? ''}
			optional
			{refused}
			fieldClass="sm:col-span-2"
		/>
	</div>
	<fieldset class="flex flex-col gap-3 border-t pt-3">
		<legend class="float-left mb-2 w-full font-semibold"
			>Where it lies: this sets its seasons and nights</legend
		>
		<div class="flex flex-wrap items-end gap-3">
			<ComboField
				name="town"
				label="Town nearby"
				placeholder="Begin to type its name"
				optional
				fieldClass="min-w-56 flex-1"
				bind:value={townShown}
				options={position.found.map((town) => ({ value: townLabel(town), label: townLabel(town) }))}
				onsearch={(typed) => void position.search(typed)}
				onchange={(label) => {
					setSince = refused ?? null;
					position.take(label);
				}}
			/>
			{#if locatable}<Button disabled={locating} onclick={locate}
					><LocateFixed size={18} aria-hidden="true" />{locating ? 'Asking …' : 'Where I am'}</Button
				>{/if}
		</div>
		<div class="grid gap-3 sm:grid-cols-3">
			<TextField
				name="latitudeDeg"
				label="Latitude"
				hint="South of the equator: minus"
				value={position.latitude}
				oninput={(event: Event & { currentTarget: HTMLInputElement }) =>
					position.type({ latitude: event.currentTarget.value })}
				refused={positionRefused}
			/>
			<TextField
				name="longitudeDeg"
				label="Longitude"
				value={position.longitude}
				oninput={(event: Event & { currentTarget: HTMLInputElement }) =>
					position.type({ longitude: event.currentTarget.value })}
				optional
				refused={positionRefused}
			/>
			<MeasureField
				name="elevationM"
				label="Height above the sea"
				hint="Empty counts as sea level"
				unit="m"
				value={position.elevationM}
				oninput={(elevationM) => position.type({ elevationM })}
				refused={positionRefused}
			/>
		</div>
		<p class="text-sm text-slate" role="status">{position.problem || position.said}</p>
		<div class="grid gap-3 sm:grid-cols-2">
			{#each ['coldest', 'warmest'] as const as month (month)}
				<MeasureField
					name="{month}MonthC"
					label="Mean of the {month} month"
					hint={guessed ? `Guessed: ${format().measure(guessed[`${month}C`], '°C')}` : ''}
					unit="°C"
					value={position[`${month}MonthC`]}
					oninput={(stored) => (position[`${month}MonthC`] = stored)}
					optional
					refused={positionRefused}
				/>
			{/each}
		</div>
		<p class="text-sm text-slate">
			Outdoors, day and night together, as a climate table of the nearest station gives them. Empty: windows
			and nights rest on the guess, which is too cold on high plains and too even far from the sea.
		</p>
	</fieldset>
	<div><Button type="submit" tone="solid">{place ? 'Keep the changes' : 'Add the place'}</Button></div>
</form>
