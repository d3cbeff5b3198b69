<script lang="ts">
	import { counted } from '$core/text/plural';
	import { resolve } from '$app/paths';
	import { potVerdictNames, type JudgedPot } from '$core/replant/pots/rank';
	import { sizeRuleNames, sizeRules } from '$core/replant/pots/replant-plan';
	import {
		isRound,
		isStraight,
		potShapeNames,
		potShapes,
		type Pot,
		type PotShape
	} from '$core/replant/pots/volume';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import type { ReplantState } from './replant-state.svelte';

	/** The pots at hand ranked for this ball, sizes proposed by rule, and a size of one's own. */
	interface Props {
		state: ReplantState;
		refused?: Refused | null;
	}
	let { state: planning, refused }: Props = $props();
	const format = useFormat();
	const values = $derived(planning.of.values);
	let all = $state(false);
	const shown = $derived(all ? planning.ranked : planning.ranked.slice(0, 4));
	const noneFits = $derived(
		planning.ranked.length > 0 && planning.ranked.every(({ judged }) => judged.verdict === 'no-fit')
	);
	const mm = (value: number): string => format().measure(value, 'mm');
	const sizeOf = (pot: Pot): string =>
		isRound(pot.shape)
			? `${mm(pot.topLengthMm)} × ${mm(pot.heightMm)} deep`
			: `${mm(pot.topLengthMm)} × ${mm(pot.topWidthMm)} × ${mm(pot.heightMm)} deep`;
	const days = (judged: JudgedPot): string =>
		!Number.isFinite(judged.dryDownDays)
			? 'no demand'
			: `${counted(format().number(judged.dryDownDays, judged.dryDownDays < 10 ? 1 : 0), 'day')} to dry`;
	const off = (value: number, school: string): string =>
		Math.abs(value) < 1
			? `just what “${school}” asks`
			: `${mm(Math.abs(value))} ${value > 0 ? 'wider' : 'narrower'} than “${school}” asks`;
	const facts = (judged: JudgedPot): string =>
		[
			judged.verdict === 'no-fit'
				? judged.fit.fits
					? 'the layers leave no room'
					: `shave ${mm(Math.max(judged.fit.shaveEvenlyMm, judged.fit.shaveUnderMm))}`
				: `${days(judged)}, ${mm(judged.fit.tightest.clearanceMm)} of room`,
			`${format().measure(judged.wetKg, 'kg', 0)} wet`,
			judged.tipsMs === null ? '' : `tips at ${format().measure(judged.tipsMs, 'm/s')}`
		]
			.filter((text) => text !== '')
			.join(', ');
	const tones: Record<JudgedPot['verdict'], string> = {
		right: 'border-lichen',
		watch: 'border-ochre',
		under: 'border-ochre',
		over: 'border-oxide',
		'no-fit': 'border-edge'
	};
	const mean = (list: readonly number[]): number =>
		list.length === 0 ? 0 : list.reduce((sum, one) => sum + one, 0) / list.length;
	const set = (key: keyof Omit<Pot, 'shape'>) => (value: number | null) => {
		if (value !== null) planning.setSize(key, value);
	};
</script>

