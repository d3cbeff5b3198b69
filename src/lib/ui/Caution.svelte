<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Snippet } from 'svelte';

	interface Props {
		title?: string;
		children: Snippet;
	}
	let { title = 'Caution', children }: Props = $props();
</script>

<div class="flex gap-3 border-l-4 border-ochre py-1 pl-3 text-sm" role="note">
	<TriangleAlert size={18} class="mt-0.5 shrink-0 text-ochre" aria-hidden="true" />
	<p><strong class="text-ochre">{title}.</strong> {@render children()}</p>
</div>
