<script lang="ts">
	interface Props {
		path: string;
		size?: number;
	}
	let { path, size = 16 }: Props = $props();
</script>

<svg
	viewBox="0 0 16 16"
	width={size}
	height={size}
	fill="none"
	stroke="currentColor"
	stroke-width="1.8"
	stroke-linecap="round"
	stroke-linejoin="round"
	aria-hidden="true"
	class="shrink-0"
>
	<path d={path} />
</svg>
