<script lang="ts">
	/** How far something is. */
	interface Props {
		label: string;
		value: number;
		max: number;
		class?: string;
	}
	let { label, value, max, class: extra = '' }: Props = $props();
	const share = $derived(max > 0 ? Math.min(1, value / max) : 0);
</script>

<div
	class={['h-2 rounded-sm bg-duff', extra]}
	role="progressbar"
	aria-label={label}
	aria-valuemin="0"
	aria-valuemax={max}
	aria-valuenow={value}
>
	<div class="h-2 rounded-sm bg-bark" style="width: {share * 100}%"></div>
</div>
