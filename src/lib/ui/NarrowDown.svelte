<script lang="ts">
	/** Words that narrow a long list down. */
	interface Props {
		words: string;
		/** What they may name, where that is not plain. */
		of?: string;
	}
	let { words = $bindable(), of = '' }: Props = $props();
</script>

<label class="flex min-w-60 flex-1 flex-col gap-1 sm:max-w-sm">
	<span class="text-sm font-semibold">Narrow down</span>
	<input class="input" type="search" bind:value={words} placeholder={of} />
</label>
