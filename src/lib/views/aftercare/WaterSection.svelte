<script lang="ts">
	import { counted } from '$core/text/plural';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { daysBetween } from '$core/maths/calendar';
	import { holds } from '$core/examine/diagnosis/open-causes';
	import { midSentence } from '$core/text/mid-sentence';
	import type { Urgent } from '$core/tree/urgent';
	import type { PotMateRecords } from '$core/tree/case';
	import type { TreeWater } from '$core/tree/tree-water';
	import { functionBy, weighingAdvice } from '$core/aftercare/water/root-function';
	import { wateringWayNames, type Watering } from '$core/aftercare/water/watering';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Droplet from '@lucide/svelte/icons/droplet';
	import { courseKnown } from '$core/aftercare/water/pot-state';
	import DrynessChart, { DRAWN_DAYS } from './DrynessChart.svelte';
	import FeltSheet from './FeltSheet.svelte';
	import FunctionChart from './FunctionChart.svelte';
	import WateringSheet from './WateringSheet.svelte';

	/** When and how it is watered next, from weight and weather, and what its roots do. */
	interface Props {
		treeId: string;
		/** 1 is a tree; of more, what is poured is for each. */
		plantCount: number;
		water: TreeWater;
		/** What the last look says to act on now. */
		urgent: Urgent | null;
		/** What presses of a mate in its pot and wants less water. */
		mateLess: { tag: string; subject: string; chance: number } | null;
		/** The first water after its work stands on the list, in its days. */
		firstWater: boolean;
		/** Days from full to the dryness at which it is watered, without rain. */
		dryDownDays: number | null;
		waterings: Watering[];
		/** Its pot is too heavy for a scale. */
		tooHeavy: boolean;
		/** Trees in the same pot: what is done to one pot is done to all of them. */
		mates: readonly PotMateRecords[];
		values: Values;
		/** Dryness at which its kind is watered. */
		trigger: number;
		/** A fall of its root function against its neighbours, in words; empty where there is none. */
		fall: string;
		today: string;
		refused?: Refused | null;
	}
	let {
		treeId,
		plantCount,
		water,
		urgent,
		mateLess,
		firstWater,
		dryDownDays,
		waterings,
		tooHeavy,
		mates,
		values,
		trigger,
		fall,
		today,
		refused
	}: Props = $props();
	const format = useFormat();
	let writing = $state(false);
	let changing = $state<Watering | null>(null);
	let feeling = $state(false);
	const next = $derived(water.next);
	const now = $derived(water.course.at(-1) ?? null);
	/** A look that presses, at it or at what stands in its pot, asks for less water. */
	const lessWater = $derived(urgent?.water === 'less' || mateLess !== null);
	const L = (litres: number): string => format().measure(litres, 'L', litres < 1 ? 2 : 1);
	/** Somebody poured, weighed, felt or probed it lately; else nothing is said of how wet it stands. */
	const known = $derived(
		water.knownOn !== null && daysBetween(water.knownOn, today) <= values['decision.waterKnownDays']
	);
	/** Its course as far as anybody knew of it, in the weeks that are drawn. */
	const drawn = $derived(
		courseKnown(water.state, water.knownOn, values).filter(({ on }) => daysBetween(on, today) < DRAWN_DAYS)
	);
	const resting = $derived(water.restUntil !== null && water.restUntil > today ? water.restUntil : null);
	const rests: Record<TreeWater['from'], string> = {
		watering: 'since it was last watered',
		weighing: 'corrected by the last weighing',
		scale: 'corrected by the scale under it',
		probe: 'corrected by a probe',
		felt: 'corrected by how it felt',
		assumed: 'nobody wrote down what tells how dry it is'
	};
	const recent = $derived(
		[
			...waterings.map((one) => ({ ...one, by: '' })),
			...mates.flatMap((mate) => mate.waterings.map((one) => ({ ...one, by: mate.tree.tag })))
		]
			.sort((a, b) => b.wateredOn.localeCompare(a.wateredOn))
			.slice(0, 6)
	);
	const advice = $derived(
		weighingAdvice(
			{
				pairs: water.pairs,
				told: water.told,
				// A weight of before it was set anew is that of another pot.
				begun:
					recent[0] !== undefined && recent[0].wateredOn >= water.standsSince && recent[0].afterKg !== null,
				tooHeavy,
				rainUnmeasured: water.rainUnmeasured
			},
			now,
			today,
			values
		)
	);
