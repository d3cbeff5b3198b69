<script lang="ts">
	import { azimuthOf } from '$core/maths/circular';
	import { consentOf, isOwnersToSay } from '$core/roots/plan/consent';
	import { computedFlaws } from '$core/roots/map/course';
	import { courseLengthMm } from '$core/roots/map/geometry';
	import { roman } from '$core/roots/plan/plan';
	import {
		rootClasses,
		rootConditions,
		rootFlawNames,
		rootFlaws,
		rootsFrom,
		type RootFlaw,
		type Segment
	} from '$core/roots/map/root-map';
	import { woundTreatmentNames } from '$core/roots/plan/wound';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { useFormat } from '$ui/format';
	import { Popover } from 'bits-ui';
	import Pencil from '@lucide/svelte/icons/pencil';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
		segment: Segment;
	}
	let { roots, segment }: Props = $props();
	const format = useFormat();
	const treated = $derived(roots.treatment(segment));
	const done = $derived(treated.kind === 'cut' && treated.cut.state === 'done');
	const consent = $derived(consentOf(roots.plan, segment.id));
	let editing = $state(false);
	let picking = $state(false);
	const notBefore = $derived(
		roots.plan.notBefore.find((entry) => entry.segmentId === segment.id)?.stage ?? 0
	);

	const key = (on: boolean): string =>
		`min-h-11 rounded-md border px-3 font-semibold ${on ? 'bg-ink text-paper border-ink' : 'border-edge hover:border-ink'}`;

	let draft = $state({
		at: '',
		thickness: '',
		depth: '',
		attach: '',
		dead: '',
		doubtful: '',
		seen: '',
		note: ''
	});
	let copies = $state(4);
	let copying = $state(false);
	let parentId = $state('');
	let rootClass = $state<string>('secondary');
	let condition = $state<string>('sound');
	let fine = $state('2');
	let flaws = $state<RootFlaw[]>([]);
	let seenOtherwise = $state<RootFlaw[]>([]);
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
	let problem = $state('');
	const mm = $derived(format().unitOf('mm'));
	const tidy = (stored: number): string => String(Math.round(mm.toShown(stored) * 100) / 100);
	function edit(): void {
		draft = {
			at: format().clock(roots.clock(segment)),
			thickness: tidy(segment.diameterStartMm),
			depth: tidy(segment.course[0]?.depthMm ?? 0),
			attach: tidy(segment.attachMm),
			dead: segment.deadFromMm === null ? '' : tidy(segment.deadFromMm),
			doubtful: segment.doubtfulFromMm === null ? '' : tidy(segment.doubtfulFromMm),
			seen: segment.seenToMm === null ? '' : tidy(segment.seenToMm),
			note: segment.note
		};
		parentId = segment.parentId ?? '';
		rootClass = segment.rootClass;
		condition = segment.condition;
		fine = String(segment.fineScore);
		flaws = [...segment.flaws];
		seenOtherwise = [...segment.seenOtherwise];
		problem = '';
		editing = true;
	}
	/** Turns the typed text into a stored length, or null when it is no number in range. */
	function length(text: string, least: number, most: number): number | null {
		const stored = mm.toStored(Number(text.trim().replace(',', '.')));
		return text.trim() !== '' && Number.isFinite(stored) && stored >= least && stored <= most ? stored : null;
	}
	function keepEdit(event: SubmitEvent): void {
		event.preventDefault();
		const place = /^(\d{1,2})(?::(\d{2}))?$/.exec(draft.at.trim());
		const hour = Number(place?.[1]) + Number(place?.[2] ?? 0) / 60;
		if (!place || hour < 0 || hour > 12.99)
			return void (problem = 'The place must be a clock position from 1:00 to 12:59.');
		const thickness = length(draft.thickness, 0.2, roots.map.trunkDiameterMm);
		if (thickness === null)
			return void (problem = `The thickness must be from ${format().measure(0.2, 'mm', 2)} to that of the trunk, ${format().measure(roots.map.trunkDiameterMm, 'mm')}.`);
		const depth = length(draft.depth, -1000, 5000);
		if (depth === null)
			return void (problem = `The depth must be from ${format().measure(-1000, 'mm')} to ${format().measure(5000, 'mm')}.`);
		const attach = parentId === '' ? 0 : length(draft.attach, 0, 20_000);
		if (attach === null) return void (problem = 'Say how far along its parent the root leaves.');
		const deadFrom = condition === 'dead' ? length(draft.dead || '0', 0, 20_000) : null;
		const doubtfulFrom =
			condition === 'sound' || draft.doubtful.trim() === '' ? null : length(draft.doubtful, 0, 20_000);
		if (condition !== 'sound' && draft.doubtful.trim() !== '' && doubtfulFrom === null)
			return void (problem = 'Say from where outward it is doubtful, or leave it empty.');
		if (doubtfulFrom !== null && deadFrom !== null && doubtfulFrom > deadFrom)
			return void (problem = 'It cannot be doubtful beyond where it is dead.');
		const seenTo = draft.seen.trim() === '' ? null : length(draft.seen, 0, 20_000);
		if (draft.seen.trim() !== '' && seenTo === null)
			return void (problem = 'Say how far it is laid open, or leave it empty when all of it was seen.');
		const turn =
			azimuthOf(hour, roots.map.frame) - ((((segment.course[0]?.azimuthDeg ?? 0) % 360) + 360) % 360);
		const sink = depth - (segment.course[0]?.depthMm ?? 0);
		const scale = thickness / segment.diameterStartMm;
		if (flaws.includes('rotten') && condition !== 'dead')
			return void (problem = 'A rotten root is dead from somewhere outward: set its condition to dead.');
		roots.change(segment.id, {
			diameterStartMm: thickness,
			diameterEndMm: Math.max(0.1, segment.diameterEndMm * scale),
			rootClass: rootClass as Segment['rootClass'],
			guessed: segment.guessed.filter(
				(one) =>
					!(one === 'class' && rootClass !== segment.rootClass) && !(one === 'depth' && Math.abs(sink) > 0.5)
			),
			condition: condition as Segment['condition'],
			deadFromMm: deadFrom,
			doubtfulFromMm: doubtfulFrom,
			seenToMm: seenTo,
			fineScore: Number(fine),
			flaws,
			seenOtherwise,
			parentId: parentId === '' ? null : parentId,
			attachMm: attach,
			note: draft.note.slice(0, 400),
			course: segment.course.map((point) => ({
				...point,
				azimuthDeg: normal(point.azimuthDeg + turn),
				depthMm: point.depthMm + sink
			}))
		});
		editing = false;
	}
	const normal = (deg: number): number => (deg > 540 ? deg - 360 : deg < -180 ? deg + 360 : deg);
	/** A root cannot leave itself or what hangs on it. */
	const parents = $derived.by(() => {
		const below = rootsFrom(roots.map.segments, segment.id);
		return roots.map.segments.filter((other) => !below.has(other.id));
	});
