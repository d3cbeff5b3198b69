<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Feel } from '$core/examine/measuring/moisture';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import FeelFields from './FeelFields.svelte';

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
		<FeelFields bind:feel {inGround} {refused} />
		<DateField name="measuredOn" label="On" value={today} max={today} {refused} />
		<Button type="submit" tone="solid">Keep it</Button>
	</form>
</Sheet>
