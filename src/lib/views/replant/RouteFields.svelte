<script lang="ts">
	import { slopes, type Route, type RouteAnswer } from '$core/replant/lifting/route';
	import Choice from '$ui/Choice.svelte';
	import MeasureRow from '$ui/MeasureRow.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';
	import SiteAnswers from './SiteAnswers.svelte';

	/** The way from the hole to the vehicle, and whether the ball goes along it. */
	interface Props {
		route: Route;
		answers: RouteAnswer[];
		refused?: Refused | null;
	}
	let { route = $bindable(), answers, refused }: Props = $props();
</script>

<section aria-labelledby="route-title" class="flex flex-col gap-3">
	<h3 id="route-title" class="text-lg">The way to the vehicle</h3>
	<div class="grid gap-3 sm:grid-cols-2">
		<MeasureRow
			bind:of={route}
			prefix="route."
			measures={[
				{ key: 'narrowestMm', label: 'Narrowest gate', unit: 'mm', optional: true },
				{ key: 'carryM', label: 'Carried how far', unit: 'm', optional: true },
				{ key: 'steps', label: 'Steps on it', unit: '', empty: 0, whole: true },
				{ key: 'payloadKg', label: 'The vehicle may carry', unit: 'kg', optional: true },
				{ key: 'loadLengthMm', label: 'Length of its load space', unit: 'mm', optional: true }
			]}
			{refused}
		/>
		<TextField
			name="route.note"
			label="Route and vehicle, in words"
			optional
			value={route.note}
			oninput={(event) => (route.note = event.currentTarget.value)}
			{refused}
		/>
	</div>
	<Choice
		label="Ground"
		size="small"
		bind:value={route.slope}
		options={slopes.map((value) => ({ value, label: value }))}
	/>
	<SiteAnswers
		label="The way to the vehicle, judged"
		answers={answers.map(({ answer, text }) => ({ answer, because: text }))}
	/>
</section>
