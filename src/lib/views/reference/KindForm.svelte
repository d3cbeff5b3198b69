<script lang="ts">
	import { enhance } from '$app/forms';
	import {
		groupNames,
		groups,
		liftingWindowNames,
		liftingWindows,
		sapCautions,
		type Kind
	} from '$core/vocabulary/kind';
	import Button from '$ui/Button.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';

	interface Props {
		kind?: Kind;
		refused?: Refused | null;
		done?: () => void;
	}
	let { kind, refused, done }: Props = $props();
</script>

<form
	method="POST"
	action={kind ? '?/change' : '?/add'}
	use:enhance={act({ done })}
	class="flex flex-col gap-4"
	novalidate
>
	<Problem {refused} />
	{#if kind}<input type="hidden" name="id" value={kind.id} /><input
			type="hidden"
			name="version"
			value={kind.version}
		/>{/if}
	<div class="grid gap-3 sm:grid-cols-2">
		<TextField name="genus" label="Genus" value={kind?.genus ?? ''} {refused} required />
		<TextField name="commonName" label="What you call it" value={kind?.commonName ?? ''} {refused} required />
		<SelectField
			name="group"
			label="Worked like a"
			value={kind?.group ?? 'deciduous'}
			options={groups.map((value) => ({ value, label: groupNames[value] }))}
			{refused}
		/>
		<SelectField
			name="liftingWindow"
			label="Root work"
			value={kind?.liftingWindow ?? 'leafless'}
			options={liftingWindows.map((value) => ({ value, label: liftingWindowNames[value] }))}
			{refused}
		/>
		<MeasureField
			name="coldestC"
			label="Coldest night in a pot"
			unit="°C"
			value={kind?.coldestC ?? null}
			{refused}
		/>
		<MeasureField
			name="wetnessTrigger"
			label="Dries this far before water, 0 to 1"
			unit=""
			value={kind?.wetnessTrigger ?? 0.5}
			{refused}
		/>
		<SelectField
			name="sap"
			label="Sap"
			value={kind?.sap ?? 'none'}
			options={sapCautions.map((value) => ({ value, label: value === 'none' ? 'no caution known' : value }))}
			{refused}
		/>
		<TextField name="caution" label="Caution" value={kind?.caution ?? ''} optional {refused} />
	</div>
	<div><Button type="submit" tone="solid">{kind ? 'Keep the changes' : 'Add the kind'}</Button></div>
</form>
