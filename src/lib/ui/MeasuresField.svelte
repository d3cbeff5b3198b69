<script lang="ts">
	import { numberTyped, readTwoWays } from '$core/text/typed';
	import type { StoredUnit } from '$core/text/format';
	import Field from './Field.svelte';
	import { onReset } from './on-reset';
	import type { Refused } from './field';
	import { useFormat } from './format';

	/** Several numbers on one line, typed in the person's units and sent one by one in the stored unit. */
	interface Props {
		name: string;
		label: string;
		unit: StoredUnit;
		hint?: string;
		refused?: Refused | null;
		/** What was read so far; words that are no numbers are left out. */
		onread?: (stored: number[]) => void;
	}
	let { name, label, unit, hint, refused, onread }: Props = $props();
	const format = useFormat();
	const face = $derived(format().unitOf(unit));

	let typed = $state<string | null>(null);
	const shown = $derived(typed ?? refused?.typed[`${name}~shown`] ?? '');
	// A comma parts two numbers only before a space; else it is the decimal sign.
	const words = $derived(shown.split(/[;\s]+|,(?=\s|$)/).filter(Boolean));
	const read = (word: string): number => (readTwoWays(word, format().decimalSign) ? NaN : numberTyped(word));
	// What is no number goes as typed, so that the answer can name it.
	const sent = $derived(
		words.map((word) =>
			Number.isFinite(read(word)) ? String(Math.round(face.toStored(read(word)) * 10) / 10) : word
		)
	);
	function type(text: string): void {
		typed = text;
		onread?.(sent.map(Number).filter(Number.isFinite));
	}
	const forget = (): void => type('');
</script>

<Field {name} label="{label}, {face.unit}" {hint} optional {refused}>
	{#snippet control({ id, describedBy, invalid })}
		<input
			{id}
			name="{name}~shown"
			inputmode="text"
			autocomplete="off"
			class="input"
			value={shown}
			defaultValue=""
			{@attach onReset(forget)}
			oninput={(event) => type(event.currentTarget.value)}
			aria-describedby={describedBy}
			aria-invalid={invalid}
		/>
		{#each sent as value, i (i)}<input type="hidden" {name} {value} />{/each}
	{/snippet}
</Field>
