<script lang="ts">
	import { kindSaid } from '$core/vocabulary/kind-names';
	import TreeField from '$views/tree/TreeField.svelte';
	import type { TreeName } from '$core/take-in/tree';
	import { enhance } from '$app/forms';
	import type { Place } from '$core/vocabulary/place';
	import { groupNames, groups, liftingWindowNames, type Kind } from '$core/vocabulary/kind';
	import {
		permissionNames,
		permissions,
		reserves,
		reservesNames,
		situationNames,
		situations,
		vigours
	} from '$core/vocabulary/words';
	import { type Tree } from '$core/take-in/tree';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import ComboField from '$ui/ComboField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	interface Props {
		kinds: Kind[];
		places: Place[];
		today: string;
		/** The tree to change; none when a new one is taken in. */
		tree?: Tree;
		others: TreeName[];
		suggestedTag?: string;
		refused?: Refused | null;
		action: string;
	}
	let { kinds, places, today, tree, others, suggestedTag = '', refused, action }: Props = $props();
	const format = useFormat();

	const options = <T extends string>(words: readonly T[], names: Record<T, string>) =>
		words.map((value) => ({ value, label: names[value] }));
	const vigourNames = { strong: 'strong', fair: 'fair', weak: 'weak' };
	const typed = (name: string, otherwise: string): string => refused?.typed[name] ?? otherwise;

	// Of a new tree nothing of this is presumed.
	let situation = $state<Tree['situation'] | ''>('');
	let vigour = $state<Tree['vigour'] | ''>('');
	let permission = $state<Tree['permission'] | ''>('');
	let reserve = $state<Tree['reserves'] | ''>('');
	let kindId = $state('');
	$effect.pre(() => {
		situation = typed('situation', tree?.situation ?? '') as Tree['situation'];
		vigour = typed('vigour', tree?.vigour ?? '') as Tree['vigour'];
		permission = typed('permission', tree?.permission ?? '') as Tree['permission'];
		reserve = typed('reserves', tree?.reserves ?? '') as Tree['reserves'];
		kindId = typed('kindId', tree?.kindId ?? '');
	});
	const kind = $derived(kinds.find((candidate) => candidate.id === kindId));
	const kindOptions = $derived([
		...groups.flatMap((group) =>
			kinds
				.filter((candidate) => candidate.group === group)
				.sort((a, b) => Number(b.id.startsWith('group-')) - Number(a.id.startsWith('group-')))
				.map((candidate) => ({
					value: candidate.id,
					label: candidate.id.startsWith('group-')
						? `${candidate.commonName}, kind not known`
						: `${candidate.commonName} (${candidate.genus})`,
					also: kindSaid(candidate, groupNames[group]),
					group: groupNames[group]
				}))
		)
	]);
</script>

<form
	method="POST"
	{action}
	use:enhance={act({ keep: true })}
	{@attach keepTyped(`tree.${tree?.id ?? 'new'}`)}
	class="flex flex-col gap-5"
	novalidate
