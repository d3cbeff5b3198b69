<script lang="ts">
	import { chanceSaid } from '$core/text/percent';
	import { midSentence } from '$core/text/mid-sentence';
	import { contextFor } from '$core/tree/carried';
	import SheetActions from '$ui/SheetActions.svelte';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import { addDays } from '$core/maths/calendar';
	import type { Place } from '$core/vocabulary/place';
	import { seasonFitNames } from '$core/climate/windows';
	import { advise } from '$core/examine/diagnosis/advice';
	import { standingOn } from '$core/examine/diagnosis/act-now';
	import { conditionOf, type ConditionId } from '$core/vocabulary/conditions';
	import { actedSince, actedWord, type Acted } from '$core/tree/urgent';
	import { recentEventNames } from '$core/vocabulary/season-and-events';
	import { diagnose } from '$core/examine/diagnosis/diagnose';
	import { compareLooks } from '$core/examine/diagnosis/examination';
	import { nextChecks, checkSentence } from '$core/examine/diagnosis/next-check';
	import { referrals, referralWords } from '$core/examine/diagnosis/referral';
	import { gradeWord, signOf, topGrade } from '$core/vocabulary/signs';
	import type { Kind } from '$core/vocabulary/kind';
	import { toolNames } from '$core/examine/measuring/measurement';
	import { readingWords } from '$core/examine/measuring/words';
	import { triageDecisionNames } from '$core/examine/triage/triage';
	import type { Values } from '$core/values/values';
	import Choice from '$ui/Choice.svelte';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';

	/** One page on what was found: for the owner of the tree, or for the arborist who is called. */
	interface Props {
		records: TreeRecords;
		kind: Kind;
		place: Place | null;
		values: Values;
		today: string;
	}
	let { records, kind, place, values, today }: Props = $props();
	const format = useFormat();
	const tree = $derived(records.tree);
	let chosen = $state(untrack(() => records.examinations.at(-1)?.id ?? ''));
	const look = $derived(records.examinations.find((examination) => examination.id === chosen));
	const before = $derived(look ? records.examinations[records.examinations.indexOf(look) - 1] : undefined);
	const on = $derived(look?.examinedOn ?? today);
	const context = $derived(contextFor(records, on, look?.events ?? [], look?.id ?? null, values).context);
	const findings = $derived(look?.findings ?? []);
	const diagnosis = $derived(diagnose(context, findings, values));
	const standing = $derived(
		standingOn(
			{ tree, kind, place },
			// What was found last is acted on today, in the season of today.
			look?.id === records.examinations.at(-1)?.id ? today : on,
			{
				failingFast: look?.failingFast ?? false,
				girdlerGrade: findings.find((finding) => finding.signId === 'girdler-seen')?.grade ?? 0
			},
			values
		)
	);
	const leading = $derived(
		diagnosis.ranking.filter((cause, index) => index < 3 || cause.chance >= 0.3).slice(0, 5)
	);
	const warned = $derived(referrals(tree, findings, diagnosis, values));
	const advice = $derived(advise(diagnosis, context, findings, standing, values));
	const next = $derived(look ? nextChecks(context, findings, standing, values).checks.slice(0, 2) : []);
	const readings = $derived(
		records.measurements.filter(
			(measurement) => measurement.measuredOn <= on && measurement.measuredOn >= addDays(on, -60)
		)
	);
	const MOST_READINGS = 8;
	const changes = $derived(
		before
			? compareLooks(before.findings, findings).filter(
					(sign) => !['same', 'first looked', 'not looked'].includes(sign.change)
				)
			: []
	);
	const decision = $derived(records.triages.at(-1));
	const percent = (chance: number): string => chanceSaid(chance, format().percent);
	const seen = $derived(findings.filter((finding) => finding.grade > 0));
	const absent = $derived(findings.filter((finding) => finding.grade === 0));
	/** What was acted on since the look presses no more. */
	const done = (cause: ConditionId): Acted | null =>
		look ? actedSince(records, cause, look.examinedOn, values) : null;
	const verdicts = {
		now: 'act now',
		check: 'check first',
		held: 'held back',
		window: 'let it wait for the window',
		look: 'look further first'
	};
</script>

