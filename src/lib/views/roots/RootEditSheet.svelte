<script lang="ts">
	import { computedFlaws } from '$core/roots/map/course';
	import { clockTyped, rootEdited, startDepthMm } from '$core/roots/map/root-edit';
	import {
		rootClasses,
		rootConditions,
		rootFlawNames,
		rootFlaws,
		rootsFrom,
		type Segment
	} from '$core/roots/map/root-map';
	import Button from '$ui/Button.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import { toFirstRefused } from '$ui/refused';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { tick, untrack } from 'svelte';
	import type { RootsState } from './roots-state.svelte';

	/** A root of the map, changed field by field. */
	interface Props {
		roots: RootsState;
		segment: Segment;
		done: () => void;
	}
	let { roots, segment, done }: Props = $props();
	const format = useFormat();
	let refused = $state.raw<Refused | null>(null);
	let condition = $state<string>(untrack(() => segment.condition));
	let parentId = $state(untrack(() => segment.parentId ?? ''));
	const fineScores = ['none', 'few', 'some', 'dense'];

	/** What the course shows by itself, girdling of the trunk among it. */
	const shows = $derived.by(() => {
		const contact = roots.girdling.get(segment.id);
		return [
			...(contact && contact.severity !== 'none'
				? [
						{
							flaw: 'girdling' as const,
							why: `lies against ${format().percent(contact.contactShare)} of the trunk`
						}
					]
				: []),
			...(computedFlaws(roots.map.segments, roots.options.values).get(segment.id) ?? [])
		];
	});
	/** A root cannot leave itself or what hangs on it. */
	const parents = $derived.by(() => {
		const below = rootsFrom(roots.map.segments, segment.id);
		return roots.map.segments.filter((other) => !below.has(other.id));
	});

	async function keep(event: SubmitEvent & { currentTarget: HTMLFormElement }): Promise<void> {
		event.preventDefault();
		const form = event.currentTarget;
		const data = new FormData(form);
		const typed = Object.fromEntries(
			[...data].flatMap(([name, value]) => (typeof value === 'string' ? [[name, value]] : []))
		);
		const edited = rootEdited(segment, roots.map, {
			...typed,
			flaws: data.getAll('flaws'),
			seenOtherwise: data.getAll('seenOtherwise')
		});
		if (edited.ok) {
			roots.change(segment.id, edited.segment);
			done();
			return;
		}
		refused = {
			message:
				edited.problems.length === 1 ? 'One field needs another look.' : 'Some fields need another look.',
			advice: '',
			problems: edited.problems,
			typed
		};
		await tick();
		toFirstRefused(form);
	}
</script>

<form onsubmit={keep} class="flex flex-col gap-4" novalidate>
	<Problem {refused} />
	<div class="grid grid-cols-3 gap-3">
		<TextField name="clock" label="Place, o’clock" value={clockTyped(segment, roots.map.frame)} {refused} />
		<MeasureField
			name="diameterStartMm"
			label="Thickness"
			unit="mm"
			value={segment.diameterStartMm}
			{refused}
		/>
		<MeasureField name="depthMm" label="Depth" unit="mm" value={startDepthMm(segment)} {refused} />
	</div>
	<div class="grid gap-3 sm:grid-cols-3">
		<SelectField
			name="rootClass"
			label="Class"
			value={segment.rootClass}
			options={rootClasses.map((value) => ({ value, label: value }))}
			{refused}
		/>
		<SelectField
			name="condition"
			label="Condition"
			bind:value={condition}
			options={rootConditions.map((value) => ({ value, label: value }))}
			{refused}
		/>
		<SelectField
			name="fineScore"
			label="Fine roots"
			value={String(segment.fineScore)}
			options={fineScores.map((label, index) => ({ value: String(index), label }))}
			{refused}
		/>
	</div>
	{#if condition === 'dead'}
		<MeasureField
			name="deadFromMm"
			label="Dead from, outward"
			unit="mm"
			hint="0 is all of it"
			value={segment.deadFromMm ?? 0}
			{refused}
		/>
	{/if}
	<div class="grid gap-3 sm:grid-cols-2">
		{#if condition !== 'sound'}
			<MeasureField
				name="doubtfulFromMm"
				label="Doubtful from, outward"
				unit="mm"
				optional
				hint={condition === 'doubtful' ? 'Empty is all of it' : undefined}
				value={segment.doubtfulFromMm}
				{refused}
			/>
		{/if}
		<MeasureField
			name="seenToMm"
			label="Laid open as far as"
			unit="mm"
			optional
			hint="Empty is all of it"
			value={segment.seenToMm}
			{refused}
		/>
	</div>
	<div class="grid gap-3 sm:grid-cols-2">
		<SelectField
			name="parentId"
			label="Leaves"
			bind:value={parentId}
			options={[
				{ value: '', label: 'the trunk' },
				...parents.map((other) => ({
					value: other.id,
					label: `the root at ${format().clock(roots.clock(other))}, ${format().measure(other.diameterStartMm, 'mm')}`
				}))
			]}
			{refused}
		/>
		{#if parentId !== ''}
			<MeasureField
				name="attachMm"
				label="How far along it"
				unit="mm"
				value={segment.parentId === null ? null : segment.attachMm}
				{refused}
			/>
		{/if}
	</div>
	<fieldset>
		<legend class="text-sm font-semibold">Flaws seen</legend>
		<div class="mt-1 grid gap-x-4 sm:grid-cols-2">
			{#each rootFlaws as flaw (flaw)}
				<label class="flex min-h-11 items-center gap-2"
					><input
						type="checkbox"
						name="flaws"
						value={flaw}
						checked={segment.flaws.includes(flaw)}
						class="size-5"
					/>{rootFlawNames[flaw]}</label
				>
			{/each}
		</div>
	</fieldset>
	{#if shows.length > 0}
		<fieldset>
			<legend class="text-sm font-semibold">Its course shows</legend>
			{#each shows as entry (entry.flaw)}
				<label class="flex min-h-11 flex-wrap items-center gap-x-3"
					><span class="min-w-0 flex-1">{rootFlawNames[entry.flaw]}: {format().inWords(entry.why)}</span><span
						class="flex items-center gap-2"
						><input
							type="checkbox"
							name="seenOtherwise"
							value={entry.flaw}
							checked={segment.seenOtherwise.includes(entry.flaw)}
							class="size-5"
						/>I see it otherwise</span
					></label
				>
			{/each}
		</fieldset>
	{/if}
	<TextField name="note" label="Note" optional value={segment.note} {refused} />
	<Button type="submit" tone="solid">Keep</Button>
</form>
