<script lang="ts">
	import {
		woundEvidence,
		woundTreatmentNames,
		woundTreatments,
		type WoundTreatment
	} from '$core/roots/plan/wound';
	import Chips from '$ui/Chips.svelte';

	/** What was put on the wounds, with how far each is known to help. */
	let used = $state<WoundTreatment[]>([]);
</script>

<div>
	<Chips
		label="On the wounds"
		name="treatments"
		options={woundTreatments.map((value) => ({ value, label: woundTreatmentNames[value] }))}
		bind:value={used}
	/>
	<p class="mt-1 text-sm text-slate" role="status">
		{#if used.length === 0}
			Nothing but a clean cut: one school’s whole treatment.
		{:else}
			Evidence: {used
				.map((treatment) => `${woundTreatmentNames[treatment]} ${woundEvidence[treatment]}`)
				.join('; ')}. Doses are on the label.
		{/if}
	</p>
</div>
