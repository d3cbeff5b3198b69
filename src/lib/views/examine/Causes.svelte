<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { pullWords } from '$core/examine/diagnosis/pull';
	import { actedWord, type Acted } from '$core/tree/urgent';
	import { midSentence } from '$core/text/mid-sentence';
	import { advise, type CauseAdvice } from '$core/examine/diagnosis/advice';
	import type { StandingToday } from '$core/examine/diagnosis/act-now';
	import { conditionIds, conditionOf, type ConditionId } from '$core/vocabulary/conditions';
	import type { DiagnosisContext } from '$core/examine/diagnosis/context';
	import type { Diagnosis } from '$core/examine/diagnosis/diagnose';
	import type { Finding } from '$core/examine/diagnosis/finding';
	import { referralWords, type Referral } from '$core/examine/diagnosis/referral';
	import { gradeWord, signOf, topGrade, type SignId } from '$core/vocabulary/signs';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import NumbersSheet from './NumbersSheet.svelte';

	/** What it may be: ranked, with reasons, what to do and when; what hangs together and what does not. */
	interface Props {
		diagnosis: Diagnosis;
		/** The same with the shipped numbers, when the owner has put in their own. */
		shipped: Diagnosis | null;
		/** The same before the look that is compared with, for the change of each chance. */
		earlier?: Diagnosis | null;
		context: DiagnosisContext;
		findings: readonly Pick<Finding, 'signId' | 'grade'>[];
		standing: StandingToday;
		referrals: readonly Referral[];
		values: Values;
		overridden: readonly string[];
		/** Works a diagnosis out anew with other numbers. */
		again: (values: Values) => Diagnosis;
		today: string;
		/** When a cause was acted on since the look; null where it was not. */
		acted?: (cause: ConditionId) => Acted | null;
		/** What follows from a cause of this tree. */
		follows: (cause: ConditionId) => string;
	}
	let {
		diagnosis,
		shipped,
		earlier = null,
		context,
		findings,
		standing,
		referrals,
		values,
		overridden,
		again,
		today,
		acted = () => null,
		follows
	}: Props = $props();
	const format = useFormat();

	const findingCount = $derived(findings.length);
	let openCause = $state<string | null>(null);
	let everyCause = $state(false);
	let numbersOf = $state<SignId | null>(null);
	const leading = $derived(
		everyCause
			? diagnosis.ranking
			: diagnosis.ranking.filter((cause, index) => index < 5 || cause.chance >= 0.15).slice(0, 9)
	);
	const sets = $derived(diagnosis.combinations.filter((set) => set.conditionIds.length > 0).slice(0, 3));
	const unusual = $derived(findingCount > 1 && diagnosis.conflict >= values['diagnosis.unusual-together']);
	const moved = $derived(
		shipped
			? diagnosis.ranking.flatMap((cause) => {
					const was = shipped.ranking.find((other) => other.conditionId === cause.conditionId)?.chance ?? 0;
					return Math.abs(was - cause.chance) >= 0.01 ? [{ cause, was }] : [];
				})
			: []
	);

	const chance = (value: number): string => chanceSaid(value, format().percent);
	const share = (value: number): string => (value < 0.005 ? 'under 1 %' : format().percent(value));
	const advice = $derived(advise(diagnosis, context, findings, standing, values));
	const adviceOn = (id: ConditionId): CauseAdvice | undefined =>
		advice.causes.find((cause) => cause.conditionId === id);
	const name = (id: ConditionId): string => midSentence(conditionOf(id).label);
	/** What to do about a cause, in one clause. */
	const todo = (one: CauseAdvice): string =>
		one.verdict === 'now'
			? 'Act now'
			: one.verdict === 'check' && one.check
				? `Check first: ${midSentence(signOf(one.check).label)}`
				: one.verdict === 'held' && one.heldBy
					? `Held back: it contradicts what ${name(one.heldBy)} asks ${one.about ?? ''}, and that is likelier`
					: one.verdict === 'window'
						? 'Let it wait'
						: !one.raised
							? 'Usual in a tree like this one; what was found hardly raises it'
							: one.chance >= values['diagnosis.likely']
								? 'Leave it, and look again: treating it now costs more than waiting'
								: 'Look further first';
	const before = (id: ConditionId): number | null =>
		earlier?.ranking.find((cause) => cause.conditionId === id)?.chance ?? null;
	const found = (sign: SignId, grade: number): string =>
		grade === 0 ? ', not there' : topGrade(sign) === 1 ? '' : `, ${gradeWord(sign, grade)}`;
	const names = (ids: readonly ConditionId[]): string => {
		const [first = '', ...others] = ids.map((id) => midSentence(conditionOf(id).label));
		return others.length === 0 ? first : `${first} with ${others.join(' and ')}`;
	};
