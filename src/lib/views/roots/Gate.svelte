<script lang="ts">
	import { resolve } from '$app/paths';
	import { roman } from '$core/roots/plan/plan';
	import type { StageGate } from '$core/roots/plan/stage-gate';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';

	/** Whether the tree has paid back the last stage, with the evidence. */
	interface Props {
		gate: StageGate;
		treeId: string;
		/** For the bench. */
		large?: boolean;
	}
	let { gate, treeId, large = false }: Props = $props();
	const format = useFormat();
	const words = {
		met: (stage: string) => `You may do stage ${stage}: it has regrown enough.`,
		'not-met': (stage: string) => `Wait with stage ${stage}: it has not regrown enough yet.`,
		unknown: (stage: string) => `Look before stage ${stage}: whether it has regrown enough is not known.`
	} as const;
</script>

<div
	class={[
		'border-l-4 pl-3',
		large ? 'text-2xl' : 'text-sm',
		gate.answer === 'met' ? 'border-lichen' : 'border-ochre'
	]}
	role="note"
	aria-label="Stage {roman(gate.stage)}"
>
	<p>
		<strong>{words[gate.answer](roman(gate.stage))}</strong>
		<Terms text={format().inWords(gate.because.join(' '))} />
	</p>
	{#if gate.answer !== 'met'}<a class="chalk" href={resolve('/trees/[id]/recovery', { id: treeId })}
			>Measure it</a
		>{/if}
</div>
