<script lang="ts">
	import { feelNames, feels, whereToFeel, type Feel } from '$core/examine/measuring/moisture';
	import { atStart } from '$core/text/mid-sentence';
	import Choice from '$ui/Choice.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';

	/** How wet it feels, or what a probe read: one of them is enough. */
	interface Props {
		feel: Feel | '';
		inGround?: boolean;
		refused?: Refused | null;
	}
	let { feel = $bindable(), inGround = false, refused }: Props = $props();
</script>

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
