<script lang="ts">
	import { resolve } from '$app/paths';
	import { groundSays, groundSayings } from '$core/tree/ground-says';
	import type { TreeGroundWater } from '$core/tree/ground-water';
	import { wateringWayNames, type Watering } from '$core/aftercare/water/watering';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Workings from '$ui/Workings.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Droplet from '@lucide/svelte/icons/droplet';
	import DrynessChart from './DrynessChart.svelte';
	import FeltSheet from './FeltSheet.svelte';
	import WateringSheet from './WateringSheet.svelte';

	/** Water of a tree in the ground: how dry its ball or its root zone is, and when it needs a soak. */
	interface Props {
		treeId: string;
		/** 1 is a tree; of more, what is poured is for each. */
		plantCount: number;
		water: TreeGroundWater;
		waterings: Watering[];
		/** What its last look says to act on asks for less water. */
		lessWater: boolean;
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { treeId, plantCount, water, waterings, lessWater, values, today, refused }: Props = $props();
	const format = useFormat();
	let writing = $state(false);
	let feeling = $state(false);
	const next = $derived(water.next);
	const now = $derived(water.course.at(-1) ?? null);
	const says = $derived(groundSays(water, lessWater, today, values));
	/** Of too few of the last days the rain was measured. */
	const littleRain = $derived(water.rainKnown < values['water.rainKnown']);
	/** Of a grown tree rain is nearly all its water: where nobody measures it, nor waters or feels, nothing is known. */
	const unmeasured = $derived(!water.known);
	/** What it is without rain that nobody measured, and not what it is. */
	const reckoned = $derived(unmeasured || says.saying === 'perhaps');
	/** What was last felt or probed of it. */
	const seen = $derived(
		water.days.findLast((day) => day.on <= today && day.seen.length > 0)?.seen.at(-1) ?? null
	);
	const mm = (value: number): string => format().measure(value, 'mm', 0);
	const L = (litres: number): string => format().measure(litres, 'L', 0);
	const where = $derived(water.how === 'planted' ? 'ball' : 'root zone');
	const recent = $derived([...waterings].reverse().slice(0, 6));
</script>

<section aria-labelledby="water-title" class="border-b pb-6">
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h2 id="water-title" class="text-lg">Water in the ground</h2>
		<div class="flex flex-wrap gap-2">
			<Button onclick={() => (feeling = true)}>Felt or probed</Button>
			<Button tone="solid" onclick={() => (writing = true)}><Droplet size={18} /> Watered</Button>
		</div>
	</div>
	<p class="mt-1 font-display text-2xl font-bold">
		{says.saying === 'later'
			? `Next water about ${format().day(next.on ?? today, today)}${lessWater ? ', felt before' : ''}`
			: groundSayings[says.saying]}
	</p>
	{#if says.saying === 'first'}
		<p class="mt-1">
			It was set on {format().day(water.plantedOn ?? today, today)}, and nobody wrote down that it was watered
			in. Soil and roots are to meet, without air between them.
		</p>
	{:else}
		<p class="mt-1">
			{reckoned ? 'Had no rain fallen but what was measured, it would be ' : ''}<Workings
				label="Dryness of the {where}"
				formula="1 − water left ÷ water between field capacity and wilting"
				lines={[
					{
						label: `the ${where} holds`,
						value: mm(water.stores.ballMm),
						mark: water.how === 'planted' ? markOf('water.ballHeld') : markOf('water.lawnDepthMm')
					},
					...(water.how === 'planted'
						? [{ label: 'its backfill, over the ball', value: mm(water.stores.backfillMm) }]
						: []),
					{
						label: 'the soil holds for roots',
						value: format().percent(water.held),
						...(water.heldFelt ? {} : { mark: markOf('water.groundHeld') })
					},
					{ label: 'ground counted', value: format().measure(water.stores.areaM2, 'm²', 1) },
					{ label: 'crown over it', value: `× ${format().number(water.stores.crownRatio, 2)}` },
					{
						label: 'drawn freely',
						value: format().percent(values['water.groundFree']),
						mark: markOf('water.groundFree')
					},
					{ label: 'root function', value: format().percent(now?.phi ?? 1) }
				]}
				changes={water.heldFelt
					? 'Rain, leaves, and what is poured.'
					: 'Feel the texture under Soil: how much it holds depends on it.'}
				><strong>{format().percent(water.now?.dryness ?? 0)} dry</strong></Workings
			>{!reckoned && water.now && water.now.stress < 0.995
				? `; it drinks ${format().percent(water.now.stress)} of what it would`
				: ''}. {#if says.amounts}{water.how === 'planted'
					? `Then ${L(next.litres)}${plantCount > 1 ? ' each' : ''}, ${wateringWayNames['all-round']}, over the ball and a little beyond.`
					: `Then ${mm(next.mm)} over the ground under the crown, slowly, in one evening.`}{/if}
		</p>
	{/if}
	{#if seen && !unmeasured}
		<p class="mt-1 text-sm">
			{seen.how === 'felt' ? 'Felt' : 'Probed'} on {format().day(seen.on, today)}: {format().percent(
				seen.dryness
			)} dry, give or take {format().percent(seen.sd)}. It is reckoned on from there.
		</p>
	{/if}
	{#if littleRain && says.saying !== 'first'}
		<div class="mt-2">
			<Caution title="Rain"
				>Weather was measured on {format().percent(water.rainKnown)} of the last two months here; on the other days
				no rain is counted, so it looks drier than it is. Type the rain, or have a station nearer.</Caution
			>
		</div>
	{/if}
	{#if water.tradeL}
		<p class="mt-1 text-sm text-slate">
			By its trunk, {L(water.tradeL[0])} to {L(water.tradeL[1])} at each watering are usual: in leaf daily at first,
			then spaced out, leafless only where the ground dries (memory: university extension){says.saying ===
			'first'
				? ''
				: '; the balance above counts rain and the roots it has, and may ask for less'}.
		</p>
	{/if}
	<div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_15rem]">
		{#if unmeasured}
			<p class="text-slate">
				{says.saying === 'first'
					? 'Its course is drawn from its first water on'
					: 'Its course is drawn where the rain is measured, and from the day on which it is felt or watered'}:
				nobody knows how dry it is.
			</p>
		{:else}
			<DrynessChart
				days={water.days
					.filter((day) => day.on <= today && day.on >= (water.knownFrom ?? ''))
					.map((day) => ({ ...day, poured: waterings.some((one) => one.wateredOn === day.on) }))}
				ahead={water.days.filter((day) => day.on > today)}
				rain
				trigger={values['water.groundFree']}
				{today}
				label="Dryness of the {where} over the last weeks and ahead: now {format().percent(
					water.now?.dryness ?? 0
				)}"
			/>
		{/if}
		<div class="text-sm">
			<p>
				Root function <strong>{now ? format().percent(now.phi) : 'not known'}</strong>{now
					? `, ${format().percent(now.low)} to ${format().percent(Math.min(1, now.high))}`
					: ''}
				<span class="text-slate">(expected from what was lost; nothing weighs a tree in the ground)</span>
			</p>
			{#if recent.length > 0}
				<ul class="mt-2 divide-y border-y" aria-label="Last waterings">
					{#each recent as one (one.id)}
						<li class="py-1">
							{format().day(one.wateredOn, today)}{one.litres === null ? '' : `: ${L(one.litres)}`}
						</li>
					{/each}
				</ul>
			{/if}
			<p class="mt-2"><a class="chalk" href={resolve('/yard/weather')}>Weather behind it</a></p>
		</div>
	</div>
</section>
<FeltSheet bind:open={feeling} inGround {today} {refused} />
<WateringSheet
	bind:open={writing}
	{treeId}
	litres={says.amounts ? next.litres : 0}
	way="all-round"
	weighed={false}
	{today}
	{refused}
/>
