<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { handsFor } from '$core/examine/measuring/ball-mass';
	import type { Survival, TriageDecision } from '$core/examine/triage/triage';
	import { markOf } from '$core/values/values';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import Workings from '$ui/Workings.svelte';
	import type { BeforeWorkState } from './before-work-state.svelte';

	/** What the look before the work leads to: advice, chances, reasons. */
	let { before }: { before: BeforeWorkState } = $props();
	const format = useFormat();
	const { kind, values, today } = $derived(before.of);
	const look = $derived(before.look);
	const subject = $derived(before.subject);
	const advice = $derived(before.advice);
	const words: Record<TriageDecision, string> = {
		go: 'Go',
		ask: 'Find out first',
		first: 'Worth it, with these first',
		nurse: 'Nurse it first',
		leave: 'Leave it where it is'
	};
	const fieldNames: Record<string, string> = {
		decidedOn: 'The day of the decision',
		rootsKept: 'The share of roots kept',
		ballDiameterMm: 'The ball across',
		ballDepthMm: 'The depth of the ball',
		helpers: 'The number of helpers'
	};
	const problem = $derived.by(() => {
		const issue = before.checked.error?.issues[0];
		return issue
			? format().inWords(`${fieldNames[String(issue.path[0])] ?? 'A field'} ${issue.message}.`)
			: '';
	});
	const order = { must: 0, first: 1, against: 2, for: 3 };
	const points = (effect: number): string =>
		`${effect > 0 ? '+' : effect < 0 ? '−' : ''}${format().number(Math.abs(effect) * 100)} points`;
</script>

{#snippet range(title: string, survival: Survival)}
	<div>
		<div class="flex items-baseline justify-between gap-3">
			<span>{title}</span>
			<Workings
				label={title}
				formula="log-odds added up: base of its group, and what moves it"
				lines={[
					{
						label: before.lifting ? `Lifted in its window, fair, usual size` : 'Treated where it stands',
						value: format().percent(
							before.lifting ? values[`triage.lift.${kind.group}`] : values['triage.treat']
						),
						mark: markOf(before.lifting ? `triage.lift.${kind.group}` : 'triage.treat')
					},
					...survival.factors.map((factor) => ({
						label: factor.label,
						value: factor.known ? points(factor.effect) : 'not known: widens the range'
					}))
				]}
				changes="The range holds four times of five, as we judge it; it is our own, not from a trial."
				><strong class="font-display text-lg"
					>{format().percent(survival.low)} – {format().percent(survival.high)}</strong
				></Workings
			>
		</div>
		<div class="relative mt-1 h-3 rounded-sm bg-duff" aria-hidden="true">
			<span
				class="absolute inset-y-0 rounded-sm bg-lichen"
				style="left: {survival.low * 100}%; width: {(survival.high - survival.low) * 100}%"
			></span>
			<span
				class="absolute -inset-y-1 w-1 -translate-x-1/2 rounded-sm bg-ink"
				style="left: {survival.chance * 100}%"
			></span>
		</div>
	</div>
{/snippet}

<Consequences title="What follows">
	{#snippet summary()}
		{#if advice}<strong class="font-display text-xl">{words[advice.decision]}</strong>
			<span class="truncate"
				>{format().percent(advice.survival.low)} – {format().percent(advice.survival.high)} to live</span
			>{:else}<span>Some field needs another look</span>{/if}
	{/snippet}
	{#if advice}
		<p
			class={[
				'font-display text-3xl font-semibold',
				advice.decision === 'go'
					? 'text-lichen'
					: advice.decision === 'nurse' || advice.decision === 'ask' || advice.decision === 'first'
						? 'text-ochre'
						: 'text-oxide'
			]}
			role="status"
		>
			{words[advice.decision]}
		</p>
		<div class="mt-3 flex flex-col gap-3">
			{@render range('It lives, done today', advice.survival)}
			{#if advice.nursed}{@render range('It lives, nursed first', advice.nursed)}{/if}
		</div>
		{#if subject.seasonFit !== 'in-window' && subject.windowOn && !subject.pressing}
			<p class="mt-3">The next window opens on <strong>{format().date(subject.windowOn)}</strong>.</p>
		{/if}
		<ul class="mt-4 divide-y border-y">
			{#each advice.reasons.toSorted((a, b) => order[a.weight] - order[b.weight]) as reason (reason.text)}
				<li class="flex gap-2 py-1.5">
					<span
						aria-hidden="true"
						class={[
							'w-4 shrink-0 font-bold',
							reason.weight === 'must' || reason.weight === 'first'
								? 'text-oxide'
								: reason.weight === 'for'
									? 'text-lichen'
									: 'text-ochre'
						]}
						>{reason.weight === 'must' || reason.weight === 'first'
							? '!'
							: reason.weight === 'for'
								? '+'
								: '−'}</span
					>
					<span class={reason.weight === 'must' || reason.weight === 'first' ? 'font-semibold' : ''}
						><span class="sr-only"
							>{reason.weight === 'must'
								? 'Stops it: '
								: reason.weight === 'first'
									? 'First: '
									: reason.weight === 'for'
										? 'For it: '
										: 'Against it: '}</span
						><Terms text={format().inWords(reason.text)} /></span
					>
				</li>
			{/each}
		</ul>
		{#if advice.mass}
			<p class="mt-3 text-sm">
				<Workings
					label="Weight of the ball"
					formula="half way between half an ellipsoid and a cylinder × density of soil"
					lines={[
						{
							label: 'Least',
							value: format().measure(advice.mass.leastKg, 'kg', 0),
							mark: markOf('lifting.density-least')
						},
						{
							label: 'Most',
							value: format().measure(advice.mass.mostKg, 'kg', 0),
							mark: markOf('lifting.density-most')
						},
						{
							label: 'One person lifts, at best',
							value: format().measure(values['triage.person-kg'], 'kg', 0),
							mark: markOf('triage.person-kg')
						}
					]}
					changes="Wet clay weighs most. Shaking soil off makes it lighter."
					>About <strong>{format().measure(advice.mass.usualKg, 'kg', 0)}</strong>: {handsFor(
						advice.mass.people,
						values
					)}.</Workings
				>
			</p>
		{/if}
		<p class="mt-3 text-sm text-slate">
			{#if before.rot && before.rot.by !== 'cut-out'}
				{before.rot.by === 'look' ? 'From the look of' : 'By the roots laid open on'}
				{format().day(before.rot.on, today)}: {before.rot.chance > 0
					? `rot ${chanceSaid(before.rot.chance, format().percent)}`
					: 'no rot found'}.
			{:else}
				{before.rot
					? `The dead roots were cut out by ${format().day(before.rot.on, today)}, and nobody has looked for rot since`
					: 'Nobody has looked for rot or laid its roots open yet'}: rot counts as {format().percent(
					values['triage.rot-unknown']
				)} likely, and widens the range.
			{/if}
		</p>
		{#if before.lifting}
			<div class="mt-3">
				<Caution title="Before a spade goes in"
					>Permission in writing, buried services located by whoever is responsible there, and the law on
					protected trees: local rules come before anything said here.</Caution
				>
			</div>
		{/if}
		{#if look.vitality === 'weak' || look.vitality === 'dying'}
			<p class="mt-3 text-sm text-slate">
				Two schools: a weak tree is left, for it seldom lives; or it is taken for that very reason, when it
				would be lost anyway.
			</p>
		{/if}
	{:else}
		<p class="mt-2 text-sm text-oxide" role="status">
			{problem}
		</p>
	{/if}
</Consequences>