<div class="page py-5">
	<div class="no-print mb-4 flex flex-wrap items-end justify-between gap-3">
		<a class="chalk" href={resolve('/trees/[id]/examine', { id: tree.id })}>Back to Examine</a>
		{#if records.examinations.length > 1}
			<Choice
				label="The look of"
				bind:value={chosen}
				size="small"
				options={records.examinations
					.slice(-4)
					.reverse()
					.map((examination) => ({
						value: examination.id,
						label: format().day(examination.examinedOn, today)
					}))}
			/>
		{/if}
		<SheetActions title="{tree.tag} findings" print="Print this page" />
	</div>
	{#if look}
		<article
			data-sheet
			class="sheet mx-auto max-w-[50rem] border bg-leaf p-6 sm:p-8"
			aria-label="Finding sheet"
		>
			<header class="flex flex-wrap items-baseline justify-between gap-x-6 border-b-2 border-ink pb-2">
				<h2 class="text-2xl">{tree.tag} {tree.name}</h2>
				<p>Found on <strong>{format().date(on)}</strong></p>
				<p class="w-full text-sm text-slate">
					{kind.commonName}{kind.genus ? ` (${kind.genus})` : ''}, trunk {format().measure(
						tree.trunkDiameterMm,
						'mm'
					)}{tree.heightM ? `, ${format().measure(tree.heightM, 'm')} tall` : ''}, {tree.vigour}; {place?.name ??
						''}; {seasonFitNames[standing.seasonFit]}.
				</p>
			</header>
			{#each warned as referral (referral.because)}
				<p class="mt-3 border-l-4 border-oxide pl-3">
					<strong>Qualified arborist, {referralWords[referral.urgency]}.</strong>
					{format().inWords(`${referral.because} ${referral.until}`)}
				</p>
			{/each}
			<div class="mt-3 grid gap-x-8 sm:grid-cols-2">
				<section>
					<h3 class="text-base">Found</h3>
					<ul class="text-sm">
						{#each seen as finding (finding.signId)}
							<li>
								{signOf(finding.signId).label}{topGrade(finding.signId) > 1
									? `: ${gradeWord(finding.signId, finding.grade)}`
									: ''}{finding.measuredBy ? ' (measured)' : ''}
							</li>
						{:else}<li>Nothing.</li>{/each}
					</ul>
					{#if absent.length > 0}
						<h3 class="mt-3 text-base">Looked for, not there</h3>
						<p class="text-sm">{absent.map((finding) => signOf(finding.signId).label).join('; ')}.</p>
					{/if}
					{#if look.events.length > 0 || look.failingFast}
						<h3 class="mt-3 text-base">Lately</h3>
						<p class="text-sm">
							{[
								...look.events.map((event) => recentEventNames[event]),
								...(look.failingFast ? ['failing within weeks'] : [])
							].join(', ')}.
						</p>
					{/if}
					{#if readings.length > 0}
						<h3 class="mt-3 text-base">Measured</h3>
						<ul class="text-sm">
							{#each readings.slice(-MOST_READINGS) as measurement (measurement.id)}
								<li>
									{toolNames[measurement.raw.tool]}, {format().day(measurement.measuredOn, today)}: {readingWords(
										measurement.raw,
										measurement.measuredOn,
										tree,
										values,
										format()
									)}.
								</li>
							{/each}
						</ul>
					{/if}
				</section>
				<section>
					<h3 class="text-base">What it may be</h3>
					<table class="w-full text-sm">
						<thead class="sr-only"><tr><th>Cause</th><th>Chance</th></tr></thead>
						<tbody>
							{#each leading as cause (cause.conditionId)}
								{@const one = advice.causes.find((other) => other.conditionId === cause.conditionId)}
								{@const acted = one?.verdict === 'now' ? done(cause.conditionId) : null}
								{@const now = acted ? null : one?.act}
								<tr class="border-b align-top">
									<td class="py-1"
										><strong>{conditionOf(cause.conditionId).label}</strong>
										<span class="block"
											>{acted
												? `${actedWord(cause.conditionId, acted)} ${format().day(acted.on, today)}`
												: one
													? verdicts[one.verdict]
													: ''}{one?.verdict === 'window' && now?.waitUntil
												? `, ${format().day(now.waitUntil, today)}`
												: one?.check
													? `: ${midSentence(signOf(one.check).label)}`
													: one?.heldBy
														? `: contradicts ${midSentence(conditionOf(one.heldBy).label)} ${one.about}`
														: ''}{#if now && !conditionOf(cause.conditionId).untreatable}: acting costs about {percent(
													now.actingCost
												)} of its chance to live, waiting {percent(now.waitingCost)}{/if}</span
										>
										{#if cause.reasons.length > 0}<span class="block text-slate"
												>{cause.reasons
													.slice(0, 3)
													.map(
														(reason) =>
															`${reason.pull > 0 ? 'for' : 'against'}: ${midSentence(signOf(reason.signId).label)}${reason.grade === 0 ? ', not there' : ''}`
													)
													.join('; ')}</span
											>{/if}</td
									>
									<td class="py-1 pl-3 text-right font-semibold whitespace-nowrap">{percent(cause.chance)}</td
									>
								</tr>
							{/each}
						</tbody>
					</table>
					{#if next.length > 0}
						<h3 class="mt-3 text-base">Worth checking next</h3>
						<ul class="list-disc pl-5 text-sm">
							{#each next as check (check.signIds[0])}<li>
									{checkSentence(check, tree.situation, percent)}
								</li>{/each}
						</ul>
					{/if}
					{#if changes.length > 0 && before}
						<h3 class="mt-3 text-base">Since {format().day(before.examinedOn, today)}</h3>
						<p class="text-sm">
							{changes.map((sign) => `${midSentence(signOf(sign.signId).label)}: ${sign.change}`).join('; ')}.
						</p>
					{/if}
					{#if decision}
						<h3 class="mt-3 text-base">Decided</h3>
						<p class="text-sm">
							{triageDecisionNames[decision.decision]}, {format().day(decision.decidedOn, today)}. {decision.note}
						</p>
					{/if}
				</section>
			</div>
			{#if look.note}
				<h3 class="mt-3 text-base">Note</h3>
				<p class="text-sm">{look.note}</p>
			{/if}
			<footer class="mt-4 flex justify-between gap-6 border-t pt-2 text-xs text-slate">
				<p>
					Chances are worked out from our own working numbers; they rank what to look at and do not prove it.
					Whether a tree stands safely is judged by a qualified person on site.
				</p>
				<p class="whitespace-nowrap">Seen by ______________</p>
			</footer>
		</article>
	{:else}
		<p class="text-slate">No look is kept yet; there is nothing to print.</p>
	{/if}
</div>
