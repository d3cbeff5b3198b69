<script lang="ts">
	import { enhance } from '$app/forms';
	import { feelNames, feels, whereToFeel, type Feel } from '$core/examine/measuring/moisture';
	import { atStart } from '$core/text/mid-sentence';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import DateField from '$ui/DateField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';

	/** How wet it feels, or what a probe read: it corrects the water that is reckoned. */
	interface Props {
		open: boolean;
		inGround?: boolean;
		today: string;
		refused?: Refused | null;
	}
	let { open = $bindable(), inGround = false, today, refused }: Props = $props();
	let feel = $state<Feel | ''>('');
</script>

<Sheet bind:open title="Felt or probed">
	<form
		method="POST"
		action="?/felt"
		use:enhance={act({
			done: () => {
				open = false;
				feel = '';
			}
		})}
		class="flex flex-col gap-3"
		novalidate
	>
		<Problem {refused} />
		<p class="text-sm text-slate">{whereToFeel(inGround)}</p>
		<Choice
			label="It feels"
			name="feel"
			bind:value={feel}
			options={feels.map((value) => ({
				value,
				label: atStart(feelNames[value])
			}))}
		/>
		<TextField
			name="probeShare"
			label="A probe reads, as a share of the volume"
			hint="0.25 is 25 % water."
			optional
			inputmode="decimal"
			{refused}
		/>
		<DateField name="measuredOn" label="On" value={today} max={today} {refused} />
		<Button type="submit" tone="solid">Keep it</Button>
	</form>
</Sheet>
