<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { counted } from '$core/text/plural';
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/maths/circular';
	import { mixCautions } from '$core/replant/mixes/mixes';
	import { potVerdictNames } from '$core/replant/pots/rank';
	import { floorOf, potShapeNames } from '$core/replant/pots/volume';
	import { markOf } from '$core/values/values';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import FitDrawing from './FitDrawing.svelte';
	import KitTable from './KitTable.svelte';
	import PotDrawing from './PotDrawing.svelte';
	import type { ReplantState } from './replant-state.svelte';

	/** What follows from the planting as it is planned. */
	interface Props {
		state: ReplantState;
	}
	let { state: planning }: Props = $props();
	const format = useFormat();
	const values = $derived(planning.of.values);
	const records = $derived(planning.of.records);
	const mates = $derived(records.mates);
	const mm = (value: number): string => format().measure(value, 'mm');
	const L = (litres: number): string => format().measure(litres, 'L');
	const kg = (value: number): string => format().measure(value, 'kg', 0);
	const at = (azimuthDeg: number): string =>
		`${format().clock(clockOf(azimuthDeg, 'container')).replace(':00', '')} o’clock`;
	const fit = $derived(planning.fit);
	const amounts = $derived(planning.amounts);
	const judged = $derived(planning.judged);
	const count = $derived(planning.count);
	const tilt = $derived(records.plan?.setting ?? null);
	const fitProblems = $derived([
		...(fit.shaveEvenlyMm > 0
			? [
					`It goes through the wall by ${mm(fit.shaveEvenlyMm)} at ${at(fit.tightest.azimuthDeg)}, ${mm(fit.tightest.heightMm)} over the floor: shave ${mm(fit.shaveEvenlyMm)} all round, or ${mm(fit.shaveWorstMm)} there; or a wider pot.`
				]
			: []),
		...(fit.shaveUnderMm > 0.5
			? [`It stands ${mm(fit.shaveUnderMm)} too high: a deeper pot, or shave that much from under it.`]
			: [])
	]);
	const floor = $derived(floorOf(planning.pot));
</script>

<PotDrawing
	pot={planning.pot}
	ballDiameterMm={planning.ballDiameterMm}
	ballDepthMm={planning.ballDepthMm}
	coarseLayerMm={planning.coarseLayerMm}
	topLayerMm={planning.topLayerMm}
	headspaceMm={planning.headspaceMm}
	flareOverRimMm={planning.seat.flareOverRimMm}
	moundMm={planning.seat.moundMm}
	tight={!fit.fits}