</script>

{#each advice.danger as danger (danger)}
	<div class="mt-2 border-l-4 border-oxide py-1 pl-3" role="alert">
		<p class="font-semibold text-oxide">Danger to people</p>
		<p class="text-sm">{danger}</p>
	</div>
{/each}
{#each referrals as referral (referral.because)}
	<div class="mt-2 border-l-4 border-oxide py-1 pl-3" role="alert">
		<p class="font-semibold text-oxide">
			{referral.urgency === 'now' ? 'Stop. ' : ''}Qualified arborist, {referralWords[referral.urgency]}
		</p>
		<p class="text-sm">{format().inWords(`${referral.because} ${referral.until}`)}</p>
	</div>
{/each}

<p class="mt-2 text-sm text-slate" role="status">
	{findingCount === 0
		? 'Only what is usual among trees like this one: record a sign to start.'
		: diagnosis.nothingFound
			? `Nothing found in ${findingCount} signs looked for: leave it alone, nothing is wrong as far as you looked.`
			: `From ${findingCount} sign${findingCount === 1 ? '' : 's'}; several may hold at once.`}
</p>
{#if findingCount > 0 && diagnosis.notLookedAt.length > 0 && diagnosis.nothingFound}
	<p class="mt-1 text-sm">
		Not looked at yet: {diagnosis.notLookedAt.map((id) => midSentence(signOf(id).label)).join('; ')}.
	</p>
{/if}
<ol class="mt-2 divide-y border-y">
	{#each leading as cause (cause.conditionId)}
		{@const condition = conditionOf(cause.conditionId)}
		{@const one = adviceOn(cause.conditionId)}
		{@const now = one?.act}
		{@const done = one?.verdict === 'now' ? acted(cause.conditionId) : null}
		{@const verdict = done ? 'acted' : (one?.verdict ?? 'look')}
		{@const was = before(cause.conditionId)}
		<li class="py-2">
			<button
				class="grid w-full grid-cols-[1fr_auto] items-baseline gap-x-3 text-left"
				aria-expanded={openCause === cause.conditionId}
				onclick={() => (openCause = openCause === cause.conditionId ? null : cause.conditionId)}
			>
				<span class="font-semibold"
					>{condition.label}{#if findingCount > 0 && verdict === 'now'}<span class="sr-only">,</span>
						<span class="ml-1 text-sm font-bold text-oxide">act now</span
						>{:else if findingCount > 0 && done}<span class="sr-only">,</span>
						<span class="ml-1 text-sm font-semibold whitespace-nowrap text-slate"
							>{actedWord(cause.conditionId, done)} {format().day(done.on, today)}</span
						>{:else if findingCount > 0 && verdict === 'check'}<span class="sr-only">,</span>
						<span class="ml-1 text-sm font-semibold text-ochre">check first</span
						>{:else if findingCount > 0 && verdict === 'held'}<span class="sr-only">,</span>
						<span class="ml-1 text-sm font-semibold text-ochre">held back</span
						>{:else if findingCount > 0 && verdict === 'window' && now}<span class="sr-only">,</span>
						<span class="ml-1 text-sm font-semibold text-ochre"
							>{now.waitUntil ? `waits for ${format().day(now.waitUntil, today)}` : 'waits'}</span
						>{/if}</span
				>
				<span class="font-display font-semibold"
					>{#if was !== null && Math.abs(was - cause.chance) >= 0.01}<span
							class="mr-1 text-sm font-normal text-slate">{chance(was)} →</span
						>{/if}{chance(cause.chance)}</span
				>
				<span class="relative col-span-2 mt-1 block h-2 rounded-sm bg-duff">
					<span
						class={[
							'absolute inset-y-0 left-0 rounded-sm',
							verdict === 'now' && findingCount > 0 ? 'bg-oxide' : 'bg-bark'
						]}
						style="width: {cause.chance * 100}%"
					></span>
					<span
						class="absolute -inset-y-0.5 w-0.5 bg-ink"
						style="left: {cause.prior * 100}%"
						title="before any sign: {chance(cause.prior)}"
					></span>
				</span>
			</button>
			{#if openCause === cause.conditionId || (openCause === null && cause === leading[0] && findingCount > 0)}
				<div class="mt-2 text-sm">
					{#if one?.heldBy}
						<p>
							<strong>Held back:</strong>
							{name(one.heldBy)} is likelier and asks the opposite {one.about}.
						</p>
						<p class="text-slate">If it is this after all: <Terms text={follows(cause.conditionId)} /></p>
					{:else}
						<p><Terms text={follows(cause.conditionId)} /></p>
					{/if}
					{#if now && !done && !condition.untreatable}
						<p class="mt-1">
							<Workings
								label="Acting now or waiting: {condition.label}"
								formula="acting: disturbance now + chance × what treatment cannot avert · waiting: chance × (loss until then + disturbance then)"
								lines={[
									{ label: 'Chance of the cause', value: chance(cause.chance) },
									{
										label: 'Disturbance now, in this season, at this vigour',
										value: share(now.disturbanceNow),
										mark: markOf(`diagnosis.disturbance.${cause.conditionId}`)
									},
									{ label: 'Disturbance then', value: share(now.disturbanceThen) },
									{
										label: `Lost in ${format().number(now.waitMonths, 1)} months, if it holds`,
										value: share(now.lossWaiting),
										mark: markOf(`diagnosis.loss.${cause.conditionId}`)
									},
									{
										label: 'of which treatment averts',
										value: format().percent(values[`diagnosis.averts.${cause.conditionId}`]),
										mark: markOf(`diagnosis.averts.${cause.conditionId}`)
									},
									{
										label: 'Acting loses less from a chance of',
										value: now.threshold > 1 ? 'never, in this season' : chance(now.threshold)
									}
								]}
								changes="Another season, another vigour, or a tree that fails within weeks."
								><span
									>{one ? todo(one) : ''}. Acting costs about {share(now.actingCost)} of its chance to live, waiting
									{now.waitUntil
										? `until ${format().day(now.waitUntil, today)}`
										: `${format().number(now.waitMonths, 0)} month${now.waitMonths < 1.5 ? '' : 's'}`}
									{share(now.waitingCost)}.</span
								></Workings
							>
						</p>
					{/if}
					<ul class="mt-1.5">
						{#each cause.reasons as reason (reason.signId)}
							<li class="flex items-baseline gap-2 py-0.5">
								<span aria-hidden="true" class={['font-bold', reason.pull > 0 ? 'text-oxide' : 'text-lichen']}
									>{reason.pull > 0 ? '+' : '−'}</span
								>
								<button class="chalk text-left" onclick={() => (numbersOf = reason.signId)}
									>{signOf(reason.signId).label}{found(reason.signId, reason.grade)}: {pullWords(
										reason.pull,
										values
									)}</button
								>
							</li>
						{:else}
							<li class="text-slate">No finding moves it; this is how usual it is.</li>
						{/each}
					</ul>
					<p class="mt-1 text-xs text-slate">
						The mark on the bar is the chance before any sign. Touch a sign for the numbers behind it.
					</p>
				</div>
			{/if}
		</li>
	{/each}
</ol>
<Button tone="quiet" size="small" class="mt-1" onclick={() => (everyCause = !everyCause)}
	>{everyCause ? 'Only the leading ones' : `All ${conditionIds.length}`}</Button
>

{#if findingCount > 0 && sets.length > 0}
	<h3 class="mt-3 text-base">Most probable together</h3>
	<ul class="text-sm">
		{#each sets as set (set.conditionIds.join())}
			<li class="flex justify-between gap-3 py-0.5">
				<span class="inline-block first-letter:uppercase">{names(set.conditionIds)}</span>
				<span class="font-semibold">{chance(set.chance)}</span>
			</li>
		{/each}
	</ul>
{/if}
{#each diagnosis.contradictions as pair (pair.first + pair.second)}
	<div class="mt-3">
		<Caution title="Hardly both"
			>“{signOf(pair.first).label}” and “{signOf(pair.second).label}” exclude each other on one day. Look
			again; until then both count.</Caution
		>
	</div>
{/each}
{#if unusual}
	<p class="mt-3 text-sm text-ochre">
		These findings are {format().number(diagnosis.conflict)} times rarer together than each would be by itself:
		one may be misread, or it is something else.
	</p>
{/if}
{#if shipped}
	<details class="mt-3 text-sm">
		<summary class="chalk font-semibold text-ochre"
			>{overridden.length} of your own numbers count here</summary
		>
		<ul class="mt-1">
			{#each moved as { cause, was } (cause.conditionId)}
				<li class="flex justify-between gap-3 py-0.5">
					<span>{conditionOf(cause.conditionId).label}</span>
					<span>shipped {chance(was)}, yours <strong>{chance(cause.chance)}</strong></span>
				</li>
			{:else}
				<li class="text-slate">They move no cause by a whole percent here.</li>
			{/each}
		</ul>
	</details>
{/if}
<p class="mt-3 text-sm text-slate">
	{diagnosis.exact
		? `Exact over all combinations of ${conditionIds.length} causes.`
		: 'So much was found that it was taken in parts; the chances are close, not exact.'} Every number in it is our
	own working default and can be changed: touch a sign, or see Reference, Values.
</p>
<NumbersSheet bind:sign={numbersOf} {values} {overridden} {diagnosis} {again} />
