<script lang="ts">
	import { page } from '$app/state';
	import { readDate } from '$core/text/typed-date';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import { tick } from 'svelte';
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
	let field = $state<HTMLInputElement | null>(null);
	let open = $state(false);
	let button = $state<HTMLButtonElement | null>(null);
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
	async function choose(on: string): Promise<void> {
		type(on === '' ? '' : format().day(on));
		await tick();
		// As if typed, so that a draft of the form holds it too.
		field?.dispatchEvent(new Event('input', { bubbles: true }));
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

<Field
	{name}
	{label}
	{hint}
	{optional}
	{refused}
	said={written}
	take={(on) => void choose(on)}
	class={fieldClass}
>
	{#snippet control({ id, describedBy, invalid })}
		<div class="relative">
			<input
				bind:this={field}
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
				bind:this={button}
				type="button"
				class="absolute inset-y-0 right-0 flex w-11 items-center justify-center rounded-md text-slate hover:text-ink"
				aria-label="Open the calendar"
				aria-haspopup="dialog"
				aria-expanded={open}
				onclick={() => (open = !open)}><CalendarDays size={18} aria-hidden="true" /></button
			>
			{#if open}
				{#await import('./DayPicker.svelte') then { default: DayPicker }}
					<DayPicker
						bind:open
						value={isDay ? stored : ''}
						{today}
						locale={format().settings.locale}
						anchor={button}
						{min}
						{max}
						onchosen={(on) => void choose(on)}
					/>
				{/await}
			{/if}
			<input type="hidden" {name} value={stored} />
		</div>
	{/snippet}
</Field>
