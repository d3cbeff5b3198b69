<script lang="ts">
	import { resolve } from '$app/paths';
	import { consentOf, isOwnersToSay } from '$core/roots/plan/consent';
	import { courseLengthMm } from '$core/roots/map/geometry';
	import { roman } from '$core/roots/plan/plan';
	import type { Segment } from '$core/roots/map/root-map';
	import { measuredSaid } from '$core/roots/map/from-picture';
	import { readMeasure, readTwoWays } from '$core/text/typed';
	import { woundTreatmentNames } from '$core/roots/plan/wound';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { useFormat } from '$ui/format';
	import { Popover } from 'bits-ui';
	import Pencil from '@lucide/svelte/icons/pencil';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import RootEditSheet from './RootEditSheet.svelte';
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

	let copies = $state(4);
	let copying = $state(false);
	const mm = $derived(format().unitOf('mm'));
	const tidy = (stored: number): string => String(Math.round(mm.toShown(stored) * 100) / 100);
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
						const typed = event.currentTarget.value;
						const twoWays = readTwoWays(typed, format().decimalSign);
						roots.problem = twoWays ? `${twoWays}.` : '';
						const at = twoWays ? null : readMeasure(typed, 'mm', format().settings.units);
						if (at === null || at < 0) event.currentTarget.value = tidy(treated.cut.atMm);
						else roots.cutAt(segment.id, at);
					}}
				/>{mm.unit} of {format().measure(courseLengthMm(segment.course), 'mm')}</label
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
		<Button tone="quiet" size="small" aria-label="Change this root" onclick={() => (editing = true)}
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

{#if segment.measuredIn}
	{@const of = roots.options.pictures.find(({ id }) => id === segment.measuredIn?.pictureId)}
	<p class="mt-1 px-2 text-sm text-slate">
		{measuredSaid(segment, (value) => format().measure(value, 'mm'))}{#if of}
			(<a
				class="chalk"
				href={resolve('/trees/[id]/roots/picture/[picture]', { id: roots.options.tree.id, picture: of.id })}
				>{of.view}, {format().day(of.takenOn, roots.options.today)}</a
			>){:else}; the picture was removed since{/if}
	</p>
{/if}

{#if segment.depthIn}
	{@const of = roots.options.pictures.find(({ id }) => id === segment.depthIn?.pictureId)}
	<p class="mt-1 px-2 text-sm text-slate">
		depth ± {format().measure(Math.max(1, segment.depthIn.errorMm), 'mm')} from a picture taken from the side{#if of}
			(<a
				class="chalk"
				href={resolve('/trees/[id]/roots/picture/[picture]/side', {
					id: roots.options.tree.id,
					picture: of.id
				})}>{of.view}, {format().day(of.takenOn, roots.options.today)}</a
			>){:else}; the picture was removed since{/if}
	</p>
{/if}

<Sheet bind:open={editing} title="Root at {format().clock(roots.clock(segment))}" wide>
	<RootEditSheet {roots} {segment} done={() => (editing = false)} />
</Sheet>
