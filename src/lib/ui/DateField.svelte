<script lang="ts">
	import { page } from '$app/state';
	import { readDate } from '$core/text/typed-date';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import Field from './Field.svelte';
	import { onReset } from './on-reset';
	import type { Refused } from './field';
	import { useFormat } from './format';

	/** A day as the person writes and reads it; it is sent as a calendar date. */
	interface Props {
		name: string;
		label: string;
		value?: string;
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		fieldClass?: string;
		min?: string;
		max?: string;
		/** The day once it is one, or nothing once the field is emptied. */
		oninput?: (on: string) => void;
	}
	let {
		name,
		label,
		value = '',
		hint,
		optional = false,
		refused,
		fieldClass = '',
		min,
		max,
		oninput
	}: Props = $props();
	const format = useFormat();
	const today = $derived(String(page.data.today ?? new Date().toISOString().slice(0, 10)));
	const read = (text: string): string | null => readDate(text, today, format().settings.locale);
	const written = (on: string): string => (read(on) === on ? format().day(on) : on);
	let typed = $state<string | null>(null);
	let sent: string | null = null;
	let picker = $state<HTMLInputElement>();
	const initial = $derived(refused?.typed[`${name}~shown`] ?? written(value));
	const shown = $derived(typed ?? initial);
	const stored = $derived(shown.trim() === '' ? '' : (read(shown) ?? shown.trim()));
	const isDay = $derived(stored !== '' && read(shown) !== null);
	function type(text: string): void {
		typed = text;
		const on = text.trim() === '' ? '' : read(text);
		if (on === null) return;
		sent = on;
		oninput?.(on);
	}
	$effect(() => {
		// A day set from outside replaces what was typed; an echo of the typing does not.
		if (sent !== null && value !== sent) {
			typed = null;
			sent = null;
		}
	});
	const forget = (): void => {
		typed = null;
		sent = null;
	};
</script>

<Field {name} {label} {hint} {optional} {refused} class={fieldClass}>
	{#snippet control({ id, describedBy, invalid })}
		<div class="relative">
			<input
				{id}
				name="{name}~shown"
				class="input pr-12"
				autocomplete="off"
				placeholder="like {format().day('2026-04-18')}"
				value={shown}
				defaultValue={initial}
				{@attach onReset(forget)}
				oninput={(event) => type(event.currentTarget.value)}
				onblur={() => {
					if (typed !== null && isDay) typed = format().day(stored);
				}}
				aria-describedby={describedBy}
				aria-invalid={invalid}
			/>
			<button
				type="button"
				class="absolute inset-y-0 right-0 flex w-11 items-center justify-center rounded-md text-slate hover:text-ink"
				aria-label="Open the calendar"
				onclick={() => picker?.showPicker()}><CalendarDays size={18} aria-hidden="true" /></button
			>
			<input
				bind:this={picker}
				type="date"
				class="pointer-events-none absolute right-0 bottom-0 size-px opacity-0"
				tabindex="-1"
				aria-hidden="true"
				value={isDay ? stored : ''}
				{min}
				{max}
				onchange={(event) => {
					event.stopPropagation();
					if (event.currentTarget.value) type(format().day(event.currentTarget.value));
				}}
			/>
			<input type="hidden" {name} value={stored} />
		</div>
	{/snippet}
</Field>
