<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import { soakNames, type Lift } from '$core/replant/lifting/lift';
	import { endSaid, leftOf } from '$core/replant/lifting/lift-tasks';
	import type { Task } from '$core/vocabulary/task';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';

	/** Lifts that were done: planned against what came out of the ground. */
	interface Props {
		lifts: Lift[];
		/** What it left to be done, and what became of that. */
		tasks: readonly Task[];
		/** Asks to correct the log of one; null where the case is closed. */
		correct: ((lift: Lift) => void) | null;
	}
	let { lifts, tasks, correct }: Props = $props();
	const format = useFormat();
	const mm = (value: number): string => format().measure(value, 'mm');
</script>

{#if lifts.length > 0}
	<section aria-labelledby="done-title" class="mt-6 border-t pt-4">
		<h3 id="done-title" class="text-lg">Lifted</h3>
		<ul class="mt-1 divide-y border-y">
			{#each lifts as lift (lift.id)}
				{@const { log, version, ballDiameterMm, ballDepthMm } = lift}
				{#if log}
					{@const left = leftOf(log, tasks)}
					<li class="py-2">
						<strong>{format().date(log.liftedOn)}</strong>: ball {mm(log.ballDiameterMm)} across, {mm(
							log.ballDepthMm
						)} deep{version - (log.corrected ?? 0) > 1
							? ` (planned ${mm(ballDiameterMm)} and ${mm(ballDepthMm)})`
							: ''}{log.massKg === null ? '' : `, ${format().measure(log.massKg, 'kg')} weighed`}; {log.outMinutes ===
						null
							? 'how long out of the ground nobody noted'
							: `${format().number(log.outMinutes)} minutes out of the ground`}{log.soak === null
							? ''
							: `, ${soakNames[log.soak]}`}{log.soakMinutes > 0
							? ` for ${log.soakMinutes} minutes`
							: ''}{left.hole === 'open'
							? '; the hole is not filled yet'
							: left.filledOn
								? `; the hole was filled on ${format().day(left.filledOn)}`
								: ''}.
						{#if log.cutRoots.length > 0}
							<span class="block text-sm text-slate"
								>Cut: {log.cutRoots
									.map(
										(root) =>
											`${mm(root.diameterMm)} at ${format().clock(clockOf(root.azimuthDeg, 'ground'))} ${format().inWords(endSaid(root.how, left.cleanOn))}`
									)
									.join('; ')}.</span
							>
						{/if}
						{#if log.note}<span class="block text-sm text-slate">{log.note}</span>{/if}
						{#if log.corrected}<span class="text-sm text-slate">corrected since</span>{/if}
						{#if correct}<Button
								tone="quiet"
								size="small"
								aria-label="Correct the log of {format().date(log.liftedOn)}"
								onclick={() => correct(lift)}>Correct the log</Button
							>{/if}
					</li>
				{/if}
			{/each}
		</ul>
	</section>
{/if}