/>
<section aria-label="Fit" class="text-sm">
	{#if planning.lengthsMeasured}
		<div class="mb-1">
			<Choice
				label="Ball as"
				hideLabel
				size="small"
				bind:value={planning.ballFrom}
				options={[
					{ value: 'sizes', label: 'its sizes' },
					{ value: 'map', label: 'the roots mapped' }
				]}
			/>
		</div>
	{/if}
	<FitDrawing {fit} pot={planning.pot} />
	<p>
		{fit.fits ? 'It goes in: ' : 'It does not go in: '}<strong>{mm(fit.tightest.clearanceMm)}</strong> of room
		at the tightest, {at(fit.tightest.azimuthDeg)}{fit.shift.mm >= 2
			? `, moved ${mm(fit.shift.mm)} toward ${at(fit.shift.azimuthDeg)}`
			: ''}{tilt && tilt.thisTimeDeg >= 1
			? `, tilted ${Math.round(tilt.thisTimeDeg)}° toward ${at(tilt.tiltTowardDeg)}`
			: ''}; {mm(Math.max(0, fit.underMm))} under it.
	</p>
	<p class="mt-1">
		<strong class={judged.verdict === 'over' || judged.verdict === 'no-fit' ? 'text-oxide' : ''}
			>{atStart(potVerdictNames[judged.verdict])}</strong
		>{Number.isFinite(judged.dryDownDays)
			? `: about ${counted(format().number(judged.dryDownDays, judged.dryDownDays < 10 ? 1 : 0), 'day')} from drained to the next water, ${L(judged.waterL)} to draw`
			: ': nothing draws on it now'}. {format().percent(judged.unrooted)} of the fill holds no roots yet.{mates.length >
		0
			? ` ${mates.map(({ tree }) => tree.tag).join(', ')} in the same pot ${mates.length === 1 ? 'draws' : 'draw'} on it too.`
			: ''}
	</p>
	<p class="mt-1 mb-3">
		Wet, about {kg(judged.wetKg)}{#if judged.tipsMs === null}. At what wind it tips is not known: the height
			of the tree is not taken.{:else};
			<Workings
				label="Wind that tips it, standing free"
				formula="√(2 m g b/2 ÷ (ρ C A h))"
				lines={[
					{ label: 'mass, wet', value: kg(judged.wetKg) },
					{ label: 'narrowest base', value: mm(Math.min(floor.bottomLengthMm, floor.bottomWidthMm)) },
					{
						label: 'crown, of the height squared',
						value: `${values['pot.crownShare']}²`,
						mark: markOf('pot.crownShare')
					},
					{
						label: 'its middle, of the height',
						value: String(values['pot.crownMiddle']),
						mark: markOf('pot.crownMiddle')
					},
					{ label: 'drag', value: String(values['pot.crownDrag']), mark: markOf('pot.crownDrag') }
				]}
				changes="A wider base, more mass low down, or tying it to something. Gusts are stronger than the wind that is forecast."
				>tips at {format().measure(judged.tipsMs, 'm/s')} of wind</Workings
			> unless it is tied.{/if}
	</p>
</section>
<p class="font-display text-3xl font-bold">
	<Workings
		label="Mix to have ready{count > 1 ? ` for ${count}` : ''}"
		formula="({L(amounts.mainL)} + {L(amounts.moundL)}) × (1 + {values['pot.settling']}){count > 1
			? ` × ${count}`
			: ''}"
		lines={[
			{ label: 'pot, to the rim', value: L(amounts.potL) },
			{
				label: 'ball',
				value: L(amounts.ballL),
				mark: `${values['pot.ballShape']} of its cylinder: ${markOf('pot.ballShape')}`
			},
			{ label: 'coarse layer', value: L(amounts.coarseL) },
			{ label: 'top layer', value: L(amounts.topL) },
			{ label: 'main mix, in the pot', value: L(amounts.mainL) },
			{ label: 'mound', value: L(amounts.moundL), mark: markOf('seat.moundCover') },
			{
				label: 'extra for settling',
				value: format().percent(values['pot.settling']),
				mark: markOf('pot.settling')
			}
		]}
		changes="Fines settle between coarse grains, so the mix is less than the sum of its parts."
	>
		{L(amounts.readyMainL * count)}
	</Workings>
</p>
<p class="text-sm text-slate">
	of mix{planning.filledFor
		? `: the pot was filled for ${planning.filledFor} that day`
		: count > 1
			? ` for ${count} pots, ${L(amounts.readyMainL)} each`
			: ''}
</p>
<table class="mt-3 w-full text-sm">
	<thead
		><tr class="border-b text-left text-slate"
			><th class="py-1 font-normal">layer</th><th class="py-1 text-right font-normal">one pot</th
			>{#if count > 1}<th class="py-1 text-right font-normal">all {count}</th>{/if}</tr
		></thead
	>
	<tbody class="divide-y">
		{#each [['mound', amounts.moundL], ['top', amounts.topL], ['main mix', amounts.mainL], ['coarse', amounts.coarseL]] as const as [name, litres] (name)}
			<tr
				><th class="py-1 text-left font-normal">{name}</th><td class="py-1 text-right">{L(litres)}</td
				>{#if count > 1}<td class="py-1 text-right">{L(litres * count)}</td>{/if}</tr
			>
		{/each}
	</tbody>
</table>
<h3 class="mt-4 text-sm">To have ready{count > 1 ? ` for all ${count}` : ''}</h3>
<KitTable lines={planning.kit.materials} />
{#if planning.kit.pots && planning.stockPot && planning.kit.pots.short > 0}
	<p class="mt-1 text-sm text-oxide">
		{planning.kit.pots.have} of {planning.kit.pots.need}
		{planning.stockPot.name} at hand: {planning.kit.pots.short} missing.
	</p>
{/if}
<p class="mt-3 text-sm">
	Drained, it holds <strong>{format().percent(planning.water.containerCapacity)}</strong> water and
	<strong class={planning.water.airSpace < values['mix.airFrom'] ? 'text-oxide' : ''}
		>{format().percent(planning.water.airSpace)}</strong
	>
	air in this pot{planning.water.airSpace < values['mix.airFrom'] ? ', too little for roots' : ''}{planning
		.mix.measured
		? ', as measured'
		: ''}.
	<a class="chalk" href={resolve('/trees/[id]/replant/mix', { id: records.tree.id })}
		>By depth, and other mixes</a
	>
</p>
{#each [...amounts.problems, ...fitProblems] as problem (problem)}
	<div class="mt-2"><Caution title="Does not fit">{format().inWords(problem)}</Caution></div>
{/each}
{#if mixCautions(planning.mix.parts)}
	<div class="mt-3"><Caution title="Dust and compost">{mixCautions(planning.mix.parts)}</Caution></div>
{/if}
{#if records.plantings.length > 0}
	<h3 class="mt-5 text-base">Before</h3>
	<ul class="divide-y border-y text-sm">
		{#each [...records.plantings].reverse() as planting (planting.id)}
			<li class="py-1.5">
				{format().date(planting.plantedOn)}: {potShapeNames[planting.pot.shape]}, {format().measure(
					planting.pot.topLengthMm,
					'mm'
				)}, {planting.mix.name}{planting.note ? `. ${planting.note}` : ''}
			</li>
		{/each}
	</ul>
{/if}
