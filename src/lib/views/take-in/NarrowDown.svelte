<script lang="ts">
	/** Words that narrow a list of trees down. */
	interface Props {
		words: string;
	}
	let { words = $bindable() }: Props = $props();
</script>

<label class="flex min-w-60 flex-1 flex-col gap-1 sm:max-w-sm">
	<span class="text-sm font-semibold">Narrow down</span>
	<input class="input" type="search" bind:value={words} placeholder="tag, name, kind, place" />
</label>