{#snippet row(name: string, pot: Pot, judged: JudgedPot, take: () => void, chosen: boolean, count: string)}
	<li class={['flex flex-wrap items-center gap-x-3 gap-y-1 border-l-4 py-2 pl-3', tones[judged.verdict]]}>
		<span class="min-w-0 flex-1 basis-64">
			<strong>{name}</strong>{count ? `, ${count}` : ''} <span class="text-slate">{sizeOf(pot)}</span><br />
			<span class="text-sm"
				>{potVerdictNames[judged.verdict]}: {facts(judged)}<span class="text-slate"
					>; {off(judged.offLargerMm, 'clearly larger')}, {off(judged.offSameMm, 'same or smaller')}</span
				></span
			>
		</span>
		<Button
			size="small"
			tone={chosen ? 'solid' : 'outline'}
			aria-pressed={chosen}
			aria-label="Take {name}"
			onclick={take}>{chosen ? 'Taken' : 'Take'}</Button
		>
	</li>
{/snippet}

<fieldset class="flex flex-col gap-3">
	<legend class="mb-1 font-display text-lg font-semibold">The pot</legend>
	<Choice
		label="Pot size, two schools"
		size="small"
		value={planning.school}
		onchange={(school: 'larger' | 'same') => planning.setSchool(school)}
		options={[
			{ value: 'larger', label: `clearly larger, ${format().about(planning.question.largerWidthMm)}` },
			{ value: 'same', label: `same or smaller, ${format().about(planning.question.sameWidthMm)}` }
		]}
	/>
	<p class="text-sm text-slate">
		Larger for vigorous and packed roots; same or smaller after rot, shock or for slow kinds. Here
		{format().inWords(planning.advice.reason)}. Dry-down at
		<Workings
			label="Demand of the days ahead"
			formula="ET₀ × crown × factor × root function + ET₀ × surface × factor"
			lines={[
				{
					label: 'ET₀ at its place, over the days ahead',
					value: `${format().number(mean(planning.ahead.slice(0, 14).map((day) => day.et0Mm)), 1)} mm`
				},
				{
					label: 'crown, as wide as',
					value: planning.ahead[0]?.inLeaf === false ? 'leafless' : mm(planning.crownWidthMm)
				},
				{
					label: 'a full crown over ET₀',
					value: `× ${values['water.crownFactor']}`,
					mark: markOf('water.crownFactor')
				},
				{ label: 'root function expected', value: format().percent(planning.question.rootFunction) },
				{
					label: 'open mix over ET₀',
					value: `× ${values['water.surfaceFactor']}`,
					mark: markOf('water.surfaceFactor')
				},
				{
					label: 'watered when dry by',
					value: format().percent(planning.question.wetnessTrigger)
				},
				{
					label: 'too large over',
					value: `${values['pot.dryDownMostDays']} days`,
					mark: markOf('pot.dryDownMostDays')
				}
			]}
			changes="Weather, leaves, and what the roots really draw: weighing knows better."
			>the demand of the days ahead, without rain</Workings
		>.
	</p>
	{#if planning.ranked.length > 0}
		<div>
			<h3 class="text-base">At hand, best first</h3>
			<ul class="mt-1 flex flex-col gap-2" aria-label="Pots at hand">
				{#each shown as entry (entry.id)}
					{@render row(
						entry.name,
						entry.pot,
						entry.judged,
						() => planning.takePot(entry.pot, entry.id),
						planning.stockPotId === entry.id,
						`${entry.count} there`
					)}
				{/each}
			</ul>
			{#if planning.ranked.length > 4}
				<Button size="small" tone="quiet" onclick={() => (all = !all)}
					>{all ? 'Only the first' : `All ${planning.ranked.length}`}</Button
				>
			{/if}
			{#if noneFits}
				<div class="mt-2">
					<Caution title="No pot at hand takes it"
						>Look for one at least {format().about(planning.question.sameWidthMm)} wide and {mm(
							planning.ballDepthMm + planning.coarseLayerMm - planning.seat.flareOverRimMm
						)} deep, or shave the ball.</Caution
					>
				</div>
			{/if}
		</div>
	{:else}
		<p class="text-sm">
			No pots are at hand. <a class="chalk" href={resolve('/yard/stock')}>Write down what the yard has</a> to have
			them ranked here.
		</p>
	{/if}
	<details>
		<summary class="py-1 font-semibold">Sizes to look for, by rule</summary>
		<ul class="mt-1 flex flex-col gap-2" aria-label="Sizes to look for">
			{#each planning.proposed as entry (entry.name)}
				{@render row(entry.name, entry.pot, entry.judged, () => planning.takePot(entry.pot), false, '')}
			{/each}
		</ul>
	</details>
	<details open={planning.stockPotId === null}>
		<summary class="py-1 font-semibold"
			>Sizes of the pot, inside{planning.stockPot ? `: ${planning.stockPot.name}` : ''}</summary
		>
		<div class="mt-2 flex flex-col gap-3">
			<Choice
				label="Shape"
				value={planning.shape}
				onchange={(shape: PotShape) => planning.takePot({ ...planning.pot, shape })}
				options={potShapes.map((value) => ({ value, label: potShapeNames[value] }))}
			/>
			<div class="grid gap-3 sm:grid-cols-3">
				<MeasureField
					name="planting.pot.topLengthMm"
					label={isRound(planning.shape) ? 'Diameter at the rim' : 'Length at the rim'}
					unit="mm"
					guess={planning.assumed.has('pot')}
					onconfirm={() => planning.confirm('pot')}
					value={planning.pot.topLengthMm}
					oninput={set('topLengthMm')}
					{refused}
				/>
				{#if !isRound(planning.shape)}<MeasureField
						name="planting.pot.topWidthMm"
						label="Width at the rim"
						unit="mm"
						value={planning.pot.topWidthMm}
						oninput={set('topWidthMm')}
						{refused}
					/>{/if}
				{#if !isStraight(planning.shape)}
					<MeasureField
						name="planting.pot.bottomLengthMm"
						label={isRound(planning.shape) ? 'Diameter at the floor' : 'Length at the floor'}
						unit="mm"
						value={planning.pot.bottomLengthMm}
						oninput={set('bottomLengthMm')}
						{refused}
					/>
					{#if !isRound(planning.shape)}<MeasureField
							name="planting.pot.bottomWidthMm"
							label="Width at the floor"
							unit="mm"
							value={planning.pot.bottomWidthMm}
							oninput={set('bottomWidthMm')}
							{refused}
						/>{/if}
				{/if}
				<MeasureField
					name="planting.pot.heightMm"
					label="Depth"
					unit="mm"
					guess={planning.assumed.has('pot')}
					onconfirm={() => planning.confirm('pot')}
					value={planning.pot.heightMm}
					oninput={set('heightMm')}
					{refused}
				/>
			</div>
		</div>
	</details>
	<Choice
		label="Size rule followed"
		value={planning.rule}
		size="small"
		options={sizeRules.map((value) => ({ value, label: sizeRuleNames[value] }))}
		onchange={(value) => (planning.sizeRule = value)}
	/>
</fieldset>
