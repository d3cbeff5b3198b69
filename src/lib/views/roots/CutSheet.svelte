<script lang="ts">
	import { enhance } from '$app/forms';
	import { roman, type Cut } from '$core/roots/plan/plan';
	import { rootFlawNames } from '$core/roots/map/root-map';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import type { RootsState } from './roots-state.svelte';
	import CutStops from './CutStops.svelte';
	import Wounds from './Wounds.svelte';

	/** Writes down what was really cut: each planned cut of the stage done, left with a reason, or still to come. */
	interface Props {
		open: boolean;
		roots: RootsState;
		today: string;
	}
	let { open = $bindable(), roots, today }: Props = $props();
	const format = useFormat();

	const planned = $derived(roots.plan.cuts.filter((cut) => cut.state === 'planned'));
	const stage = $derived(Math.min(...planned.map((cut) => cut.stage), 99));
	const inStage = $derived(planned.filter((cut) => cut.stage === stage));
	let answers = $state<Record<string, 'done' | 'left' | 'later'>>({});
	let whys = $state<Record<string, string>>({});
	const answerOf = (cut: Cut): 'done' | 'left' | 'later' => answers[cut.id] ?? 'done';
	const spent = $derived(roots.takenBy(inStage.filter((cut) => answerOf(cut) === 'done')));
	let doneOn = $state(untrack(() => today));
	const stops = $derived(
		roots.stopsFor(
			inStage.filter((cut) => answerOf(cut) === 'done'),
			doneOn || today
		)
	);
	let because = $state('');
	const missing = $derived(
		(stops.length > 0 && because.trim() === '') ||
			inStage.some((cut) => answerOf(cut) === 'left' && !(whys[cut.id] ?? '').trim())
	);
	const answerNames = { done: 'Cut', later: 'Not now', left: 'Leave it' } as const;
</script>

<Sheet
	bind:open
	title="Stage {roman(stage === 99 ? 0 : stage)}: what was cut"
	description="The record holds what was really done, not what was planned."
	wide
>
	<Caution title="Tools and hands"
		>Clean, sharp cut to sound wood, face down or outward; never torn. Eyes, gloves, and a mask for dust. Big
		roots of standing trees: a qualified arborist.</Caution
	>
	<form
		method="POST"
		action="?/cuts"
		class="mt-3 flex flex-col gap-3"
		use:enhance={act({
			done: () => {
				open = false;
				answers = {};
				whys = {};
				because = '';
			}
		})}
	>
		<input type="hidden" name="planVersion" value={roots.planVersion} />
		<input
			type="hidden"
			name="done"
			value={JSON.stringify(
				inStage.filter((cut) => answerOf(cut) === 'done').map(({ id }) => ({ id, atMm: null, note: '' }))
			)}
		/>
		<input
			type="hidden"
			name="left"
			value={JSON.stringify(
				inStage
					.filter((cut) => answerOf(cut) === 'left')
					.map((cut) => ({ id: cut.id, why: whys[cut.id] ?? '' }))
			)}
		/>
		<ul class="divide-y border-y">
			{#each inStage as cut (cut.id)}
				{@const segment = roots.map.segments.find((candidate) => candidate.id === cut.segmentId)}
				{#if segment}
					<li class="py-2">
						<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
							<span class="w-8 font-display text-lg font-bold text-oxide"
								>{stage === 0 ? roots.cutNumbers.get(segment.id) : roman(stage)}</span
							>
							<span class="min-w-0 flex-1 basis-48">
								<strong>{format().clock(roots.clock(segment))}</strong>, {format().measure(
									segment.diameterStartMm,
									'mm'
								)}
								{segment.rootClass}
								<span class="block text-sm text-slate">
									{format().inWords(cut.reason) ||
										segment.flaws.map((flaw) => rootFlawNames[flaw]).join(', ') ||
										'chosen by hand'};
									{cut.atMm > 0
										? `back to sound wood at ${format().measure(cut.atMm, 'mm')}`
										: 'at its base'}; costs {format().percent(
										roots.standing.ledger.cutCost.get(segment.id) ?? 0,
										1
									)}
								</span>
							</span>
							<span
								class="flex gap-1"
								role="group"
								aria-label="Root at {format().clock(roots.clock(segment))}"
							>
								{#each ['done', 'later', 'left'] as const as answer (answer)}
									<button
										type="button"
										class={[
											'min-h-11 rounded-md border px-3 font-semibold',
											answerOf(cut) === answer ? 'border-ink bg-ink text-paper' : 'border-edge'
										]}
										aria-pressed={answerOf(cut) === answer}
										onclick={() => (answers[cut.id] = answer)}>{answerNames[answer]}</button
									>
								{/each}
							</span>
						</div>
						{#if answerOf(cut) === 'left'}
							<label class="mt-2 block text-sm font-semibold"
								>Why it is left<input
									class="input mt-1 font-normal"
									maxlength="300"
									bind:value={whys[cut.id]}
								/></label
							>
						{/if}
					</li>
				{/if}
			{/each}
		</ul>
		<Wounds />
		<CutStops {stops} bind:because />
		<div class="flex flex-wrap items-end justify-between gap-3">
			<DateField name="on" label="Done on" value={doneOn} max={today} oninput={(day) => (doneOn = day)} />
			<p class="text-lg">
				<strong>{format().percent(spent)}</strong> of living root, {format().percent(
					roots.standing.ledger.stages[stage]?.allowed ?? 0
				)} allowed
			</p>
			<Button type="submit" tone="solid" disabled={missing || roots.saveState !== 'saved'}
				>Keep the record</Button
			>
		</div>
	</form>
</Sheet>
