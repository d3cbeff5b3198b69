<script lang="ts">
	import { setsAnew } from '$core/examine/diagnosis/open-causes';
	import { firmnessSaid } from '$core/examine/looks/seen-words';
	import { setSince } from '$core/tree/held';
	import { enhance } from '$app/forms';
	import ReplantParts from './ReplantParts.svelte';
	import { resolve } from '$app/paths';
	import { standingOf } from '$core/tree/standing';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import MixFields from './MixFields.svelte';
	import PotChooser from './PotChooser.svelte';
	import ReplantResults from './ReplantResults.svelte';
	import SeatFields from './SeatFields.svelte';
	import SiteAnswers from './SiteAnswers.svelte';
	import { planningOf } from './drafts';
	import type { ReplantOf } from './replant-state.svelte';

	interface Props {
		of: ReplantOf;
		refused?: Refused | null;
	}
	let { of, refused }: Props = $props();
	const format = useFormat();
	let planning = $state.raw(untrack(() => planningOf(of)));
	$effect.pre(() => {
		planning = planningOf(of);
	});
	const { values } = untrack(() => of);
	const treeId = $derived(of.records.tree.id);
	const mm = (value: number): string => format().measure(value, 'mm');
	const inGround = $derived(of.records.tree.situation === 'in-ground');
	const loose = $derived.by(() => {
		const stands = standingOf(of.records, of.today, of.values);
		const { firmness } = stands;
		return of.records.plantings.length > 0 && firmness.value !== null && firmness.value !== 'firm'
			? { value: firmness.value, on: firmness.on, since: setSince(of.records, stands) }
			: null;
	});
	const readyL = $derived(planning.amounts.readyMainL * planning.count);
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<form
		method="POST"
		action="?/plant"
		use:enhance={act({ keep: true })}
		{@attach keepTyped(`replant.${treeId}`)}
		class="flex flex-col gap-6 pt-5 pb-20"
		novalidate
	>
		<ReplantParts {treeId} {inGround} at="pot" />
		<Problem {refused} />
		{#if loose?.since}
			<Caution title="Try whether it stands firm"
				>It {firmnessSaid[loose.value].then} on {format().day(loose.on ?? of.today, of.today)}, and
				{loose.since.held ? 'has been held since' : 'was set anew on'}
				{format().day(loose.since.on, of.today)}. A
				<a class="chalk" href={resolve('/trees/[id]/recovery', { id: treeId })}>look</a> says how it stands now.</Caution
			>
		{:else if loose}
			<Caution title="It {firmnessSaid[loose.value].now}"
				>Seen {format().day(loose.on ?? of.today, of.today)}. {setsAnew(of.urgent, !inGround)
					? 'Hold it when it is set anew:'
					: 'Hold it first:'}
				<a class="chalk" href="#setting">wires, where, and over which roots</a>. What moves tears its new
				roots.</Caution
			>
		{/if}
		{#if inGround}
			<p class="border-l-4 border-ochre py-1 pl-3">
				It stands in the ground. Lift it first, or work on it <a
					class="chalk"
					href={resolve('/trees/[id]/replant/ground', { id: treeId })}>where it stands</a
				>; what follows here is for a pot.
			</p>
		{/if}
		<fieldset class="flex flex-col gap-3">
			<legend class="mb-1 font-display text-lg font-semibold">The ball, as it goes in</legend>
			<div class="grid gap-3 sm:grid-cols-3">
				<MeasureField
					name="planting.ballDiameterMm"
					label="Width of the ball"
					unit="mm"
					value={planning.ballDiameterMm}
					oninput={(value) => planning.measured('ballDiameterMm', value)}
					guess={planning.assumed.has('ballDiameterMm')}
					onconfirm={() => planning.confirm('ballDiameterMm')}
					{refused}
				/>
				<MeasureField
					name="planting.ballDepthMm"
					label="Depth of the ball"
					unit="mm"
					value={planning.ballDepthMm}
					oninput={(value) => planning.measured('ballDepthMm', value)}
					guess={planning.assumed.has('ballDepthMm')}
					onconfirm={() => planning.confirm('ballDepthMm')}
					{refused}
				/>
				<MeasureField
					name="planting.crownWidthMm"
					label="Width of the crown"
					unit="mm"
					value={planning.crownWidthMm}
					oninput={(value) => planning.measured('crownWidthMm', value)}
					guess={planning.assumed.has('crownWidthMm')}
					onconfirm={() => planning.confirm('crownWidthMm')}
					{refused}
				/>
			</div>
			<p class="text-sm text-slate">
				{planning.ballKnown?.on
					? `Ball ${planning.ballKnown.by}, ${format().day(planning.ballKnown.on, planning.of.today)}.`
					: planning.meantBall
						? `Nobody has measured its ball: ${planning.meantBall.by}, ${format().day(planning.meantBall.on, planning.of.today)}.`
						: planning.assumed.has('ballDiameterMm')
							? 'Nobody has measured its ball: this is a guess from its trunk.'
							: 'Ball as planned.'}
			</p>
			<label class="flex items-center gap-2"
				><input type="checkbox" class="size-5" name="packed" bind:checked={planning.packed} />Roots are packed</label
			>
			{#if planning.packedSeenOn}
				<p class="text-sm text-slate">
					You saw a solid mat on {format().day(planning.packedSeenOn, planning.of.today)}.
				</p>
			{/if}
			<p class="border-l-4 border-lichen py-1 pl-3">
				Look for a pot about
				<Workings
					label="Width of pot to look for"
					formula="{mm(planning.ballDiameterMm)} + {mm(planning.advice.widthMm - planning.ballDiameterMm)}"
					lines={[
						{
							label: 'normal step up',
							value: mm(values['pot.upSizeMm']),
							mark: markOf('pot.upSizeMm')
						},
						{
							label: 'packed roots',
							value: mm(values['pot.packedSizeMm']),
							mark: markOf('pot.packedSizeMm')
						},
						{
							label: 'after rot or a hard reduction',
							value: mm(values['pot.afterRotSizeMm']),
							mark: markOf('pot.afterRotSizeMm')
						}
					]}
					changes="Two schools: clearly larger for the vigorous and packed, same or smaller after rot and shock."
				>
					<strong>{format().about(planning.advice.widthMm)}</strong>
				</Workings>
				wide: {format().inWords(planning.advice.reason)}.
			</p>
		</fieldset>
		<PotChooser state={planning} {refused} />
		<MixFields state={planning} {refused} />
		<SeatFields state={planning} {refused} />
		<fieldset class="grid gap-3 sm:grid-cols-2">
			<legend class="mb-1 font-display text-lg font-semibold">When and where</legend>
			<DateField
				name="planting.plantedOn"
				label="On"
				value={planning.plantedOn}
				oninput={(day) => (planning.plantedOn = day)}
				hint="A plan may lie ahead; written down as planted it may not"
				{refused}
			/>
			<SelectField
				name="planting.placeId"
				label="It stands afterwards at"
				bind:value={planning.placeId}
				options={of.places.map(({ id, name }) => ({ value: id, label: name }))}
				{refused}
			/>
			<TextField
				name="planting.note"
				label="Note: what else was used"
				value={planning.note}
				oninput={(event) => (planning.note = event.currentTarget.value)}
				optional
				{refused}
				fieldClass="sm:col-span-2"
			/>
			<div class="sm:col-span-2"><SiteAnswers answers={planning.site} /></div>
		</fieldset>
		{#if planning.stockPot || planning.of.stock.items.length > 0}
			<label class="flex min-h-11 items-center gap-2"
				><input
					type="checkbox"
					class="size-5"
					name="takeFromStock"
					bind:checked={planning.takeFromStock}
				/>Take {planning.stockPot
					? planning.count > 1
						? 'pots, mix and supplies'
						: 'pot, mix and supplies'
					: 'mix and supplies'} from the stock when it is planted</label
			>
		{/if}
		<input type="hidden" name="plan" value={JSON.stringify(planning.plan)} />
		<input type="hidden" name="version" value={of.records.replantPlan?.version ?? ''} />
		<div class="flex flex-wrap gap-3">
			<Button type="submit" tone="solid" size="large">Write it down as planted</Button>
			<Button type="submit" size="large" formaction="?/keep"
				>{of.records.replantPlan ? 'Keep the changed plan' : 'Keep as a plan'}</Button
			>
		</div>
		{#if planning.siteVerdict === 'stop'}
			<Caution title="Not there"
				>The place is beyond the limits of {of.kind.commonName}; the reasons stand above. Choose another
				before the work, or have cover ready.</Caution
			>
		{/if}
	</form>

	<Consequences title="What to have ready">
		{#snippet summary()}
			<strong class="font-display text-2xl">{format().measure(readyL, 'L')}</strong>
			<span class="truncate"
				>of mix{planning.amounts.problems.length > 0 || !planning.fit.fits ? '; it does not fit' : ''}</span
			>
		{/snippet}
		<ReplantResults state={planning} />
	</Consequences>
</div>