</script>

<div
	class="flex flex-wrap items-center gap-1.5 rounded-md bg-duff px-2 py-2"
	role="group"
	aria-label="What to do with the root at {format().clock(roots.clock(segment))}"
>
	<strong class="mr-1 pl-1">{format().clock(roots.clock(segment))}</strong>
	{#if done}
		<span class="text-sm"
			>cut on {format().day(treated.kind === 'cut' ? (treated.cut.doneOn ?? '') : '')}{treated.kind ===
				'cut' && treated.cut.treatments.length > 0
				? `, ${treated.cut.treatments.map((one) => woundTreatmentNames[one]).join(', ')}`
				: ''}{treated.kind === 'cut' && treated.cut.note ? `: ${treated.cut.note}` : ''}; the record stays</span
		>
	{:else}
		<button
			class={key(treated.kind === 'cut' && treated.cut.stage === 0)}
			aria-pressed={treated.kind === 'cut' && treated.cut.stage === 0}
			onclick={() => roots.treat(segment.id, 'cut', 0)}>Cut now</button
		>
		<Popover.Root bind:open={picking}>
			<Popover.Trigger class={key(treated.kind === 'cut' && treated.cut.stage > 0)}>
				{treated.kind === 'cut' && treated.cut.stage > 0
					? `Stage ${roman(treated.cut.stage)}`
					: notBefore > 0
						? `Not before ${roman(notBefore)}`
						: 'Later'}
			</Popover.Trigger>
			<Popover.Portal>
				<Popover.Content
					sideOffset={6}
					class="z-50 flex flex-col gap-2 rounded-md border bg-leaf p-2 shadow-xl outline-none"
				>
					<div class="flex gap-1.5" role="group" aria-label="Cut in stage">
						{#each [1, 2, 3] as stage (stage)}
							<button
								class={key(treated.kind === 'cut' && treated.cut.stage === stage)}
								onclick={() => {
									roots.treat(segment.id, 'cut', stage);
									picking = false;
								}}>Stage {roman(stage)}</button
							>
						{/each}
					</div>
					<div class="flex items-center gap-1.5" role="group" aria-label="Not before stage">
						<span class="px-1 text-sm">Not before</span>
						{#each [1, 2, 3] as stage (stage)}
							<button
								class={key(notBefore === stage)}
								aria-pressed={notBefore === stage}
								onclick={() => {
									roots.postpone(segment.id, notBefore === stage ? 0 : stage);
									picking = false;
								}}>{roman(stage)}</button
							>
						{/each}
					</div>
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
		<button
			class={key(treated.kind === 'keep')}
			aria-pressed={treated.kind === 'keep'}
			onclick={() => roots.treat(segment.id, 'keep')}>Keep</button
		>
		<button
			class={key(treated.kind === 'trace')}
			aria-pressed={treated.kind === 'trace'}
			onclick={() => roots.treat(segment.id, 'trace')}>Trace</button
		>
		<button
			class={key(treated.kind === 'open')}
			aria-pressed={treated.kind === 'open'}
			onclick={() => roots.treat(segment.id, 'open')}>Open</button
		>
	{/if}
	{#if treated.kind === 'cut' && treated.cut.state === 'planned'}
		{@const cost = roots.standing.ledger.cutCost.get(segment.id) ?? 0}
		<span class="flex items-center gap-1.5">
			<label class="flex items-center gap-1.5 text-sm"
				>at<input
					class="input w-20"
					inputmode="decimal"
					aria-label="Cut it how far out, {mm.unit}; 0 is at its base"
					value={tidy(treated.cut.atMm)}
					onchange={(event) => {
						const at = length(event.currentTarget.value, 0, 20_000);
						if (at === null) event.currentTarget.value = tidy(treated.cut.atMm);
						else roots.cutAt(segment.id, at);
					}}
				/>{mm.unit} of {format().measure(Math.round(courseLengthMm(segment.course)), 'mm')}</label
			>
			<span class="text-sm whitespace-nowrap">costs {format().percent(cost, 1)}</span>
		</span>
	{/if}
	{#if consent || (treated.kind === 'cut' && isOwnersToSay(segment, roots.options, roots.map, roots.options.values))}
		<span class="flex flex-wrap items-center gap-1.5" role="group" aria-label="What the owner says">
			<span class="text-sm">Owner</span>
			{#each ['yes', 'no'] as const as answer (answer)}
				<button
					class={key(consent?.answer === answer)}
					aria-pressed={consent?.answer === answer}
					onclick={() =>
						roots.answer(
							segment.id,
							consent?.answer === answer ? null : { answer, on: roots.options.today, how: consent?.how ?? '' }
						)}>{answer === 'yes' ? 'Yes' : 'No'}</button
				>
			{/each}
			{#if consent}
				<input
					class="input w-40"
					aria-label="How the owner said it"
					placeholder="by letter, by phone"
					maxlength="80"
					value={consent.how}
					onchange={(event) =>
						roots.answer(segment.id, {
							answer: consent.answer,
							on: consent.on,
							how: event.currentTarget.value.trim()
						})}
				/>
				<span class="text-sm whitespace-nowrap">{format().day(consent.on, roots.options.today)}</span>
			{:else}<span class="text-sm">not asked yet</span>{/if}
		</span>
	{/if}
	<span class="ml-auto flex">
		<Button
			tone="quiet"
			size="small"
			title="Or drag off the root on the map"
			onclick={() => roots.addSide(segment.id)}>Side root</Button
		>
		<Popover.Root bind:open={copying}>
			<Popover.Trigger class="min-h-9 rounded-md px-2.5 text-sm font-semibold hover:bg-duff"
				>Copy round</Popover.Trigger
			>
			<Popover.Portal>
				<Popover.Content
					sideOffset={6}
					class="z-50 flex items-end gap-2 rounded-md border bg-leaf p-3 shadow-xl outline-none"
				>
					<label class="flex flex-col gap-1 text-sm font-semibold"
						>Roots in all, evenly round<input
							class="input w-28 font-normal"
							type="number"
							min="2"
							max="24"
							bind:value={copies}
						/></label
					>
					<Button
						tone="solid"
						disabled={!(copies >= 2 && copies <= 24)}
						onclick={() => {
							roots.copyRound(segment.id, Math.round(copies));
							copying = false;
						}}>Copy</Button
					>
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
		<Button tone="quiet" size="small" aria-label="Change this root" onclick={edit}
			><Pencil size={16} /></Button
		>
		<Button
			tone="quiet"
			size="small"
			aria-label="Take this root off the map"
			onclick={() => roots.remove(segment.id)}><Trash2 size={16} /></Button
		>
	</span>
</div>

<Sheet bind:open={editing} title="Root at {format().clock(roots.clock(segment))}" wide>
	<form onsubmit={keepEdit} class="flex flex-col gap-4">
		{#if problem}<p class="font-semibold text-oxide" role="alert">{problem}</p>{/if}
		<div class="grid grid-cols-3 gap-3">
			<label class="flex flex-col gap-1 text-sm font-semibold"
				>Place, o’clock<input class="input font-normal" bind:value={draft.at} /></label
			>
			<label class="flex flex-col gap-1 text-sm font-semibold"
				>Thickness, {mm.unit}<input
					class="input font-normal"
					inputmode="decimal"
					bind:value={draft.thickness}
				/></label
			>
			<label class="flex flex-col gap-1 text-sm font-semibold"
				>Depth, {mm.unit}<input
					class="input font-normal"
					inputmode="decimal"
					bind:value={draft.depth}
				/></label
			>
		</div>
		<div class="grid gap-3 sm:grid-cols-3">
			<SelectField
				name="rootClass"
				label="Class"
				bind:value={rootClass}
				options={rootClasses.map((value) => ({ value, label: value }))}
			/>
			<SelectField
				name="condition"
				label="Condition"
				bind:value={condition}
				options={rootConditions.map((value) => ({ value, label: value }))}
			/>
			<SelectField
				name="fine"
				label="Fine roots"
				bind:value={fine}
				options={['none', 'few', 'some', 'dense'].map((label, index) => ({ value: String(index), label }))}
			/>
		</div>
		{#if condition === 'dead'}
			<label class="flex flex-col gap-1 text-sm font-semibold"
				>Dead from, {mm.unit} outward (0 is all of it)<input
					class="input font-normal"
					inputmode="decimal"
					bind:value={draft.dead}
				/></label
			>
		{/if}
		<div class="grid gap-3 sm:grid-cols-2">
			{#if condition !== 'sound'}
				<label class="flex flex-col gap-1 text-sm font-semibold"
					>Doubtful from, {mm.unit} outward{condition === 'doubtful' ? ' (empty is all of it)' : ''}<input
						class="input font-normal"
						inputmode="decimal"
						bind:value={draft.doubtful}
					/></label
				>
			{/if}
			<label class="flex flex-col gap-1 text-sm font-semibold"
				>Laid open as far as, {mm.unit} (empty is all of it)<input
					class="input font-normal"
					inputmode="decimal"
					bind:value={draft.seen}
				/></label
			>
		</div>
		<div class="grid gap-3 sm:grid-cols-2">
			<SelectField
				name="parent"
				label="Leaves"
				bind:value={parentId}
				options={[
					{ value: '', label: 'the trunk' },
					...parents.map((other) => ({
						value: other.id,
						label: `the root at ${format().clock(roots.clock(other))}, ${format().measure(other.diameterStartMm, 'mm')}`
					}))
				]}
			/>
			{#if parentId !== ''}
				<label class="flex flex-col gap-1 text-sm font-semibold"
					>How far along it, {mm.unit}<input
						class="input font-normal"
						inputmode="decimal"
						bind:value={draft.attach}
					/></label
				>
			{/if}
		</div>
		<fieldset>
			<legend class="text-sm font-semibold">Flaws seen</legend>
			<div class="mt-1 grid gap-x-4 sm:grid-cols-2">
				{#each rootFlaws as flaw (flaw)}
					<label class="flex min-h-9 items-center gap-2"
						><input type="checkbox" value={flaw} bind:group={flaws} class="size-4.5" />{rootFlawNames[
							flaw
						]}</label
					>
				{/each}
			</div>
		</fieldset>
		{#if shows.length > 0}
			<fieldset>
				<legend class="text-sm font-semibold">Its course shows</legend>
				{#each shows as entry (entry.flaw)}
					<label class="flex min-h-9 flex-wrap items-center gap-x-3"
						><span class="min-w-0 flex-1">{rootFlawNames[entry.flaw]}: {format().inWords(entry.why)}</span
						><span class="flex items-center gap-2"
							><input type="checkbox" value={entry.flaw} bind:group={seenOtherwise} class="size-4.5" />I see
							it otherwise</span
						></label
					>
				{/each}
			</fieldset>
		{/if}
		<label class="flex flex-col gap-1 text-sm font-semibold"
			>Note<input class="input font-normal" maxlength="400" bind:value={draft.note} /></label
		>
		<Button type="submit" tone="solid">Keep</Button>
	</form>
</Sheet>
