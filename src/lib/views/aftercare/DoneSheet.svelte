<script lang="ts">
	import { resultAsked } from '$core/aftercare/tasks/result';
	import type { Feel } from '$core/examine/measuring/moisture';
	import { budStates, firmnesses, firmnessSaid, smells } from '$core/examine/looks/seen-words';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import DateField from '$ui/DateField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';
	import FeelFields from './FeelFields.svelte';
	import type { TaskAsked, TaskDone } from './task-asked';
	import TaskSheet from './TaskSheet.svelte';

	/** Asks for what a piece of work was to find out; the answer is filed as the record it is. */
	interface Props {
		/** The task that is done; null while nothing is asked. */
		task: (TaskDone & TaskAsked) | null;
		action: string;
		today: string;
		refused?: Refused | null;
	}
	let { task = $bindable(), action, today, refused }: Props = $props();
	const asked = $derived(task ? resultAsked(task) : null);
	let buds = $state<(typeof budStates)[number] | ''>('');
	let smell = $state<(typeof smells)[number] | ''>('');
	let feel = $state<Feel | ''>('');
	let firmness = $state<(typeof firmnesses)[number] | ''>('');
	const budWords = { none: 'None move', swelling: 'Swelling', open: 'Open' };
	const smellWords = { none: 'None', sour: 'Sour', sulphur: 'Sulphur', mouldy: 'Mouldy' };
</script>

<TaskSheet
	bind:task
	state="done"
	{action}
	description={asked
		? 'What came of it is kept as what it is, and counts on every page.'
		: 'Its days are over: say on which day it was done, or skip it.'}
	{refused}
	onkept={() => {
		buds = '';
		smell = '';
		firmness = '';
		feel = '';
	}}
>
	<input type="hidden" name="asked" value={asked ?? ''} />
	{#if asked === 'referral'}
		<TextField
			name="result"
			label="Who looked at it, when, and what they said"
			hint="And where the report is. Until this is written it stays open on every page of the tree."
			required
			maxlength={1200}
			{refused}
		/>
	{:else if asked === 'buds'}
		<Choice
			label="Buds"
			name="buds"
			bind:value={buds}
			options={budStates.map((value) => ({ value, label: budWords[value] }))}
		/>
	{:else if asked === 'smell'}
		<Choice
			label="Smell at the drain holes"
			name="smell"
			bind:value={smell}
			options={smells.map((value) => ({ value, label: smellWords[value] }))}
		/>
	{:else if asked === 'firmness'}
		<Choice
			label="How it stands, pushed gently"
			name="firmness"
			bind:value={firmness}
			options={firmnesses.map((value) => ({ value, label: firmnessSaid[value].now }))}
		/>
	{:else if asked === 'weight'}
		<MeasureField name="weightKg" label="It weighs" unit="kg" {refused} />
	{:else if asked === 'felt'}
		<FeelFields bind:feel {refused} />
	{:else if asked === 'watering'}
		<MeasureField
			name="litres"
			label="Poured"
			unit="L"
			optional
			hint="Leave it empty if you did not measure."
			{refused}
		/>
	{/if}
	<DateField
		name="on"
		label="Done on"
		value={task?.lapsed ? '' : today}
		hint={task?.lapsed ? 'About when, if nobody knows the day.' : undefined}
		max={today}
		{refused}
	/>
	<Button type="submit" tone="solid">Keep it</Button>
</TaskSheet>
