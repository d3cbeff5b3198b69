<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import { parseQuickRoot } from '$core/roots/io/quick-entry';
	import {
		rootClasses,
		rootFlaws,
		rootFlawNames,
		type QuickRoot,
		type RootClass,
		type RootFlaw
	} from '$core/roots/map/root-map';
	import Button from '$ui/Button.svelte';
	import NumberPad from '$ui/NumberPad.svelte';
	import { useFormat } from '$ui/format';
	import Grid3x3 from '@lucide/svelte/icons/grid-3x3';
	import Repeat2 from '@lucide/svelte/icons/repeat-2';
	import Glyph from './Glyph.svelte';
	import { classGlyphs, flawGlyphs } from './glyphs';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();

	let line = $state('');
	let lastLine = $state('');
	let keys = $state(false);
	let field = $state<HTMLInputElement>();
	const parsed = $derived(
		line.trim() === ''
			? null
			: parseQuickRoot(
					line,
					roots.map.frame,
					roots.map.trunkDiameterMm,
					roots.options.values,
					format().settings.units
				)
	);
	const preview = $derived.by(() => {
		if (!parsed)
			return format().settings.units === 'imperial'
				? 'Place, thickness, words: 220° 3/8 dead1.5; 8 1.25 keep; 3 5/8 trace. A unit may follow: 9mm'
				: 'Place, thickness, words: 220° 9 dead40; 8 31 keep; 3 16 trace. A unit may follow: 3/8in';
		if (!parsed.ok) return format().inWords(parsed.problem);
		return say(parsed.root);
	});
	const say = (root: QuickRoot): string =>
		[
			`${format().clock(clockOf(root.azimuthDeg, roots.map.frame))} o’clock`,
			format().measure(root.diameterMm, 'mm'),
			root.rootClass,
			root.condition === 'sound'
				? ''
				: root.condition + (root.deadFromMm ? ` from ${format().measure(root.deadFromMm, 'mm')}` : ''),
			...root.flaws.map((flaw) => rootFlawNames[flaw]),
			`${format().measure(root.depthMm, 'mm')} deep`,
			root.keep ? 'keep' : '',
			root.sourceKnown ? '' : 'trace further',
			root.stage === null ? '' : root.stage === 0 ? 'cut now' : `cut in stage ${root.stage + 1}`
		]
			.filter(Boolean)
			.join(', ');

	function enter(event: SubmitEvent): void {
		event.preventDefault();
		if (!parsed?.ok) return;
		roots.add(parsed.root);
		lastLine = line;
		line = '';
	}
	export function focus(): void {
		field?.focus();
	}
	function onkeydown(event: KeyboardEvent): void {
		if (event.key === 'ArrowUp' && line === '' && lastLine) {
			line = lastLine;
			event.preventDefault();
		} else if (event.key === 'Escape') field?.blur();
	}

	/** Large keys: for wet hands. */
	let hour = $state(6);
	let halfHour = $state(false);
	/** Chosen among steps, as calipers in inches are read; in millimetres it is typed on the pad. */
	let stepMm = $state(12);
	let typedMm = $state('');
	let lastMm = $state<number | null>(null);
	const inSteps = $derived(format().settings.units === 'imperial');
	const MOST_DIGITS = 3;
	/** Null while it is not told. */
	const thicknessMm = $derived(inSteps ? stepMm : typedMm === '' ? null : Number(typedMm));
	const typeDigit = (key: string): void =>
		void (typedMm = key === 'back' ? typedMm.slice(0, -1) : (typedMm + key).slice(0, MOST_DIGITS));
	let rootClass = $state<RootClass | 'by-thickness'>('by-thickness');
	let condition = $state<QuickRoot['condition']>('sound');
	let flaw = $state<RootFlaw | ''>('');
	let note = $state('');
	const thicknesses = $derived(
		[2, 4, 6, 8, 10, 12, 15, 18, 22, 26, 30, 35, 45, 60, 80, 120].filter(
			(mm) => mm <= roots.map.trunkDiameterMm
		)
	);
	const keyClass = (on: boolean): string =>
		`min-h-13 rounded-md border text-lg font-semibold ${on ? 'bg-ink text-paper border-ink' : 'border-edge hover:border-ink'}`;
	function chooseFlaw(value: RootFlaw): void {
		flaw = flaw === value ? '' : value;
		if (flaw === 'rotten') condition = 'dead';
	}
	function addByKeys(): void {
		if (thicknessMm === null) return;
		const place = `${hour}:${halfHour ? '30' : '00'}`;
		// A class by thickness is left to the reading of it, so that it stays a guess.
		const chosen = rootClass === 'by-thickness' ? '' : rootClass;
		const entry = parseQuickRoot(
			`${place} ${thicknessMm} ${chosen} ${condition}`,
			roots.map.frame,
			roots.map.trunkDiameterMm,
			roots.options.values
		);
		if (!entry.ok) return;
		roots.add({
			...entry.root,
			note: note.slice(0, 400),
			flaws: flaw && (flaw !== 'rotten' || condition === 'dead') ? [flaw] : []
		});
		lastMm = thicknessMm;
		typedMm = '';
		flaw = '';
		condition = 'sound';
		note = '';
	}
</script>

