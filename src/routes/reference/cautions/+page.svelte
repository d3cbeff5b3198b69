<script lang="ts">
	import { cautions } from '$core/text/cautions';
	import ReferenceFrame from '$views/reference/ReferenceFrame.svelte';
</script>

<ReferenceFrame
	title="Cautions"
	lead="Where work can hurt someone. Bruntle shows them where they matter, and defers to local codes and licensed people."
>
	<dl class="mt-5 divide-y border-y">
		{#each cautions as caution (caution.title)}
			<div class="grid gap-x-8 gap-y-1 py-4 sm:grid-cols-[14rem_1fr]">
				<dt class="font-display text-lg font-semibold">
					{caution.title}<span class="block font-sans text-sm font-normal text-slate">{caution.where}</span>
				</dt>
				<dd class="max-w-prose text-lg">{caution.text}</dd>
			</div>
		{/each}
	</dl>
</ReferenceFrame>
