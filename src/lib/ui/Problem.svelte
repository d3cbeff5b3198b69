<script lang="ts">
	import type { Refused } from './field';
	import { useFormat } from './format';

	interface Props {
		refused?: Refused | null;
	}
	let { refused }: Props = $props();
	const format = useFormat();
</script>

{#if refused}
	<div class="border-l-4 border-oxide py-1 pl-3 text-oxide" role="alert">
		<p class="font-semibold">{format().inWords(refused.message)}</p>
		{#if refused.advice}<p class="text-sm">{format().inWords(refused.advice)}</p>{/if}
	</div>
{/if}