<form onsubmit={enter}>
	<div class="flex gap-1.5">
		<label class="sr-only" for="quick-root">Quick entry of a root</label>
		<input
			id="quick-root"
			bind:this={field}
			bind:value={line}
			{onkeydown}
			class="input min-w-0 flex-1 font-semibold"
			placeholder="6:30 15 sec girdling"
			autocomplete="off"
			autocapitalize="off"
			spellcheck="false"
			aria-describedby="quick-preview"
			aria-invalid={parsed !== null && !parsed.ok}
		/>
		<Button type="submit" tone="solid" disabled={!parsed?.ok}>Add</Button>
		<Button
			class="!px-3"
			disabled={!lastLine}
			aria-label="Repeat the last root"
			title="Repeat the last root (arrow up in the empty field)"
			onclick={() => {
				line = lastLine;
				field?.focus();
			}}><Repeat2 size={18} /></Button
		>
		<Button
			class="!px-3"
			aria-expanded={keys}
			aria-label="Large keys"
			title="Large keys, for wet hands"
			onclick={() => (keys = !keys)}><Grid3x3 size={18} /></Button
		>
	</div>
	<p
		id="quick-preview"
		class={[
			'mt-1 min-h-5 text-xs',
			parsed && !parsed.ok ? 'font-semibold text-ochre' : parsed ? 'font-semibold text-lichen' : 'text-slate'
		]}
		aria-live="polite"
	>
		{preview}
	</p>
</form>

{#if keys}
	<div class="mt-3 flex flex-col gap-3 border-y py-3">
		<fieldset>
			<legend class="mb-1 text-sm font-semibold">Clock position</legend>
			<div class="grid grid-cols-6 gap-1.5">
				{#each [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11] as value (value)}
					<button
						type="button"
						class={keyClass(hour === value)}
						aria-pressed={hour === value}
						onclick={() => (hour = value)}>{value}</button
					>
				{/each}
			</div>
			<button
				type="button"
				class="{keyClass(halfHour)} mt-1.5 w-full"
				aria-pressed={halfHour}
				onclick={() => (halfHour = !halfHour)}>and a half, {hour}:30</button
			>
		</fieldset>
		<fieldset>
			<legend class="mb-1 text-sm font-semibold"
				>Thickness, {thicknessMm === null
					? 'measured at its base'
					: format().measure(thicknessMm, 'mm')}</legend
			>
			{#if inSteps}
				<div class="grid grid-cols-6 gap-1.5 sm:grid-cols-8">
					{#each thicknesses as value (value)}
						<button
							type="button"
							class={keyClass(stepMm === value)}
							aria-pressed={stepMm === value}
							onclick={() => (stepMm = value)}>{format().measure(value, 'mm')}</button
						>
					{/each}
				</div>
			{:else}
				<div class="max-w-sm">
					<NumberPad label="Thickness in mm" whole onkey={typeDigit} />
				</div>
				{#if lastMm !== null}
					<button
						type="button"
						class="{keyClass(false)} mt-1.5 w-full max-w-sm"
						onclick={() => (typedMm = String(lastMm))}>As the last, {format().measure(lastMm, 'mm')}</button
					>
				{/if}
			{/if}
		</fieldset>
		<fieldset>
			<legend class="mb-1 text-sm font-semibold">Class and condition</legend>
			<div class="grid grid-cols-2 gap-1.5 sm:grid-cols-4">
				{#each rootClasses as value (value)}
					<button
						type="button"
						class="{keyClass(rootClass === value)} flex items-center justify-center gap-2"
						aria-pressed={rootClass === value}
						onclick={() => (rootClass = rootClass === value ? 'by-thickness' : value)}
					>
						<Glyph path={classGlyphs[value]} size={20} />{value}
					</button>
				{/each}
			</div>
			<div class="mt-1.5 grid grid-cols-3 gap-1.5">
				{#each ['sound', 'doubtful', 'dead'] as const as value (value)}
					<button
						type="button"
						class={keyClass(condition === value)}
						aria-pressed={condition === value}
						onclick={() => (condition = value)}>{value}</button
					>
				{/each}
			</div>
		</fieldset>
		<fieldset>
			<legend class="mb-1 text-sm font-semibold">Flaw, if any</legend>
			<div class="grid grid-cols-2 gap-1.5 sm:grid-cols-3">
				{#each rootFlaws as value (value)}
					<button
						type="button"
						class="{keyClass(flaw === value)} flex items-center gap-2 px-3 text-left !text-sm"
						aria-pressed={flaw === value}
						onclick={() => chooseFlaw(value)}
					>
						<Glyph path={flawGlyphs[value]} size={18} />{rootFlawNames[value]}
					</button>
				{/each}
			</div>
		</fieldset>
		<label class="flex flex-col gap-1 text-sm font-semibold"
			>Note, if any<input
				class="input min-h-13 text-lg font-normal"
				maxlength="400"
				bind:value={note}
			/></label
		>
		<Button tone="solid" size="large" disabled={thicknessMm === null || thicknessMm === 0} onclick={addByKeys}
			>Add root at {hour}:{halfHour ? '30' : '00'}{thicknessMm === null
				? ''
				: `, ${format().measure(thicknessMm, 'mm')}`}</Button
		>
	</div>
{/if}
