<script lang="ts">
	/** A plant label cut to a point, with its hole. */
	interface Props {
		tag: string;
		size?: 'small' | 'usual';
	}
	let { tag, size = 'usual' }: Props = $props();
</script>

<span
	class={[
		'inline-flex items-center gap-1.5 bg-ink font-display font-semibold whitespace-nowrap text-paper',
		size === 'small' ? 'h-6 pr-2 pl-3.5 text-xs' : 'h-8 pr-3 pl-4'
	]}
	style="clip-path: polygon(0.7em 0, 100% 0, 100% 100%, 0.7em 100%, 0 50%)"
>
	<span class="size-1.5 rounded-full bg-paper" aria-hidden="true"></span>{tag}
</span>
