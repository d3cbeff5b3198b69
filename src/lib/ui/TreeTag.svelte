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
		'bg-ink text-paper inline-flex items-center gap-1.5 font-display font-semibold whitespace-nowrap',
		size === 'small' ? 'h-6 pr-2 pl-3.5 text-xs' : 'h-8 pr-3 pl-4'
	]}
	style="clip-path: polygon(0.7em 0, 100% 0, 100% 100%, 0.7em 100%, 0 50%)"
>
	<span class="bg-paper size-1.5 rounded-full" aria-hidden="true"></span>{tag}
</span>
