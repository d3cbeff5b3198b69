<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { squeezeResultNames, squeezeResults } from '$core/examine/measuring/hand-tests';
	import Choice from '$ui/Choice.svelte';
	import { type ToolProps } from './tool';

	let { onread }: ToolProps = $props();
	let result = $state<(typeof squeezeResults)[number] | ''>('');
	$effect(() => onread(result ? { tool: 'squeeze-test', result } : null));
</script>

<p class="mb-3">Take a moist handful of the mix from a hand deep, squeeze it hard once, and open the hand.</p>
<Choice
	label="It"
	bind:value={result}
	options={squeezeResults.map((value) => ({ value, label: atStart(squeezeResultNames[value]) }))}
/>
