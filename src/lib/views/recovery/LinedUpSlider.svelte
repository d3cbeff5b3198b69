<script lang="ts">
	/** Which part of two pictures that lie over each other shows the earlier one. */
	interface Props {
		/** How much of the width shows the earlier, 0 … 100. */
		at: number;
		before: string;
		after: string;
	}
	let { at = $bindable(), before, after }: Props = $props();
</script>

<input
	type="range"
	min="0"
	max="100"
	bind:value={at}
	aria-label="How much of the earlier picture is seen"
	class="mt-2 h-8 w-full accent-lichen"
/>
<p class="flex justify-between text-sm"><span>{before}</span><span>{after}</span></p>
