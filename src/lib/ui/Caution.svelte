<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Snippet } from 'svelte';

	interface Props {
		title?: string;
		children: Snippet;
	}
	let { title = 'Caution', children }: Props = $props();
</script>

<div class="border-ochre flex gap-3 border-l-4 py-1 pl-3 text-sm" role="note">
	<TriangleAlert size={18} class="text-ochre mt-0.5 shrink-0" aria-hidden="true" />
	<p><strong class="text-ochre">{title}.</strong> {@render children()}</p>
</div>
