<script lang="ts">
	/** A number moved by hand along its range; the arrow keys move it step by step. */
	interface Props {
		label: string;
		value: number;
		min: number;
		max: number;
		step?: number;
		/** The number in words. */
		shown: string;
		/** While it moves. */
		oninput: (value: number) => void;
		/** When it has come to rest. */
		onchange?: (value: number) => void;
	}
	let { label, value, min, max, step = 1, shown, oninput, onchange }: Props = $props();
</script>

<label class="grid grid-cols-[8rem_minmax(0,1fr)_6.5rem] items-center gap-2 text-sm">
	<span class="font-semibold">{label}</span>
	<input
		type="range"
		class="h-9 w-full cursor-pointer accent-ink"
		{min}
		{max}
		{step}
		{value}
		aria-valuetext={shown}
		oninput={(event) => oninput(event.currentTarget.valueAsNumber)}
		onchange={(event) => onchange?.(event.currentTarget.valueAsNumber)}
	/>
	<span class="text-right">{shown}</span>
</label>
