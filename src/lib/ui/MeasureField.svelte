<script lang="ts">
	import type { StoredUnit } from '$core/text/format';
	import { readMeasure, readNumber, readTwoWays } from '$core/text/typed';
	import { tick } from 'svelte';
	import Field from './Field.svelte';
	import { handsNow } from './theme.svelte';
	import { onReset } from './on-reset';
	import type { Refused } from './field';
	import { useFormat } from './format';

	/** A number typed in the person's units and sent in the stored unit. */
	interface Props {
		name: string;
		label: string;
		unit: StoredUnit | '';
		value?: number | null;
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		fieldClass?: string;
		oninput?: (stored: number | null) => void;
		/** A suggestion that nobody measured: it looks so, and is recorded so until it is touched or confirmed. */
		guess?: boolean;
		onconfirm?: () => void;
	}
	let {
		name,
		label,
		unit,
		value = null,
		hint,
		optional = false,
		refused,
		fieldClass = '',
		oninput,
		guess = false,
		onconfirm
	}: Props = $props();
	const format = useFormat();
	const plainFace = {
		unit: '',
		inField: (stored: number) => String(Math.round(stored * 1000) / 1000),
		toStored: (shown: number) => shown
	};
	const face = $derived(unit === '' ? plainFace : format().unitOf(unit));
	/** A value that was put in from elsewhere. */
	let taken = $state<number | null>(null);

	/** As typed: a fraction, or with a unit of either system behind it. What is shown of a value stands for it, however exact it is. */
	const read = (text: string): number | null => {
		const same = [value, taken].find((one) => one !== null && face.inField(one) === text.trim());
		if (same != null) return same;
		if (readTwoWays(text, format().decimalSign)) return null;
		const number = readNumber(text);
		if (number !== null) return face.toStored(number);
		return unit === '' ? null : readMeasure(text, unit, format().settings.units);
	};
	let typed = $state<string | null>(null);
	const initial = $derived.by(() => {
		const before = refused?.typed[`${name}~shown`];
		return before ?? (value === null ? '' : face.inField(value));
	});
	const shown = $derived(typed ?? initial);
	const twoWays = $derived(readTwoWays(shown, format().decimalSign));
	const stored = $derived.by(() => {
		const text = shown.trim();
		if (text === '') return '';
		const number = read(text);
		// What is no number goes as typed, so that the answer can name it.
		return number === null ? text : String(Math.round(number * 1e4) / 1e4);
	});
	let field = $state<HTMLInputElement | null>(null);
	const typedOf = (kept: string): string => (kept === '' ? '' : face.inField(Number(kept)));
	/** Open while the field is typed into with wet hands. */
	let padOpen = $state(false);
	const onPad = $derived(padOpen && handsNow() === 'dirty');
	/** Fetched when it is first wanted, so that the first page stays light. */
	let HandsPad = $state.raw<typeof import('./HandsPad.svelte').default | null>(null);
	$effect(() => {
		if (onPad) void import('./HandsPad.svelte').then((module) => (HandsPad = module.default));
	});
	/** On to the next number of the form, or away. */
	function next(): void {
		const all = [...(field?.form ?? document).querySelectorAll<HTMLInputElement>('input[data-measure]')];
		const following = all.slice(field ? all.indexOf(field) + 1 : 0).find((one) => one.checkVisibility());
		if (following) following.focus();
		else padOpen = false;
	}
	function take(kept: string): Promise<void> {
		taken = kept === '' ? null : Number(kept);
		return put(typedOf(kept));
	}
	async function put(text: string): Promise<void> {
		type(text);
		await tick();
		// As if typed, so that a draft of the form holds it too.
		field?.dispatchEvent(new Event('input', { bubbles: true }));
	}
	let sent: number | null = null;
	function type(text: string): void {
		typed = text;
		sent = text.trim() === '' ? null : read(text);
		oninput?.(sent);
	}
	const forget = (): void => {
		typed = null;
		sent = null;
	};
	$effect(() => {
		// A value set from outside replaces what was typed; an echo of the typing does not.
		if (value !== sent) typed = null;
	});
</script>

<Field
	{name}
	{label}
	hint={twoWays ? `${twoWays}.` : guess ? `A guess, measured by nobody.${hint ? ` ${hint}` : ''}` : hint}
	{optional}
	{refused}
	said={(kept) => `${typedOf(kept)} ${face.unit}`.trim()}
	take={(kept) => void take(kept)}
	class={fieldClass}
>
	{#snippet control({ id, describedBy, invalid })}
		<div
			class="relative"
			onfocusout={({ currentTarget, relatedTarget }) => {
				if (!(relatedTarget instanceof Node && currentTarget.parentElement?.contains(relatedTarget)))
					padOpen = false;
			}}
		>
			<input
				bind:this={field}
				{id}
				name="{name}~shown"
				data-measure={name}
				data-unit={face.unit}
				inputmode={handsNow() === 'dirty' ? 'none' : 'decimal'}
				onfocus={() => (padOpen = true)}
				onclick={() => (padOpen = true)}
				autocomplete="off"
				class={['input pr-14', guess && 'guess']}
				value={shown}
				defaultValue={initial}
				{@attach onReset(forget)}
				oninput={(event) => type(event.currentTarget.value)}
				aria-describedby={describedBy}
				aria-invalid={invalid}
			/>
			{#if face.unit}
				<span class="pointer-events-none absolute inset-y-0 right-3 flex items-center text-sm text-slate"
					>{face.unit}</span
				>
			{/if}
			<input type="hidden" {name} value={stored} />
		</div>
		{#if onPad && HandsPad}
			<HandsPad
				{name}
				unit={face.unit}
				{shown}
				onput={(text) => void put(text)}
				onnext={next}
				onclose={() => (padOpen = false)}
			/>
		{/if}
		{#if guess && onconfirm}
			<button type="button" class="chalk min-h-6 self-start text-sm" title={label} onclick={onconfirm}
				>It is so</button
			>
		{/if}
	{/snippet}
</Field>