</script>

<section aria-labelledby="water-title" class="border-b pb-6">
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h2 id="water-title" class="text-lg">Water</h2>
		<span class="flex flex-wrap gap-2">
			<Button onclick={() => (feeling = true)}>Felt or probed</Button>
			<Button
				tone="solid"
				onclick={() => {
					changing = null;
					writing = true;
				}}><Droplet size={18} /> Watered or weighed</Button
			>
		</span>
	</div>
	{#if mates.length > 0}
		<p class="mt-1">
			One pot with {#each mates as mate, i (mate.tree.id)}{i > 0 ? ', ' : ''}<a
					class="chalk"
					href={resolve('/trees/[id]/aftercare', { id: mate.tree.id })}>{mate.tree.tag} {mate.tree.name}</a
				>{/each}: what is poured, weighed or felt here counts for {mates.length === 1
				? 'both'
				: 'all of them'}.
			{#if mateLess && urgent?.water !== 'less'}
				Of {mateLess.tag}, {midSentence(holds(mateLess))}: the pot is watered less, and only where it is dry.
			{/if}
		</p>
	{/if}
	<p class="mt-1 font-display text-2xl font-bold">
		{#if !known && resting}
			In its dry rest: first water from {format().day(resting, today)}
		{:else if !known && water.restUntil && !lessWater}
			Its dry rest is over: give it its first water
		{:else if !known && firstWater && !lessWater}
			Give it its first water
		{:else if !known}
			Not known: {tooHeavy ? 'feel or probe it' : 'lift it or feel it'} now
		{:else if next.on === null}
			{next.earliest
				? 'No water yet, as its roots are reckoned'
				: 'No water needed as far as the weather is known'}
		{:else if next.on <= today && lessWater}
			Feel it a finger deep before any water
		{:else if next.rainPerhaps}
			Feel it first; if it is dry, water it
		{:else if next.on <= today}
			Water it now
		{:else if lessWater}
			Feel it about {format().day(next.on, today)}, before any water
		{:else}
			Next water about {format().day(next.on, today)}
		{/if}
	</p>
	<p class="mt-1">
		{#if !known}
			{water.knownOn === null
				? `Nobody wrote down a watering or a feel of it since ${format().day(water.standsSince, today)}, nor a weight that tells how dry it is.`
				: `It was last known ${format().day(water.knownOn, today)}, when it was poured, weighed or felt.`}
			{water.weighedOn === null
				? ''
				: `The weight of ${format().day(water.weighedOn, today)} has none after the last water to be set against: it tells no dryness.`}
			{water.restUntil
				? ''
				: next.earliest && next.earliest > today
					? `It may be dry from ${format().day(next.earliest, today)} on.`
					: 'It may be dry already.'}
			What is reckoned since:
		{:else if next.earliest && next.latest && next.earliest !== next.latest}
			Between {format().day(next.earliest, today)} and {format().day(next.latest, today)}, by what is known of
			its roots.
		{:else if next.on !== null && next.earliest && !next.latest}
			From {format().day(next.earliest, today)} on, or much later: its roots are hardly known.
		{/if}
		<Workings
			label="Dryness of the pot"
			formula="1 − water left ÷ water when drained"
			lines={[
				{ label: 'rooted mix holds', value: L(water.stores.rootedMostL), mark: markOf('water.ballHeld') },
				{
					label: 'mix without roots',
					value: L(water.stores.unrootedMostL),
					mark: markOf('water.insideDrawn')
				},
				{
					label: 'a full crown over ET₀',
					value: `× ${values['water.crownFactor']}`,
					mark: markOf('water.crownFactor')
				},
				{
					label: 'open mix over ET₀',
					value: `× ${values['water.surfaceFactor']}`,
					mark: markOf('water.surfaceFactor')
				},
				{ label: 'root function', value: format().percent(now?.phi ?? 1) }
			]}
			changes="Weather, leaves, and the next weighing: it corrects all of this."
			><strong>{known ? `${format().percent(next.dryness)} dry` : 'how that comes about'}</strong></Workings
		>{known ? `, ${rests[water.from]}` : ''}. {known && next.litres >= 0.05 && !lessWater
			? `Then ${L(next.litres)}${plantCount > 1 ? ' each' : ''}, ${wateringWayNames[next.way]}.`
			: ''}
		{known ? format().inWords(next.reason, today) : ''}
		{dryDownDays === null
			? ''
			: Number.isFinite(dryDownDays)
				? `From full to its next water takes about ${counted(format().number(dryDownDays, dryDownDays < 10 ? 1 : 0), 'day')} without rain.`
				: 'Nothing draws on it now.'}
	</p>
	{#if fall}<div class="mt-2"><Caution title="Its roots">{format().inWords(fall, today)}</Caution></div>{/if}
	{#if !water.potKnown}
		<p class="mt-2 border-l-4 border-ochre py-1 pl-3 text-sm">
			Its pot and mix are assumed from what is known of it: <a
				class="chalk"
				href={resolve('/trees/[id]/replant', { id: treeId })}>write down what it stands in</a
			>.
		</p>
	{/if}
	{#each water.alarms as alarm (alarm.text)}
		<div class="mt-2"><Caution title="Its water">{format().inWords(alarm.text, today)}</Caution></div>
	{/each}
	<div class="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[minmax(0,1fr)_15rem]">
		<div>
			{#if water.knownOn === null}
				<p class="text-slate">
					From the first watering, weight or feel on, its course is drawn here: nobody knows where it begins.
				</p>
			{:else if drawn.length === 0}
				<p class="text-slate">
					Its course is drawn again from the next watering, weight or feel on: what it was until then, nobody
					knows.
				</p>
			{:else}
				<h3 class="text-sm">How dry it is</h3>
				<DrynessChart
					days={drawn}
					ahead={known ? next.days.filter((day) => day.on > today) : []}
					{trigger}
					{today}
					label={known
						? `Dryness of the pot over the last weeks and ahead: now ${format().percent(next.dryness)}, water at ${format().percent(trigger)}`
						: `Dryness of the pot over the last weeks: now not known, water at ${format().percent(trigger)}`}
				/>
			{/if}
			{#if water.course.length > 1}
				<h3 class="mt-3 text-sm">How much its roots drink</h3>
				<FunctionChart course={water.course} {today} />
			{/if}
		</div>
		<div class="text-sm">
			<p>
				Root function <strong>{now ? format().percent(now.phi) : 'not known'}</strong>{now
					? `, ${format().percent(now.low)} to ${format().percent(now.high)}`
					: ''}
				<span class="text-slate">({format().percent(1)} = before the damage; {functionBy(water)})</span>
			</p>
			{#if advice}<p class="mt-1 text-slate">{format().inWords(advice, today)}</p>{/if}
			{#if recent.length > 0}
				<ul class="mt-2 divide-y border-y" aria-label="Last waterings">
					{#each recent as one (one.id)}
						<li class="py-1">
							{format().day(one.wateredOn, today)}{one.litres === null
								? ''
								: `: ${L(one.litres)}`}{one.beforeKg === null
								? ''
								: `, ${format().measure(one.beforeKg, 'kg')}`}{one.afterKg === null
								? ''
								: ` → ${format().measure(one.afterKg, 'kg')}`}{one.by === ''
								? ''
								: `, written down for ${one.by}`}
							{#if one.by === ''}
								<button
									type="button"
									class="chalk text-slate"
									aria-label="Change the watering of {format().day(one.wateredOn, today)}"
									onclick={() => {
										changing = one;
										writing = true;
									}}>Change</button
								>
								<form method="POST" action="?/unwater" class="inline" use:enhance={act()}>
									<input type="hidden" name="wateringId" value={one.id} />
									<input type="hidden" name="version" value={one.version} />
									<button
										class="chalk text-slate"
										aria-label="Take out the watering of {format().day(one.wateredOn, today)}"
										>Take out</button
									>
								</form>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
			<p class="mt-2"><a class="chalk" href={resolve('/yard/weather')}>Weather behind it</a></p>
		</div>
	</div>
</section>

<FeltSheet bind:open={feeling} {today} {refused} />
{#key changing?.id}
	<WateringSheet
		bind:open={writing}
		{treeId}
		litres={known && !lessWater ? next.litres : 0}
		way={next.way}
		weighed
		{today}
		corrects={changing}
		{refused}
	/>
{/key}
