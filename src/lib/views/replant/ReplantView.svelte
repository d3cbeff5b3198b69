<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/circular/circular';
	import type { Place } from '$core/climate/place';
	import { nightTemperature } from '$core/climate/normals';
	import type { Kind } from '$core/kinds/kind';
	import { componentLitres, mixIds, mixOf, usualMix, type MixId } from '$core/mixes/mixes';
	import { componentOf } from '$core/mixes/components';
	import { mixBody, waterAndAir } from '$core/mixes/retention';
	import {
		layerAmounts,
		sizeAdvice,
		sizeRuleNames,
		sizeRules,
		unrootedShare,
		type Planting,
		type SizeRule
	} from '$core/pots/replant-plan';
	import { potShapeNames, potShapes, type Pot, type PotShape } from '$core/pots/volume';
	import { ballOfMap, ballOfSizes, fitInPot } from '$core/pots/fit';
	import { crownOf, tippingWindMs } from '$core/pots/wind';
	import type { Setting } from '$core/roots/setting';
	import type { LastWork } from '$core/roots/work';
	import type { RootMap } from '$core/roots/root-map';
	import type { Tree } from '$core/tree/tree';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import FitDrawing from './FitDrawing.svelte';
	import PotDrawing from './PotDrawing.svelte';

	interface Props {
		tree: Tree;
		kind: Kind;
		places: Place[];
		values: Values;
		today: string;
		plantings: Planting[];
		rootMap: RootMap | null;
		lastWork: LastWork | null;
		/** Roots that are cut off; the ball reaches no further for them. */
		goneRoots: string[];
		/** The angle that was chosen for it. */
		setting: Setting | null;
		refused?: Refused | null;
	}
	let {
		tree,
		kind,
		places,
		values,
		today,
		plantings,
		rootMap,
		lastWork,
		goneRoots,
		setting,
		refused
	}: Props = $props();
	const format = useFormat();

	const last = $derived(plantings.at(-1));
	/** What the page begins with; from the last planting, the map of the roots, or the trunk. */
	const begin = untrack(() => {
		const ball =
			last?.ballDiameterMm ??
			(rootMap ? Math.round(rootMap.ballRadiusMm * 2 * 0.9) : Math.round(tree.trunkDiameterMm * 5));
		return {
			ball,
			depth: last?.ballDepthMm ?? Math.round(ball * 0.55),
			mix: last?.mixId ?? usualMix(kind.group, lastWork?.rotWasCut ?? false)
		};
	});
	let ballDiameterMm = $state(begin.ball);
	let ballDepthMm = $state(begin.depth);
	let packed = $state(false);
	const rot = $derived(lastWork?.rotWasCut ?? false);
	const advice = $derived(sizeAdvice(ballDiameterMm, lastWork?.livingLoss ?? 0, { rot, packed }, values));
	let shape = $state<PotShape>(untrack(() => last?.pot.shape ?? 'round'));
	let sizes = $state<Omit<Pot, 'shape'>>(
		untrack(() => {
			if (last) {
				const { shape: _shape, ...rest } = last.pot;
				return rest;
			}
			const width = Math.round(
				sizeAdvice(begin.ball, lastWork?.livingLoss ?? 0, { rot, packed: false }, values).widthMm
			);
			const bottom = Math.round(width * 0.82);
			return {
				topLengthMm: width,
				topWidthMm: width,
				bottomLengthMm: bottom,
				bottomWidthMm: bottom,
				heightMm: Math.round(begin.depth + 45)
			};
		})
	);
	let sizeRule = $state<SizeRule | ''>('');
	const rule = $derived(sizeRule || advice.rule);
	let mixId = $state<string>(begin.mix);
	let coarseLayerMm = $state(untrack(() => last?.coarseLayerMm ?? 0));
	let topLayerMm = $state(untrack(() => last?.topLayerMm ?? 0));
	let headspaceMm = $state(untrack(() => last?.headspaceMm ?? values['pot.headspaceMm']));
	const pot = $derived<Pot>({
		shape,
		...sizes,
		...(shape === 'round' && { topWidthMm: sizes.topLengthMm, bottomWidthMm: sizes.bottomLengthMm }),
		...(shape === 'box' && { bottomLengthMm: sizes.topLengthMm, bottomWidthMm: sizes.topWidthMm })
	});
	const amounts = $derived(
		layerAmounts({ pot, ballDiameterMm, ballDepthMm, coarseLayerMm, topLayerMm, headspaceMm }, values)
	);
	const mix = $derived(mixOf(mixId as MixId));
	const count = $derived(tree.plantCount);
	const shopping = $derived(componentLitres(mixId as MixId, amounts.readyMainL * count, values));
	const unrooted = $derived(unrootedShare(amounts));
	const mapped = untrack(
		() => rootMap !== null && rootMap.frame === 'container' && rootMap.segments.length > 0
	);
	let ballFrom = $state<'sizes' | 'map'>('sizes');
	const fit = $derived(
		fitInPot(
			ballFrom === 'map' && rootMap
				? ballOfMap(rootMap, new Set(goneRoots), ballDepthMm, values['pot.ballShape'])
				: ballOfSizes(ballDiameterMm, ballDepthMm, values['pot.ballShape']),
			pot,
			{
				tiltDeg: setting?.thisTimeDeg ?? 0,
				tiltTowardDeg: setting?.tiltTowardDeg ?? 0,
				flareOverRimMm: -headspaceMm,
				floorMm: coarseLayerMm
			}
		)
	);
	const at = (azimuthDeg: number): string =>
		`${format().clock(clockOf(azimuthDeg, 'container')).replace(':00', '')} o’clock`;
	const mm = (value: number): string => format().measure(Math.round(value), 'mm');
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
	/** Total mass wet, and the wind that tips it. */
	const stand = $derived.by(() => {
		const kg = water.wetKg + amounts.ballL * values['lifting.density-least'];
		const heightM = tree.heightM;
		if (heightM === null) return { kg, windMs: null };
		return { kg, windMs: tippingWindMs({ massKg: kg, ...crownOf(heightM, pot, values) }, values) };
	});
	const water = $derived(
		waterAndAir(
			mixBody(mix.parts, values),
			pot,
			{ coarseLayerMm, coarsePoreMm: componentOf('grit-coarse').fineMm * values['mix.poreOfGrain'] },
			Math.max(10, pot.heightMm - headspaceMm)
		)
	);
	const set = (key: keyof typeof sizes) => (mm: number | null) => {
		if (mm !== null) sizes = { ...sizes, [key]: mm };
	};
	let placeId = $state(untrack(() => tree.placeId));
	const place = $derived(places.find((candidate) => candidate.id === placeId));
	const tooCold = $derived.by(() => {
		if (!place) return null;
		const night = nightTemperature(place, today, values);
		return night.coldC < kind.coldestC ? night.coldC : null;
	});
	const L = (litres: number): string => format().measure(litres, 'L');
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<form
		method="POST"
		action="?/plant"
		use:enhance={act({ keep: true })}
		class="flex flex-col gap-5 pt-5 pb-20"
		novalidate
	>
		<p class="flex flex-wrap gap-x-5">
			<a class="chalk" href={resolve('/trees/[id]/replant/lift', { id: tree.id })}>Lift: ball, weight, when</a
			>
			<a class="chalk" href={resolve('/trees/[id]/replant/mix', { id: tree.id })}>Mix: water and air</a>
		</p>
		<Problem {refused} />
		<fieldset class="flex flex-col gap-3">
			<legend class="mb-1 font-display text-lg font-semibold">The ball, as it goes in</legend>
			<div class="grid gap-3 sm:grid-cols-3">
				<MeasureField
					name="ballDiameterMm"
					label="Width of the ball"
					unit="mm"
					value={ballDiameterMm}
					oninput={(mm) => {
						if (mm !== null) ballDiameterMm = mm;
					}}
					{refused}
				/>
				<MeasureField
					name="ballDepthMm"
					label="Depth of the ball"
					unit="mm"
					value={ballDepthMm}
					oninput={(mm) => {
						if (mm !== null) ballDepthMm = mm;
					}}
					{refused}
				/>
				<label class="flex items-end gap-2 pb-2.5"
					><input type="checkbox" class="size-5" bind:checked={packed} />Roots are packed</label
				>
			</div>
			<p class="border-l-4 border-lichen py-1 pl-3">
				Look for a pot about
				<Workings
					label="Width of pot to look for"
					formula="{format().measure(ballDiameterMm, 'mm')} + {format().measure(
						advice.widthMm - ballDiameterMm,
						'mm'
					)}"
					lines={[
						{
							label: 'normal step up',
							value: format().measure(values['pot.upSizeMm'], 'mm'),
							mark: markOf('pot.upSizeMm')
						},
						{
							label: 'packed roots',
							value: format().measure(values['pot.packedSizeMm'], 'mm'),
							mark: markOf('pot.packedSizeMm')
						},
						{
							label: 'after rot or a hard reduction',
							value: format().measure(values['pot.afterRotSizeMm'], 'mm'),
							mark: markOf('pot.afterRotSizeMm')
						}
					]}
					changes="Two schools: clearly larger for the vigorous and packed, same or smaller after rot and shock."
				>
					<strong>{format().measure(advice.widthMm, 'mm')}</strong>
				</Workings>
				wide: {advice.reason}.
			</p>
		</fieldset>
		<fieldset class="flex flex-col gap-3">
			<legend class="mb-1 font-display text-lg font-semibold">The pot, inside</legend>
			<Choice
				label="Shape"
				name="pot.shape"
				bind:value={shape}
				options={potShapes.map((value) => ({ value, label: potShapeNames[value] }))}
			/>
			<div class="grid gap-3 sm:grid-cols-3">
				<MeasureField
					name="pot.topLengthMm"
					label={shape === 'round' ? 'Diameter at the rim' : 'Length at the rim'}
					unit="mm"
					value={pot.topLengthMm}
					oninput={set('topLengthMm')}
					{refused}
				/>
				{#if shape !== 'round'}<MeasureField
						name="pot.topWidthMm"
						label="Width at the rim"
						unit="mm"
						value={pot.topWidthMm}
						oninput={set('topWidthMm')}
						{refused}
					/>{/if}
				{#if shape !== 'box'}
					<MeasureField
						name="pot.bottomLengthMm"
						label={shape === 'round' ? 'Diameter at the floor' : 'Length at the floor'}
						unit="mm"
						value={pot.bottomLengthMm}
						oninput={set('bottomLengthMm')}
						{refused}
					/>
					{#if shape !== 'round'}<MeasureField
							name="pot.bottomWidthMm"
							label="Width at the floor"
							unit="mm"
							value={pot.bottomWidthMm}
							oninput={set('bottomWidthMm')}
							{refused}
						/>{/if}
				{/if}
				<MeasureField
					name="pot.heightMm"
					label="Depth"
					unit="mm"
					value={pot.heightMm}
					oninput={set('heightMm')}
					{refused}
				/>
			</div>
			{#if shape === 'round'}
				<input type="hidden" name="pot.topWidthMm" value={pot.topWidthMm} /><input
					type="hidden"
					name="pot.bottomWidthMm"
					value={pot.bottomWidthMm}
				/>
			{:else if shape === 'box'}
				<input type="hidden" name="pot.bottomLengthMm" value={pot.bottomLengthMm} /><input
					type="hidden"
					name="pot.bottomWidthMm"
					value={pot.bottomWidthMm}
				/>
			{/if}
			<Choice
				label="Size rule followed"
				name="sizeRule"
				value={rule}
				options={sizeRules.map((value) => ({ value, label: sizeRuleNames[value] }))}
				onchange={(value) => (sizeRule = value)}
			/>
		</fieldset>
		<fieldset class="flex flex-col gap-3">
			<legend class="mb-1 font-display text-lg font-semibold">Mix and layers</legend>
			<SelectField
				name="mixId"
				label="Mix"
				bind:value={mixId}
				options={mixIds.map((value) => ({ value, label: mixOf(value).name }))}
				{refused}
				hint="For {mix.suits}."
			/>
			{#if rot && !mix.afterRot}<Caution title="After rot"
					>Usual here is a mix that stays airy, and never the old one again. This one holds more water.</Caution
				>{/if}
			<div class="grid gap-3 sm:grid-cols-3">
				<MeasureField
					name="coarseLayerMm"
					label="Coarse layer at the floor"
					unit="mm"
					value={coarseLayerMm}
					oninput={(mm) => (coarseLayerMm = mm ?? 0)}
					{refused}
				/>
				<MeasureField
					name="topLayerMm"
					label="Top layer"
					unit="mm"
					value={topLayerMm}
					oninput={(mm) => (topLayerMm = mm ?? 0)}
					{refused}
				/>
				<MeasureField
					name="headspaceMm"
					label="Left under the rim for water"
					unit="mm"
					value={headspaceMm}
					oninput={(mm) => (headspaceMm = mm ?? 0)}
					{refused}
				/>
			</div>
			{#if coarseLayerMm > 0}<p class="text-sm text-slate">
					A coarse layer keeps the holes clear. It does not drain the mix above it, and costs {format().measure(
						coarseLayerMm,
						'mm'
					)} of rooting depth; others use a screen only.
				</p>{/if}
		</fieldset>
		<fieldset class="grid gap-3 sm:grid-cols-2">
			<legend class="mb-1 font-display text-lg font-semibold">Done</legend>
			<TextField name="plantedOn" label="On" type="date" value={today} max={today} {refused} />
			<SelectField
				name="placeId"
				label="It stands afterwards at"
				bind:value={placeId}
				options={places.map(({ id, name }) => ({ value: id, label: name }))}
				{refused}
			/>
			<TextField
				name="note"
				label="How it was set: height, ties, pads, what was used"
				optional
				{refused}
				fieldClass="sm:col-span-2"
			/>
		</fieldset>
		{#if tooCold !== null}
			<Caution title="Too cold there"
				>A cold night of the season at this place is about {format().measure(tooCold, '°C')}; {kind.commonName}
				stands {format().measure(kind.coldestC, '°C')}. Choose another place before the work, or have cover
				ready.</Caution
			>
		{/if}
		<input type="hidden" name="plantCount" value={count} />
		<div><Button type="submit" tone="solid" size="large">Write it down as planted</Button></div>
	</form>

	<Consequences title="What to have ready">
		{#snippet summary()}
			<strong class="font-display text-2xl">{L(amounts.readyMainL * count)}</strong>
			<span class="truncate">of mix{amounts.problems.length > 0 || !fit.fits ? '; it does not fit' : ''}</span
			>
		{/snippet}
		<PotDrawing
			{pot}
			{ballDiameterMm}
			{ballDepthMm}
			{coarseLayerMm}
			{topLayerMm}
			{headspaceMm}
			tight={!fit.fits}
		/>
		<section aria-label="Fit" class="text-sm">
			{#if mapped}
				<div class="mb-1">
					<Choice
						label="Ball as"
						hideLabel
						size="small"
						bind:value={ballFrom}
						options={[
							{ value: 'sizes', label: 'its sizes' },
							{ value: 'map', label: 'the roots mapped' }
						]}
					/>
				</div>
			{/if}
			<FitDrawing {fit} {pot} />
			<p>
				{fit.fits ? 'It goes in: ' : 'It does not go in: '}<strong>{mm(fit.tightest.clearanceMm)}</strong> of
				room at the tightest, {at(fit.tightest.azimuthDeg)}{fit.shift.mm >= 2
					? `, moved ${mm(fit.shift.mm)} toward ${at(fit.shift.azimuthDeg)}`
					: ''}{setting && setting.thisTimeDeg >= 1
					? `, tilted ${Math.round(setting.thisTimeDeg)}° toward ${at(setting.tiltTowardDeg)}`
					: ''}; {mm(Math.max(0, fit.underMm))} under it.
			</p>
			<p class="mt-1 mb-3">
				Wet, about {format().measure(stand.kg, 'kg', 0)}{#if stand.windMs === null}. At what wind it tips is
					not known: the height of the tree is not taken.{:else};
					<Workings
						label="Wind that tips it, standing free"
						formula="√(2 m g b/2 ÷ (ρ C A h))"
						lines={[
							{ label: 'mass, wet', value: format().measure(stand.kg, 'kg', 0) },
							{
								label: 'narrowest base',
								value: mm(Math.min(pot.bottomLengthMm, pot.bottomWidthMm))
							},
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
						>tips at {format().number(stand.windMs)} m/s of wind</Workings
					> unless it is tied.{/if}
			</p>
		</section>
		<p class="font-display text-3xl font-bold">
			<Workings
				label="Mix to have ready{count > 1 ? ` for ${count}` : ''}"
				formula="({L(amounts.mainL)}) × (1 + {values['pot.settling']}){count > 1 ? ` × ${count}` : ''}"
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
			of mix{count > 1 ? ` for ${count} pots, ${L(amounts.readyMainL)} each` : ''}
		</p>
		<table class="mt-3 w-full text-sm">
			<thead
				><tr class="border-b text-left text-slate"
					><th class="py-1 font-normal">layer</th><th class="py-1 text-right font-normal">one pot</th
					>{#if count > 1}<th class="py-1 text-right font-normal">all {count}</th>{/if}</tr
				></thead
			>
			<tbody class="divide-y">
				{#each [['top', amounts.topL], ['main mix', amounts.mainL], ['coarse', amounts.coarseL]] as const as [name, litres] (name)}
					<tr
						><th class="py-1 text-left font-normal">{name}</th><td class="py-1 text-right">{L(litres)}</td
						>{#if count > 1}<td class="py-1 text-right">{L(litres * count)}</td>{/if}</tr
					>
				{/each}
			</tbody>
		</table>
		<h3 class="mt-4 text-sm">Of it</h3>
		<ul class="divide-y border-y text-sm">
			{#each shopping as part (part.component)}
				<li class="flex justify-between py-1">
					<span>{part.component}</span><strong>{L(part.litres)}</strong>
				</li>
			{/each}
		</ul>
		<p class="mt-3 text-sm">
			Drained, it holds <strong>{format().percent(water.containerCapacity)}</strong> water and
			<strong class={water.airSpace < values['mix.airFrom'] ? 'text-oxide' : ''}
				>{format().percent(water.airSpace)}</strong
			>
			air in this pot{water.airSpace < values['mix.airFrom'] ? ', too little for roots' : ''}.
			<a class="chalk" href={resolve('/trees/[id]/replant/mix', { id: tree.id })}>By depth, and other mixes</a
			>
		</p>
		<p class="mt-3 text-sm">
			{format().percent(unrooted)} of the fill holds no roots yet.
			{#if unrooted > 0.6}<strong class="text-ochre"
					>Unrooted mix dries last; the corners may stay wet and sour.</strong
				>{/if}
		</p>
		{#each [...amounts.problems, ...fitProblems] as problem (problem)}
			<div class="mt-2"><Caution title="Does not fit">{problem}</Caution></div>
		{/each}
		<div class="mt-3"><Caution title="Dust and compost">{mix.caution}</Caution></div>
		{#if plantings.length > 0}
			<h3 class="mt-5 text-base">Before</h3>
			<ul class="divide-y border-y text-sm">
				{#each [...plantings].reverse() as planting (planting.id)}
					<li class="py-1.5">
						{format().date(planting.plantedOn)}: {potShapeNames[planting.pot.shape]}, {format().measure(
							planting.pot.topLengthMm,
							'mm'
						)}, {mixOf(planting.mixId).name}{planting.note ? `. ${planting.note}` : ''}
					</li>
				{/each}
			</ul>
		{/if}
	</Consequences>
</div>
