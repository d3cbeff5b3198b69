<script lang="ts">
	import type { CutStop } from '$core/roots/plan/work-stops';
	import Caution from '$ui/Caution.svelte';
	import TextField from '$ui/TextField.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	/** What stands against these cuts today; going on all the same asks for a reason. */
	interface Props {
		stops: readonly CutStop[];
		because: string;
		/** They were answered already: only the reason stands, to be changed. */
		told?: boolean;
		refused?: Refused | null;
	}
	let { stops, because = $bindable(), told = false, refused }: Props = $props();
	const format = useFormat();
</script>

{#if stops.length > 0}
	{#if !told}
		<Caution title="Stop here first">
			<ul class="flex flex-col gap-1">
				{#each stops as stop (stop.kind)}<li>{format().inWords(stop.why)}</li>{/each}
			</ul>
		</Caution>
	{/if}
	<TextField
		name="because"
		label="Why it is cut all the same"
		value={because}
		maxlength={300}
		oninput={(event) => (because = event.currentTarget.value)}
		hint="It stands in the record. Or leave it, and choose another day."
		{refused}
	/>
{/if}
