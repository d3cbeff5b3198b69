<script lang="ts">
	import { carryOver, sessionsOf } from '$core/roots/plan/done';
	import { roman } from '$core/roots/plan/plan';
	import { woundEvidence, woundTreatmentNames } from '$core/roots/plan/wound';
	import { useFormat } from '$ui/format';
	import type { RootsState } from './roots-state.svelte';

	/** What was cut against what was planned, and what is carried over. */
	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	const sessions = $derived(sessionsOf(roots.map, roots.plan, roots.options.values).reverse());
	const carried = $derived(carryOver(roots.map, roots.plan, roots.gate));
	function firstOf({ first, fromOn }: (typeof carried)[number]): string {
		const day = fromOn !== null && fromOn > roots.options.today ? `its day, ${format().date(fromOn)}` : '';
		const both = [first, day].filter(Boolean).join(', and ');
		return both ? `First ${both}.` : 'It may be cut now.';
	}
	const nameOf = (segmentId: string): string => {
		const segment = roots.map.segments.find((candidate) => candidate.id === segmentId);
		return segment
			? `${format().clock(roots.clock(segment))}, ${format().measure(segment.diameterStartMm, 'mm')}`
			: '';
	};
</script>

{#if sessions.length > 0}
	<section aria-labelledby="done-title" class="mt-6">
		<h2 id="done-title" class="text-base">What was cut</h2>
		{#each sessions as session (session.on)}
			{@const used = [...new Set(session.cuts.flatMap(({ cut }) => cut.treatments))]}
			<div class="mt-1 border-t pt-1.5 text-sm">
				<p>
					<strong>{format().date(session.on)}</strong>, stage {session.stages.map(roman).join(' and ')}:
					{session.cuts.length} of {session.plannedCount} planned,
					<strong>{format().percent(session.livingShare, 1)}</strong> of the living root, planned {format().percent(
						session.plannedShare,
						1
					)}
				</p>
				{#if session.because}<p>Against what stood against it: {session.because}</p>{/if}
				<ul class="mt-0.5">
					{#each session.cuts as { cut, segment, livingShare } (cut.id)}
						<li class="flex flex-wrap gap-x-2 py-0.5">
							<span class="w-28 shrink-0">{nameOf(segment.id)}</span>
							<span class="text-slate">
								{cut.atMm === 0
									? 'at its base'
									: `${format().measure(cut.atMm, 'mm')} out`}{cut.plannedAtMm === null
									? ''
									: `, planned ${cut.plannedAtMm === 0 ? 'at its base' : `${format().measure(cut.plannedAtMm, 'mm')} out`}`},
								{format().percent(livingShare, 1)}{cut.note ? `; ${cut.note}` : ''}
							</span>
						</li>
					{/each}
				</ul>
				<p class="text-slate">
					{used.length === 0
						? 'Nothing was put on the wounds but a clean cut.'
						: `On the wounds: ${used.map((name) => `${woundTreatmentNames[name]} (evidence ${woundEvidence[name]})`).join('; ')}.`}
				</p>
			</div>
		{/each}
	</section>
{/if}
{#if carried.length > 0}
	<section aria-labelledby="carried-title" class="mt-5">
		<h2 id="carried-title" class="text-base">Carried over</h2>
		<ul class="mt-1 divide-y border-t text-sm">
			{#each carried as entry (entry.segmentId)}
				<li class="py-1">
					<strong>{nameOf(entry.segmentId)}</strong>: {format().inWords(entry.why)}.
					<span class="text-slate">{firstOf(entry)}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}