>
	<Problem {refused} />
	{#if tree}<input type="hidden" name="version" value={tree.version} />{/if}
	<div class="grid gap-4 sm:grid-cols-[8rem_1fr]">
		<TextField
			name="tag"
			label="Tag"
			value={tree?.tag ?? suggestedTag}
			{refused}
			autocomplete="off"
			required
		/>
		<TextField
			name="name"
			label="Name"
			value={tree?.name ?? ''}
			placeholder="Beech by the quarry gate"
			{refused}
			autocomplete="off"
			required
		/>
	</div>
	<div class="grid gap-4 sm:grid-cols-2">
		<ComboField
			name="kindId"
			label="Kind, or only its group"
			placeholder="Beech, Fagus, conifer …"
			bind:value={kindId}
			options={kindOptions}
			{refused}
		/>
		<SelectField
			name="placeId"
			label="Place"
			value={tree?.placeId ?? (places.length === 1 ? (places[0]?.id ?? '') : '')}
			options={[
				...(tree || places.length === 1 ? [] : [{ value: '', label: 'choose the place' }]),
				...places.map((place) => ({ value: place.id, label: place.name }))
			]}
			{refused}
		/>
	</div>
	{#if kind}
		<p class="-mt-2 text-sm text-slate">
			{kind.commonName}: {groupNames[kind.group]}; stands about {format().measure(kind.coldestC, '°C')} with its
			roots in a pot; root work {liftingWindowNames[kind.liftingWindow]}. Recalled from memory, change it
			under Kinds.
		</p>
		{#if kind.caution || kind.sap !== 'none'}
			<Caution title={kind.sap === 'toxic' ? 'Poisonous' : kind.sap === 'irritant' ? 'Irritant' : 'Note'}
				>{kind.caution || 'Gloves; keep the sap off skin and eyes.'}</Caution
			>
		{/if}
	{/if}
	<Choice
		label="How it stands"
		name="situation"
		bind:value={situation}
		options={options(situations, situationNames)}
		{refused}
	/>
	<div class="grid gap-4 sm:grid-cols-3">
		<MeasureField
			name="trunkDiameterMm"
			label="Trunk above the flare"
			unit="mm"
			value={tree?.trunkDiameterMm ?? null}
			{refused}
		/>
		<MeasureField name="heightM" label="Height" unit="m" value={tree?.heightM ?? null} optional {refused} />
		<TextField
			name="plantCount"
			label="How many"
			value={String(tree?.plantCount ?? 1)}
			inputmode="numeric"
			hint="1 is a tree; more is a lot worked alike"
			{refused}
		/>
	</div>
	<TextField
		name="origin"
		label="Where it came from"
		value={tree?.origin ?? ''}
		rows={2}
		{refused}
		optional
	/>
	<Choice
		label="Permission to lift or work on it"
		name="permission"
		bind:value={permission}
		options={options(permissions, permissionNames)}
		{refused}
	/>
	{#if permission === 'not-yet'}
		<Caution title="Before any digging"
			>Permission in writing, protected species and sites, and buried gas, power, water and telecoms located
			by those who may. Local tree protection rules come first.</Caution
		>
	{/if}
	<div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
		<Choice
			label="Vigour today"
			name="vigour"
			bind:value={vigour}
			options={options(vigours, vigourNames)}
			{refused}
		/>
		<Choice
			label="Reserves"
			name="reserves"
			bind:value={reserve}
			options={options(reserves, reservesNames)}
			{refused}
		/>
	</div>
	<details
		class="border-y py-3"
		open={Boolean(tree?.note || tree?.batch || tree?.watering || tree?.sharedPot || tree?.referenceTreeId)}
	>
		<summary class="font-semibold">More: day, batch, a pot it shares, a healthy twin, notes</summary>
		<div class="mt-4 grid gap-4 sm:grid-cols-2">
			<DateField
				name="takenInOn"
				label="Taken in on"
				value={tree?.takenInOn ?? today}
				max={today}
				{refused}
			/>
			<TextField
				name="batch"
				label="Batch it shares with others"
				value={tree?.batch ?? ''}
				{refused}
				optional
			/>
			<TextField
				name="watering"
				label="Watering it shares with others"
				value={tree?.watering ?? ''}
				hint="A line, a barrel or a can; what is sick may travel with it."
				{refused}
				optional
			/>
			<TextField
				name="sharedPot"
				label="Pot it shares with others"
				value={tree?.sharedPot ?? ''}
				hint="One name for all in it; each has its own map, state and record."
				{refused}
				optional
			/>
			<input type="hidden" name="parentTreeId" value={tree?.parentTreeId ?? ''} />
			<TreeField
				name="referenceTreeId"
				label="A healthy tree to compare with"
				optional
				value={tree?.referenceTreeId ?? ''}
				offered={others}
				except={tree?.id}
				{refused}
			/>
			<TextField
				name="note"
				label="Notes"
				value={tree?.note ?? ''}
				rows={3}
				{refused}
				optional
				fieldClass="sm:col-span-2"
			/>
		</div>
	</details>
	<div>
		<Button type="submit" tone="solid" size="large">{tree ? 'Keep the changes' : 'Take it in'}</Button>
	</div>
</form>
