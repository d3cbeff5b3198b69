<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import {
		wateringWayNames,
		wateringWaysFor,
		type Watering,
		type WateringWay
	} from '$core/aftercare/water/watering';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	/** Writes a watering down, with its weights where it stands in a pot. */
	interface Props {
		open: boolean;
		treeId: string;
		/** As it is advised. */
		litres: number;
		way: WateringWay;
		/** Weights are asked for. */
		weighed: boolean;
		today: string;
		/** A watering that is written anew in its place; null for one more. */
		corrects?: Watering | null;
		refused?: Refused | null;
	}
	const format = useFormat();
	let { open = $bindable(), treeId, litres, way, weighed, today, corrects = null, refused }: Props = $props();
</script>

<Sheet bind:open title={corrects ? 'Change this watering' : weighed ? 'Watered or weighed' : 'Watered'}>
	<form
		method="POST"
		action="?/water"
		use:enhance={act({ done: () => (open = false) })}
		{@attach keepTyped(`watering.${treeId}.${corrects?.id ?? 'new'}`)}
		class="flex flex-col gap-3"
		novalidate
	>
		<Problem {refused} />
		<input type="hidden" name="treeId" value={treeId} />
		<input type="hidden" name="correctsId" value={corrects?.id ?? ''} />
		<input type="hidden" name="correctsVersion" value={corrects?.version ?? ''} />
		<DateField name="wateredOn" label="On" value={corrects?.wateredOn ?? today} max={today} {refused} />
		<div class="grid gap-3 sm:grid-cols-2">
			{#if weighed}
				<MeasureField
					name="beforeKg"
					label="Weight before"
					unit="kg"
					value={corrects?.beforeKg ?? null}
					optional
					{refused}
				/>
				<MeasureField
					name="afterKg"
					label="Weight after, when nothing drips"
					unit="kg"
					value={corrects?.afterKg ?? null}
					optional
					{refused}
				/>
			{/if}
			<MeasureField
				name="litres"
				label="Poured"
				unit="L"
				value={corrects?.litres ?? null}
				optional
				hint={litres >= 0.05
					? `Advised: ${format().measure(litres, 'L', 1)}. Leave it empty if you did not measure.`
					: 'Leave it empty if you did not measure.'}
				{refused}
			/>
			{#if weighed}<MeasureField
					name="ranOutL"
					label="Ran out and caught"
					hint="Leave it empty if you did not catch it."
					unit="L"
					value={corrects?.ranOutL ?? null}
					optional
					{refused}
				/>{/if}
		</div>
		<SelectField
			name="way"
			label="How"
			value={corrects?.way ?? way}
			options={wateringWaysFor(weighed, corrects?.way).map((value) => ({
				value,
				label: wateringWayNames[value]
			}))}
			{refused}
		/>
		<TextField name="note" label="Note" value={corrects?.note ?? ''} optional {refused} />
		{#if weighed}
			<p class="text-sm text-slate">
				The weight before the next water tells how much its roots drink. A weighing without water is kept
				under
				<a class="chalk" href={resolve('/trees/[id]/examine/measure', { id: treeId })}>Measure</a>.
			</p>
		{/if}
		<Button type="submit" tone="solid">Keep it</Button>
	</form>
</Sheet>
