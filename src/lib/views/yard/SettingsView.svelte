<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { enhance } from '$app/forms';
	import { locales, type FormatSettings, type UnitSystem } from '$core/text/format';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { handKinds, themes, type Hands, type Theme } from '$core/text/look';
	import { setHands, setTheme } from '$ui/theme.svelte';
	import { untrack } from 'svelte';

	interface Props {
		settings: FormatSettings;
		theme: string;
		hands: string;
		today: string;
		refused?: Refused | null;
	}
	let { settings, theme, hands: handsBefore, today, refused }: Props = $props();
	const format = useFormat();
	let units = $state<UnitSystem>(untrack(() => settings.units));
	let look = $state<Theme>(untrack(() => themes.find((one) => one === theme) ?? 'system'));
	let hands = $state<Hands>(untrack(() => handKinds.find((one) => one === handsBefore) ?? 'clean'));
	const localeNames: Record<(typeof locales)[number], string> = {
		'en-GB': '18 April 2026, 1,234.5',
		'en-US': 'April 18, 2026, 1,234.5',
		'de-DE': '18. April 2026, 1.234,5',
		'fr-FR': '18 avril 2026, 1 234,5',
		'nl-NL': '18 april 2026, 1.234,5',
		'es-ES': '18 de abril de 2026, 1234,5',
		'it-IT': '18 aprile 2026, 1234,5'
	};
</script>

<div class="page max-w-3xl pt-6">
	<h1 class="text-3xl">Units, dates and look</h1>
	<ForOwners told="Units and dates are the same for all of the yard: an owner sets them."
		><form method="POST" action="?/format" use:enhance={act({ keep: true })} class="mt-5 flex flex-col gap-5">
			<Problem {refused} />
			<Choice
				label="Units"
				name="units"
				bind:value={units}
				options={[
					{ value: 'metric', label: 'Metric: mm, L, kg, °C' },
					{ value: 'imperial', label: 'Imperial: in, US gal, lb, °F' }
				]}
			/>
			<SelectField
				name="locale"
				label="Dates and numbers"
				value={settings.locale}
				options={locales.map((value) => ({ value, label: localeNames[value] }))}
				{refused}
			/>
			<p class="text-slate">
				Now: {format().date(today)}; {format().measure(104, 'mm')}; {format().measure(14.37, 'L')}; {format().measure(
					-3,
					'°C'
				)}. Times are shown with 24 hours.
			</p>
			<div><Button type="submit" tone="solid">Keep</Button></div>
		</form></ForOwners
	>
	<div class="mt-8 border-t pt-5">
		<Choice
			label="Look, in this browser"
			bind:value={look}
			options={[
				{ value: 'light', label: 'Light' },
				{ value: 'dark', label: 'Dark' },
				{ value: 'glare', label: 'Glare, for bright sun' },
				{ value: 'system', label: 'As the device' }
			]}
			onchange={setTheme}
		/>
		<div class="mt-5">
			<Choice
				label="Hands, on this device"
				bind:value={hands}
				options={[
					{ value: 'clean', label: 'Clean' },
					{ value: 'dirty', label: 'Wet or in gloves' }
				]}
				onchange={setHands}
			/>
			<p class="mt-1 text-sm text-slate">
				With wet hands or gloves: one column, everything to touch at least a fingertip wide, numbers on large
				keys with what was typed there before.
			</p>
		</div>
	</div>
</div>
