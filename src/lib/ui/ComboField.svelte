<script lang="ts">
	import { findBy, findNear } from '$core/text/search';
	import ChevronsUpDown from '@lucide/svelte/icons/chevrons-up-down';
	import { Combobox } from 'bits-ui';
	import { tick } from 'svelte';
	import type { ComboOption } from './combo';
	import Field from './Field.svelte';
	import { onReset } from './on-reset';
	import type { Refused } from './field';

	/** One of a long list, found by typing a part of its name. */
	interface Props {
		name: string;
		label: string;
		value?: string;
		options: readonly ComboOption[];
		placeholder?: string;
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		fieldClass?: string;
		/** The list is found elsewhere: what was typed goes there, and `options` are what came back. */
		onsearch?: (typed: string) => void;
		/** Choosing does something at once; then a name typed out in full does not choose yet. */
		immediate?: boolean;
		/** What is found elsewhere too must be one of the list: begun and not chosen falls back, emptied chooses nothing. */
		strict?: boolean;
		onchange?: (value: string) => void;
	}
	let {
		name,
		label,
		value = $bindable(''),
		options,
		placeholder,
		hint,
		optional = false,
		refused,
		fieldClass = '',
		onsearch,
		immediate = false,
		strict = !onsearch,
		onchange
	}: Props = $props();

	const LIMIT = 200;
	let field = $state<HTMLElement | null>(null);
	let typed = $state<string | null>(null);
	let open = $state(false);
	/** The refusal since which it was changed: what was sent then is no longer what stands here. */
	let changedSince = $state.raw<Refused | null>(null);
	const chosen = $derived(refused && refused !== changedSince ? (refused.typed[name] ?? value) : value);
	const labelOf = (of: string): string => options.find((option) => option.value === of)?.label ?? '';
	const shownText = $derived(typed ?? labelOf(chosen));
	const said = (option: ComboOption): string => `${option.label} ${option.also ?? ''}`;
	const called = $derived(
		onsearch || typed === null || typed.trim() === '' ? options : findBy(typed, options, said)
	);
	/** None is called so: what comes near is offered, and the list says that it is only near. */
	const near = $derived(
		!onsearch && typed !== null && called.length === 0 ? findNear(typed, options, said) : []
	);
	const found = $derived(called.length > 0 ? called : near);
	const shown = $derived(found.slice(0, LIMIT));
	const groups = $derived([...new Set(shown.map((option) => option.group))]);
	function set(next: string): void {
		value = next;
		changedSince = refused ?? null;
		onchange?.(next);
	}
	/** As if typed, so that a draft of the form holds it too. */
	async function tellForm(): Promise<void> {
		await tick();
		field?.dispatchEvent(new Event('change', { bubbles: true }));
	}
	async function take(next: string): Promise<void> {
		typed = null;
		set(next);
		await tellForm();
	}
	/** What was begun and not chosen is no choice: the field says again what stands. */
	function fallBack(): void {
		if (!strict || typed === null) return;
		typed = null;
		void tellForm();
	}
	function type(text: string): void {
		typed = text;
		// A draft that is put back opens no list.
		if (document.activeElement === field) open = true;
		onsearch?.(text);
		// Typed out in full it is chosen, unless choosing does something at once; a field that was emptied chooses nothing.
		const whole = options.find((option) => option.label === text.trim());
		if (whole && whole.value !== chosen && !immediate) set(whole.value);
		else if (text.trim() === '' && chosen !== '' && strict) set('');
	}
</script>

<Field
	{name}
	{label}
	{hint}
	{optional}
	{refused}
	said={labelOf}
	take={(kept) => void take(kept)}
	class={fieldClass}
>
	{#snippet control({ id, describedBy, invalid })}
		<Combobox.Root
			type="single"
			value={chosen}
			inputValue={shownText}
			allowDeselect={false}
			onValueChange={(next) => void take(next)}
			bind:open
			onOpenChangeComplete={(isOpen) => {
				if (!isOpen) fallBack();
			}}
		>
			<div class="relative">
				<!-- The value is said here: the part's own copy of it is written from two sides, and stays as typed now and then. -->
				<Combobox.Input
					bind:ref={field}
					{id}
					name="{name}~shown"
					class="input pr-11"
					autocomplete="off"
					{placeholder}
					aria-describedby={describedBy}
					aria-invalid={invalid}
					oninput={(event: Event & { currentTarget: HTMLInputElement }) => type(event.currentTarget.value)}
					onfocus={(event: FocusEvent & { currentTarget: HTMLInputElement }) => event.currentTarget.select()}
					onclick={() => (open = true)}
					onblur={() => {
						// A list left within the frame in which it opened is never told as closed.
						if (!open) fallBack();
					}}
					{@attach onReset(() => (typed = null))}
				>
					{#snippet child({ props })}
						<input {...props} value={shownText} />
					{/snippet}
				</Combobox.Input>
				<Combobox.Trigger
					class="absolute inset-y-0 right-0 flex w-11 items-center justify-center text-slate hover:text-ink"
					aria-label="Show the whole list"
					tabindex={-1}><ChevronsUpDown size={16} aria-hidden="true" /></Combobox.Trigger
				>
			</div>
			<Combobox.Portal>
				<Combobox.Content
					class="z-60 max-h-72 w-(--bits-combobox-anchor-width) min-w-64 overflow-y-auto rounded-md border border-edge bg-leaf py-1 shadow-lg outline-none"
					sideOffset={4}
				>
					{#if near.length > 0}
						<p class="px-3 py-2 text-sm text-slate">Nothing here is called “{typed}”. Near it:</p>
					{/if}
					{#each groups as group (group ?? '')}
						<Combobox.Group>
							{#if group}<Combobox.GroupHeading class="px-3 pt-2 pb-1 text-xs text-slate"
									>{group}</Combobox.GroupHeading
								>{/if}
							{#each shown.filter((option) => option.group === group) as option (option.value)}
								<Combobox.Item
									value={option.value}
									label={option.label}
									class="flex min-h-11 cursor-pointer items-center px-3 py-1.5 data-highlighted:bg-duff data-selected:font-semibold"
								>
									{option.label}
								</Combobox.Item>
							{/each}
						</Combobox.Group>
					{/each}
					{#if shown.length === 0}
						<p class="px-3 py-2 text-sm text-slate">
							{(typed ?? '').trim() === ''
								? 'Type a part of the name.'
								: `Nothing here is called “${typed}”.`}
						</p>
					{:else if found.length > LIMIT}
						<p class="px-3 py-2 text-sm text-slate">{found.length - LIMIT} more: type a part of the name.</p>
					{/if}
				</Combobox.Content>
			</Combobox.Portal>
		</Combobox.Root>
		<input type="hidden" {name} value={chosen} />
	{/snippet}
</Field>
