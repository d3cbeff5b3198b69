<script lang="ts">
	import type { Refused } from './field';

	interface Props {
		refused?: Refused | null;
	}
	let { refused }: Props = $props();
</script>

{#if refused}
	<div class="border-l-4 border-oxide py-1 pl-3 text-oxide" role="alert">
		<p class="font-semibold">{refused.message}</p>
		{#if refused.advice}<p class="text-sm">{refused.advice}</p>{/if}
	</div>
{/if}
