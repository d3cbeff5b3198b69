<script lang="ts">
	import { resolve } from '$app/paths';
	import { card } from '$core/examine/pictures/card';
	import { knownRectangles } from '$core/examine/pictures/plane';
	import { counted } from '$core/text/plural';
	import MeasureField from '$ui/MeasureField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { useFormat } from '$ui/format';
	import type { PictureMeasure } from './picture-measure.svelte';

	/** What lies beside for its size in a picture, and how large it is. */
	interface Props {
		measuring: PictureMeasure;
		/** Width of the round pot it stood in that day; null where that is not known. */
		rimMm: number | null;
	}
	let { measuring, rimMm }: Props = $props();
	const format = useFormat();
	const mm = (value: number): string => format().measure(value, 'mm');
</script>

<div>
	<h3 id="size-title" class="text-lg">What lies beside for its size</h3>
	<p class="text-sm text-slate">
		{#if measuring.rectangle === 'card' && measuring.card !== null && typeof measuring.card !== 'string'}
			The printed card was found by itself: {counted(measuring.card.markers, 'marker')}, within {format().number(
				measuring.card.offPx,
				1
			)} px of the picture. It must lie flat, in the plane of what you measure.
		{:else if measuring.rectangle === 'card' && measuring.card === null}
			It is looked for in the picture.
		{:else if measuring.rectangle === 'rim'}
			Its tilt is corrected; that its near side is seen larger than its far one goes into the ±. Measure in
			its plane.
		{:else if measuring.rectangle === 'two-points'}
			Only the scale: the picture is taken as straight from the front. What lies nearer or farther than the
			two points reads wrong.
		{:else}
			Flat, in the plane of what you measure, all four corners in the picture.
		{/if}
	</p>
	{#if measuring.noCard && measuring.rectangle !== 'card'}<p class="mt-1 text-sm">
			{measuring.noCard}
		</p>{/if}
	<a class="chalk text-sm" href={resolve('/reference/card')}>Print the card, it is found by itself</a>
</div>
<SelectField
	name="rectangle"
	label="Size"
	bind:value={() => measuring.rectangle, (chosen) => measuring.choose(chosen)}
	options={[
		{ value: 'card', label: `printed card, ${mm(card.widthMm)} × ${mm(card.heightMm)}` },
		...Object.entries(knownRectangles).map(([value, { name, widthMm, heightMm }]) => ({
			value,
			label: `${name}, ${mm(widthMm)} × ${mm(heightMm)}`
		})),
		{ value: 'own', label: 'another rectangle' },
		{ value: 'rim', label: 'round rim of the pot' },
		{ value: 'two-points', label: 'two points, only the scale' }
	]}
/>
{#if measuring.rectangle === 'rim'}
	<MeasureField
		name="rimMm"
		label="Width of the rim, inside"
		unit="mm"
		value={measuring.rimMm}
		hint={rimMm === null ? undefined : 'As it was potted; measure it if that is not sure.'}
		oninput={(value) => (measuring.rimMm = value)}
	/>
{/if}
{#if measuring.rectangle === 'two-points'}
	<MeasureField
		name="apartMm"
		label="The two points are apart"
		unit="mm"
		value={measuring.apartMm}
		oninput={(value) => (measuring.apartMm = value)}
	/>
{/if}
{#if measuring.rectangle === 'own'}
	<div class="grid grid-cols-2 gap-3">
		<MeasureField
			name="ownWidthMm"
			label="Long side"
			unit="mm"
			value={measuring.ownWidthMm}
			oninput={(value) => (measuring.ownWidthMm = value)}
		/>
		<MeasureField
			name="ownHeightMm"
			label="Short side"
			unit="mm"
			value={measuring.ownHeightMm}
			oninput={(value) => (measuring.ownHeightMm = value)}
		/>
	</div>
{/if}
