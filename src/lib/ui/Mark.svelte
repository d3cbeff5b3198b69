<script lang="ts">
	interface Props {
		size?: number;
	}
	let { size = 28 }: Props = $props();
</script>

<!-- A stump with four roots, one of them cut. -->
<svg
	viewBox="4 3 24 26"
	width={size}
	height={size}
	fill="none"
	stroke="currentColor"
	stroke-linecap="round"
	aria-hidden="true"
>
	<g stroke-width="2.4">
		<path d="M16 5v9M11.5 14.5h9" />
		<path d="M13 15c-1 4-5 4-7 8" />
		<path d="M15 15c0 5-2 7-3 12" />
		<path d="M19 15c1 4 5 4 7 8" />
	</g>
	<path d="M15.4 19.2l6.2 5.4" class="text-oxide" stroke="currentColor" stroke-width="2.6" />
</svg>
