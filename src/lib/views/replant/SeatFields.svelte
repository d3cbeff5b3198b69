<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import {
		firmingNames,
		firmings,
		heightSchoolNames,
		heightSchools,
		holdingNames,
		holdings,
		pocketSchoolNames,
		pocketSchools,
		wireLengthM
	} from '$core/replant/pots/seat';
	import { markOf } from '$core/values/values';
	import Caution from '$ui/Caution.svelte';
	import DateField from '$ui/DateField.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import Workings from '$ui/Workings.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import type { ReplantState } from './replant-state.svelte';
	import TieDown from './TieDown.svelte';

	/** How high it stands, how the mix gets under it, and what holds it until it has rooted. */
	interface Props {
		state: ReplantState;
		refused?: Refused | null;
	}
	let { state: planning, refused }: Props = $props();
	const format = useFormat();
	const values = $derived(planning.of.values);
	const seat = $derived(planning.seat);
	const clock = (azimuthDeg: number): string =>
		`${format().clock(clockOf(azimuthDeg, 'container')).replace(':00', '')} o’clock`;
	const wind = (ms: number): string => format().measure(ms, 'm/s');
	/** Nothing that one would feel, or that is printed. */
	const tieAddsNothing = $derived(
		planning.held !== null &&
			(planning.held.tiedMs - planning.held.looseMs < 0.5 ||
				wind(planning.held.tiedMs) === wind(planning.held.looseMs))
	);
	const map = $derived(planning.of.records.rootMap);
	const wanted = $derived(planning.of.records.plan?.setting);
	/** A root as a person knows it: by its thickness. */
	const rootWords = (id: string): string => {
		const root = map?.segments.find((segment) => segment.id === id);
		return root ? format().measure(root.diameterStartMm, 'mm') : '';
	};
</script>

