<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { readNumber } from '$core/text/typed';
	import { enhance } from '$app/forms';
	import { conditionOf } from '$core/vocabulary/conditions';
	import type { Diagnosis } from '$core/examine/diagnosis/diagnose';
	import { signOf, type SignId } from '$core/vocabulary/signs';
	import { keysOfSign } from '$core/values/diagnosis';
	import { isValueKey, workingValue, type ValueKey, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';

	/** The numbers behind one sign, to be changed, with what that changes before it is kept. */
	interface Props {
		sign: SignId | null;
		values: Values;
		overridden: readonly string[];
		diagnosis: Diagnosis;
		again: (values: Values) => Diagnosis;
	}
	let { sign = $bindable(), values, overridden, diagnosis, again }: Props = $props();
	const format = useFormat();

	let tried = $state<Partial<Record<ValueKey, string>>>({});
	const keys = $derived(sign ? keysOfSign(sign).filter(isValueKey) : []);
	const numberOf = (text: string | undefined): number | null => readNumber(text ?? '');
	const wrong = (key: ValueKey): string | null => {
		if (tried[key] === undefined) return null;
		const number = numberOf(tried[key]);
		const { min, max } = workingValue(key);
		return number === null || number < min || number > max ? `${min} to ${max}` : null;
	};
	const changed = $derived(
		keys.filter(
			(key) => tried[key] !== undefined && wrong(key) === null && numberOf(tried[key]) !== values[key]
		)
	);
	const then = $derived(
		changed.length > 0
			? again({
					...values,
					...Object.fromEntries(changed.map((key) => [key, numberOf(tried[key])]))
				} as Values)
			: null
	);
	const moves = $derived(
		then
			? then.ranking.flatMap((cause) => {
					const was = diagnosis.ranking.find((other) => other.conditionId === cause.conditionId)?.chance ?? 0;
					return Math.abs(was - cause.chance) >= 0.005 ? [{ cause, was }] : [];
				})
			: []
	);
	const open = {
		get now() {
			return sign !== null;
		},
		set now(value: boolean) {
			if (!value) {
				sign = null;
				tried = {};
			}
		}
	};
	const label = (key: ValueKey): string => workingValue(key).label.split(': ')[0] ?? '';
</script>

<Sheet
	bind:open={open.now}
	title={sign ? signOf(sign).label : ''}
	description="How often it is seen, by cause. All numbers are our own working defaults; yours count at once and everywhere."
	wide
>
	<ul class="divide-y border-y">
		{#each keys as key (key)}
			<li class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
				<label for="own-{key}" class="min-w-0 flex-1 basis-56 text-sm"
					>{label(key)}{#if key.includes('@')}<span class="text-slate">, at a higher grade</span
						>{/if}{#if overridden.includes(key)}<span class="block text-xs text-ochre"
							>yours; shipped {format().number(workingValue(key).value, 3)}</span
						>{/if}</label
				>
				<span class="flex items-center gap-1">
					{#if wrong(key)}<span class="text-sm text-oxide">{wrong(key)}</span>{/if}
					<input
						id="own-{key}"
						class="input !w-24 text-right"
						inputmode="decimal"
						value={tried[key] ?? String(values[key])}
						aria-invalid={wrong(key) !== null}
						oninput={(event) => (tried[key] = event.currentTarget.value)}
					/>
				</span>
			</li>
		{/each}
	</ul>
	<div class="mt-3 min-h-16" role="status">
		{#if changed.length === 0}
			<p class="text-sm text-slate">Change a number to see what it would change here.</p>
		{:else}
			<p class="text-sm font-semibold">It would change here</p>
			<ul class="text-sm">
				{#each moves.slice(0, 6) as { cause, was } (cause.conditionId)}
					<li class="flex justify-between gap-3">
						<span>{conditionOf(cause.conditionId).label}</span>
						<span>{format().percent(was, 1)} → <strong>{format().percent(cause.chance, 1)}</strong></span>
					</li>
				{:else}
					<li class="text-slate">nothing, for these findings.</li>
				{/each}
			</ul>
		{/if}
	</div>
	<ForOwners told="Owners of the yard keep numbers of their own; what you try here shows what would follow.">
		<form
			method="POST"
			action="?/numbers"
			use:enhance={act({ keep: true, done: () => (open.now = false) })}
			class="mt-3 flex gap-2"
		>
			<input
				type="hidden"
				name="numbers"
				value={JSON.stringify(Object.fromEntries(changed.map((key) => [key, numberOf(tried[key])])))}
			/>
			<Button type="submit" tone="solid" disabled={changed.length === 0}
				>Keep {changed.length === 1 ? 'my number' : `my ${changed.length} numbers`}</Button
			>
			<Button onclick={() => (open.now = false)}>Leave it</Button>
		</form>
		{#if keys.some((key) => overridden.includes(key))}
			<form
				method="POST"
				action="?/numbers"
				use:enhance={act({ keep: true, done: () => (open.now = false) })}
				class="mt-2"
			>
				<input
					type="hidden"
					name="numbers"
					value={JSON.stringify(
						Object.fromEntries(keys.filter((key) => overridden.includes(key)).map((key) => [key, null]))
					)}
				/>
				<Button type="submit" size="small">Back to the shipped numbers of this sign</Button>
			</form>
		{/if}
	</ForOwners>
</Sheet>
