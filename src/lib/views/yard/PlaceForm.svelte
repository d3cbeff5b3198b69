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
	import { untrack } from 'svelte';

	interface Props {
		place?: Place;
		/** Position taken over from another place of the yard. */
		near?: Place;
		refused?: Refused | null;
		done?: () => void;
	}
	let { place, near, refused, done }: Props = $props();
	let kind = $state<string>(untrack(() => place?.kind ?? 'open'));
	const from = $derived(place ?? near);
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
		<TextField
			name="latitudeDeg"
			label="Latitude, south negative"
			value={from ? String(from.latitudeDeg) : ''}
			inputmode="text"
			hint="Sets the seasons; 52.4 is enough"
			{refused}
		/>
		<TextField
			name="longitudeDeg"
			label="Longitude"
			value={from?.longitudeDeg == null ? '' : String(from.longitudeDeg)}
			optional
			{refused}
		/>
		<MeasureField
			name="elevationM"
			label="Height above the sea"
			unit="m"
			value={from?.elevationM ?? 0}
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
	<div><Button type="submit" tone="solid">{place ? 'Keep the changes' : 'Add the place'}</Button></div>
</form>