<fieldset id="setting" class="flex scroll-mt-40 flex-col gap-3">
	<legend class="mb-1 font-display text-lg font-semibold">Setting and tie-down</legend>
	<Choice
		label="Height"
		value={seat.height}
		onchange={(value) => planning.setHeight(value)}
		options={heightSchools.map((value) => ({ value, label: heightSchoolNames[value] }))}
	/>
	<p class="-mt-1 text-sm text-slate">
		On a mound where rot threatens or the flare is to show; below the rim for shallow fine roots that must
		stay moist. Stem and flare are never buried.
	</p>
	<div class="grid gap-3 sm:grid-cols-3">
		<MeasureRow
			bind:of={planning.seat}
			prefix="planting.seat."
			measures={[
				{
					key: 'flareOverRimMm',
					label: 'Flare over the rim',
					unit: 'mm',
					hint: 'Below it: a minus',
					empty: 'as-before'
				},
				{ key: 'moundMm', label: 'Mound over the fill', unit: 'mm', empty: 0 },
				{ key: 'screens', label: 'Screens over holes', unit: '', empty: 0, whole: true },
				{
					key: 'extraHoles',
					label: 'Drain holes to add',
					unit: '',
					hint:
						planning.holesWanted > 0
							? `The floor wants ${planning.holesWanted} of ${format().measure(seat.holeMm, 'mm')}`
							: 'The floor is open enough',
					empty: 0,
					whole: true
				},
				{ key: 'holeMm', label: 'each as wide as', unit: 'mm', empty: 'as-before' },
				{
					key: 'tiltDeg',
					label: 'Tilted by, as it stands (°)',
					unit: '',
					hint:
						wanted && wanted.thisTimeDeg >= 1
							? `This time ${Math.round(wanted.thisTimeDeg)}° were meant; empty if nobody looked`
							: 'Empty if nobody looked',
					empty: null
				}
			]}
			{refused}
		/>
	</div>
	{#if planning.buriedMm > 1}
		<Caution title="Flare under the mix"
			>It would lie {format().measure(planning.buriedMm, 'mm')} deep. Stem and flare are never buried: set it higher,
			or leave more room under the rim.</Caution
		>
	{/if}
	<div class="flex flex-wrap gap-x-6 gap-y-3">
		<Choice
			label="Air pockets"
			size="small"
			bind:value={planning.seat.pockets}
			options={pocketSchools.map((value) => ({ value, label: pocketSchoolNames[value] }))}
		/>
		<Choice
			label="Firming"
			size="small"
			bind:value={planning.seat.firming}
			options={firmings.map((value) => ({ value, label: firmingNames[value] }))}
		/>
	</div>
	<p class="-mt-1 text-sm text-slate">
		A slurry for deep containers, the stick for shallow ones. Coarse mix and top-heavy trees are pressed;
		organic mix never.
	</p>
	<Choice
		label="Held by"
		value={seat.holding}
		onchange={(value) => planning.setHolding(value)}
		options={holdings.map((value) => ({ value, label: holdingNames[value] }))}
	/>
	{#if seat.holding === 'wires'}
		<div class="grid gap-4 sm:grid-cols-[18rem_minmax(0,1fr)]">
			{#if map && planning.mapped}
				<TieDown pot={planning.pot} segments={map.segments} wires={planning.wires} holes={planning.holes} />
			{/if}
			<div class="flex flex-col gap-2">
				{#if planning.wires.length > 0}
					<Choice
						label="At most so many wires"
						size="small"
						value={String(planning.wireCount)}
						onchange={(value) => (planning.wireCount = Number(value))}
						options={['2', '3', '4'].map((value) => ({ value, label: value }))}
					/>
					<ul class="divide-y border-y text-sm" aria-label="Wires">
						{#each planning.wires as wire, i (wire.rootId)}
							<li class="py-1.5">
								Wire {i + 1} over the {rootWords(wire.rootId)} root at {clock(wire.azimuthDeg)}, {format().measure(
									wire.radiusMm,
									'mm'
								)} out; holes {planning.holes
									.filter((hole) => hole.wire === i)
									.map((hole) => `${clock(hole.azimuthDeg)}, ${format().measure(hole.radiusMm, 'mm')} out`)
									.join(' and ')}{planning.holes.some((hole) => hole.wire === i && !hole.inFloor)
									? ' (at the edge of the floor)'
									: ''}
							</li>
						{/each}
					</ul>
					<p class="text-sm">
						{format().measure(wireLengthM(planning.wires, planning.pot, values), 'm')} of wire, a pad under each
						over the bark.
					</p>
				{:else}
					<Caution title="No root to tie over"
						>{planning.mapped
							? 'No sound anchor or scaffold stays far enough from the next. Use stones, or a wire round a bar across the ball.'
							: 'Map the roots to have wires laid over those that hold. Until then choose thick, sound ones by eye and pad them.'}</Caution
					>
				{/if}
			</div>
		</div>
	{:else if seat.holding === 'stones'}
		<div class="grid gap-3 sm:grid-cols-3">
			<MeasureRow
				bind:of={planning.seat}
				prefix="planting.seat."
				measures={[
					{ key: 'stones', label: 'Stones', unit: '', empty: 0, whole: true },
					{ key: 'stoneKg', label: 'Together', unit: 'kg', empty: 0 }
				]}
				{refused}
			/>
		</div>
	{/if}
	{#if seat.holding !== 'own-stance'}
		<DateField
			name="planting.seat.offOn"
			label={seat.holding === 'wires' ? 'Ties come off on' : 'Stones come off on'}
			value={seat.offOn ?? ''}
			oninput={(day) => (planning.seat.offOn = day || null)}
			hint="It goes on the list; a forgotten tie bites."
			{refused}
		/>
	{/if}
	{#if planning.held}
		<p class="border-l-4 border-rain py-1 pl-3">
			Loose, it rocks over the edge of its ball from
			<Workings
				label="Wind before and after holding"
				formula="√(2 m g b/2 ÷ (ρ C A h))"
				lines={[
					{ label: 'loose: ball and tree over the edge of the ball', value: wind(planning.held.looseMs) },
					{ label: 'with these stones', value: wind(planning.held.stonesMs) },
					{ label: 'tied: pot and tree tip as one', value: wind(planning.held.tiedMs) },
					{
						label: 'tree over its ball',
						value: `+ ${format().percent(values['route.treeKg'])}`,
						mark: markOf('route.treeKg')
					},
					{
						label: 'drag of the crown',
						value: String(values['pot.crownDrag']),
						mark: markOf('pot.crownDrag')
					}
				]}
				changes="A rooted ball stands better; gusts are stronger than the wind that is forecast. A pot fixed to its bench does not tip."
				><strong>{wind(planning.held.looseMs)}</strong></Workings
			>{seat.holding === 'stones'
				? `; with the stones from ${wind(planning.held.stonesMs)}`
				: seat.holding === 'wires' && planning.wires.length > 0
					? tieAddsNothing
						? '; tied down, pot and all tip at the same wind: tie the pot too'
						: `; tied down, pot and all tip from ${wind(planning.held.tiedMs)}`
					: tieAddsNothing
						? '; pot and all tip then too, so that ties in the pot add nothing: tie the pot itself, or take a wider one'
						: `; tied down it would stand to ${wind(planning.held.tiedMs)}`}.
		</p>
	{:else}
		<p class="text-sm text-slate">At what wind it rocks is not known: the height of the tree is not taken.</p>
	{/if}
</fieldset>
