<script lang="ts">
	import { contextFor } from '$core/tree/carried';
	import { handsFor } from '$core/examine/measuring/ball-mass';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { TreeRecords } from '$core/tree/case';
	import { daysBetween } from '$core/maths/calendar';
	import type { Place } from '$core/vocabulary/place';
	import { nextWindowDay, seasonFit } from '$core/climate/windows';
	import { diagnose } from '$core/examine/diagnosis/diagnose';
	import type { Kind } from '$core/vocabulary/kind';
	import { permissionNames, permissions } from '$core/vocabulary/words';
	import {
		needsNewLook,
		pestStateNames,
		pestStates,
		purposeNames,
		purposes,
		triageAdvice,
		triageDecisionNames,
		triageDecisions,
		triageLook,
		vitalities,
		type Survival,
		type TriageDecision,
		type TriageSubject
	} from '$core/examine/triage/triage';
	import { isLarge } from '$core/examine/diagnosis/referral';
	import { isEvidence, type Fact } from '$core/tree/fact';
	import { standingOf } from '$core/tree/standing';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Terms from '$ui/Terms.svelte';
	import { untrack } from 'svelte';
	import ExamineParts from './ExamineParts.svelte';

	/** Go, nurse it first, or leave it: the look before lifting or treating, and what follows from it. */
	interface Props {
		records: TreeRecords;
		kind: Kind;
		place: Place | null;
		others: { id: string; tag: string; name: string }[];
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { records, kind, place, others, values, today, refused }: Props = $props();
	const format = useFormat();

	const tree = $derived(records.tree);
	const last = $derived(records.triages.at(-1));
	const begin = untrack(() => {
		const last = records.triages.at(-1);
		const vigour = records.tree.vigour;
		const stands = standingOf(records, today, values);
		/** What was seen the same weeks is taken over, with its day; anything older is asked for anew. */
		const lately = <T,>(fact: Fact<T>): T | null =>
			fact.on !== null && isEvidence(fact.known) && !needsNewLook({ decidedOn: fact.on }, today, values)
				? fact.value
				: null;
		return {
			// A tree that may hurt someone is treated where it stands, unless someone says otherwise.
			purpose:
				last?.purpose ??
				(records.tree.situation === 'in-ground' && !isLarge(records.tree, values)
					? ('lift' as const)
					: ('treat' as const)),
			scratchAlive: lately(stands.twigAlive),
			vitality: last?.vitality ?? vigour,
			permission: stands.permission.value ?? records.tree.permission,
			protectedSpecies: stands.protectedSpecies.value,
			servicesLocated: lately(stands.servicesLocated),
			pests: lately(stands.pests) ?? ('unknown' as const),
			ball: last?.ballDiameterMm ?? null,
			depth: last?.ballDepthMm ?? null,
			kept: last?.rootsKept ?? null,
			helpers: last?.helpers ?? 0,
			machine: last?.machine ?? false
		};
	});
	type Known = 'yes' | 'no' | 'unknown';
	const known = (value: boolean | null): Known => (value === null ? 'unknown' : value ? 'yes' : 'no');
	const truth = (value: Known | ''): boolean | null =>
		value === 'yes' ? true : value === 'no' ? false : null;
	const knownOptions = [
		{ value: 'yes' as const, label: 'Yes' },
		{ value: 'no' as const, label: 'No' },
		{ value: 'unknown' as const, label: 'Not known' }
	];

	let purpose = $state(begin.purpose);
	let vitality = $state<(typeof vitalities)[number]>(begin.vitality);
	let scratchAlive = $state<Known>(known(begin.scratchAlive));
	let permission = $state(begin.permission);
	let protectedSpecies = $state<Known>(known(begin.protectedSpecies));
	let servicesLocated = $state<Known>(known(begin.servicesLocated));
	let pests = $state<(typeof pestStates)[number]>(begin.pests);
	let keptPercent = $state<number | null>(begin.kept === null ? null : begin.kept * 100);
	let ballDiameterMm = $state<number | null>(begin.ball);
	let ballDepthMm = $state<number | null>(begin.depth);
	let helpers = $state<number | null>(begin.helpers);
	let machine = $state(begin.machine);
	let dyingInPlace = $state(false);
	let decidedOn = $state(untrack(() => today));
	let decision = $state<TriageDecision | ''>('');

	const lifting = $derived(purpose === 'lift');
	const on = $derived(decidedOn || today);
	const look = $derived({
		decidedOn: on,
		purpose,
		vitality,
		scratchAlive: truth(scratchAlive),
		permission,
		protectedSpecies: truth(protectedSpecies),
		servicesLocated: lifting ? truth(servicesLocated) : null,
		pests,
		rootsKept: lifting && keptPercent !== null ? keptPercent / 100 : null,
		ballDiameterMm: lifting ? ballDiameterMm : null,
		ballDepthMm: lifting ? ballDepthMm : null,
		helpers: helpers ?? 0,
		machine,
		dyingInPlace
	});
	const lastLook = $derived(records.examinations.findLast((examination) => examination.examinedOn <= on));
	const rotChance = $derived.by(() => {
		if (!lastLook) return 0;
		const { ranking } = diagnose(
			contextFor(records, lastLook.examinedOn, lastLook.events, lastLook.id, values).context,
			lastLook.findings,
			values
		);
		return Math.max(
			...ranking
				.filter((cause) => cause.conditionId === 'root-rot' || cause.conditionId === 'stem-rot')
				.map((cause) => cause.chance)
		);
	});
	const subject = $derived<TriageSubject>({
		group: kind.group,
		reserves: tree.reserves,
		trunkDiameterMm: tree.trunkDiameterMm,
		seasonFit: place ? seasonFit(kind, place, on, values) : 'shoulder',
		windowOn: place ? nextWindowDay(kind, place, on, values) : null,
		rotChance
	});
	const checked = $derived(triageLook.safeParse(look));
	const advice = $derived(checked.success ? triageAdvice(checked.data, subject, values) : null);
	/** What was advised when the person decided: a decision on another advice is not theirs. */
	let decidedOnAdvice = $state<TriageDecision | null>(null);
	const turned = $derived(decision !== '' && decidedOnAdvice !== (advice?.decision ?? null));
	const chosen = $derived(turned ? '' : decision);
	const stale = $derived(last && needsNewLook(last, today, values));
	const backups = $derived(advice?.backups ?? 0);
	const words: Record<TriageDecision, string> = {
		go: 'Go',
		ask: 'Find out first',
		first: 'Worth it, with these first',
		nurse: 'Nurse it first',
		leave: 'Leave it where it is'
	};
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
						label: lifting ? `Lifted in its window, fair, usual size` : 'Treated where it stands',
						value: format().percent(lifting ? values[`triage.lift.${kind.group}`] : values['triage.treat']),
						mark: markOf(lifting ? `triage.lift.${kind.group}` : 'triage.treat')
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

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label="Before the work" class="min-w-0 pt-1 pb-24">
		<ExamineParts treeId={tree.id} asks={stale ? { part: '/before', why: 'look again' } : null} />
		{#if last && stale}
			<div class="mt-3 border-l-4 border-ochre py-1 pl-3" role="note">
				<p class="font-semibold text-ochre">
					“{triageDecisionNames[last.decision]}” was decided {daysBetween(last.decidedOn, today)} days ago. Look
					again before you work by it.
				</p>
				<p class="text-sm">A decision stands for {format().number(values['triage.new-look-days'])} days.</p>
			</div>
		{/if}
		<form
			method="POST"
			action="?/decide"
			use:enhance={act({ keep: true, done: () => (decision = '') })}
			{@attach keepTyped(`before.${tree.id}`)}
			class="mt-3 flex flex-col gap-5"
			novalidate
		>
			<Problem {refused} />
			<Choice
				label="The work is to"
				name="purpose"
				bind:value={purpose}
				options={purposes.map((value) => ({ value, label: purposeNames[value] }))}
			/>
			<Choice
				label="Today it is"
				name="vitality"
				bind:value={vitality}
				options={vitalities.map((value) => ({ value, label: value }))}
			/>
			<div class="grid gap-5 sm:grid-cols-2">
				<div>
					<Choice label="A scratched twig is alive" bind:value={scratchAlive} options={knownOptions} />
					<input
						type="hidden"
						name="scratchAlive"
						value={scratchAlive === 'unknown' ? '' : scratchAlive === 'yes'}
					/>
				</div>
				<Choice
					label="Pests"
					name="pests"
					bind:value={pests}
					options={pestStates.map((value) => ({ value, label: pestStateNames[value] }))}
				/>
			</div>
			<Choice
				label="Permission"
				name="permission"
				bind:value={permission}
				options={permissions.map((value) => ({ value, label: permissionNames[value] }))}
			/>
			<div class="grid gap-5 sm:grid-cols-2">
				<div>
					<Choice label="Protected species or site" bind:value={protectedSpecies} options={knownOptions} />
					<input
						type="hidden"
						name="protectedSpecies"
						value={protectedSpecies === 'unknown' ? '' : protectedSpecies === 'yes'}
					/>
				</div>
				{#if lifting}
					<div>
						<Choice
							label="Gas, power, water, telecoms located"
							bind:value={servicesLocated}
							options={knownOptions}
						/>
						<input
							type="hidden"
							name="servicesLocated"
							value={servicesLocated === 'unknown' ? '' : servicesLocated === 'yes'}
						/>
					</div>
				{/if}
			</div>
			{#if lifting}
				<fieldset class="grid items-end gap-3 sm:grid-cols-4">
					<legend class="mb-1 font-display text-lg font-semibold">The ball and its weight</legend>
					<MeasureField
						name="ballDiameterMm"
						label="Ball across"
						unit="mm"
						optional
						value={ballDiameterMm}
						oninput={(mm) => (ballDiameterMm = mm)}
						{refused}
					/>
					<MeasureField
						name="ballDepthMm"
						label="Ball deep"
						unit="mm"
						optional
						value={ballDepthMm}
						oninput={(mm) => (ballDepthMm = mm)}
						{refused}
					/>
					<MeasureField
						name="kept"
						label="Roots kept, %"
						unit=""
						optional
						value={keptPercent}
						oninput={(percent) => (keptPercent = percent)}
						{refused}
					/>
					<input type="hidden" name="rootsKept" value={keptPercent === null ? '' : keptPercent / 100} />
					<MeasureField
						name="helpers"
						label="Helpers beside you"
						unit=""
						value={helpers}
						oninput={(people) => (helpers = people)}
						{refused}
					/>
					<label class="flex min-h-11 items-center gap-2 sm:col-span-4"
						><input type="checkbox" class="size-5" name="machine" bind:checked={machine} />A barrow, sling or
						machine takes the weight</label
					>
				</fieldset>
			{/if}
			<label class="flex min-h-11 items-center gap-2"
				><input type="checkbox" class="size-5" name="dyingInPlace" bind:checked={dyingInPlace} />It is lost
				where it stands, whatever is done</label
			>
			<fieldset class="flex flex-col gap-4 border-t pt-4">
				<legend class="sr-only">The decision</legend>
				<Choice
					label="You decide"
					name="decision"
					value={chosen}
					onchange={(value) => {
						decision = value;
						decidedOnAdvice = advice?.decision ?? null;
					}}
					options={triageDecisions.map((value) => ({ value, label: triageDecisionNames[value] }))}
				/>
				{#if advice && turned}
					<p class="text-sm text-ochre" role="status">
						The advice is another now ({triageDecisionNames[advice.decision].toLowerCase()}): decide anew.
					</p>
				{:else if advice && chosen !== '' && chosen !== advice.decision}
					<p class="text-sm text-ochre">
						Otherwise than advised ({triageDecisionNames[advice.decision].toLowerCase()}). Say why in the
						note.
					</p>
				{/if}
				<div class="grid gap-3 sm:grid-cols-2">
					<SelectField
						name="secondTreeId"
						label="If not this one, then"
						optional
						options={[
							{ value: '', label: 'no second choice' },
							...others.map((other) => ({ value: other.id, label: `${other.tag} ${other.name}` }))
						]}
						{refused}
					/>
					<MeasureField
						name="backups"
						label="Cuttings or divisions first"
						unit=""
						value={backups}
						hint={backups > 0
							? `It may well be lost: of ${backups} one takes with ${format().percent(values['triage.backups-sure'])} (${markOf('triage.cutting-strikes')}).`
							: undefined}
						{refused}
					/>
					<DateField
						name="decidedOn"
						label="Decided on"
						value={today}
						max={today}
						oninput={(day) => (decidedOn = day)}
						{refused}
					/>
					<TextField name="note" label="Why, and what else" optional {refused} />
				</div>
				<Button type="submit" tone="solid" size="large" class="self-start" disabled={chosen === ''}
					>Keep the decision</Button
				>
				{#if chosen === ''}<p class="text-sm text-slate">
						It is for you to decide; the advice stands beside it.
					</p>{/if}
			</fieldset>
		</form>
		{#if records.triages.length > 0}
			<h2 class="mt-8 text-lg">Decided before</h2>
			<ul class="divide-y border-y">
				{#each records.triages.toReversed() as triage (triage.id)}
					{@const second = others.find((other) => other.id === triage.secondTreeId)}
					<li class="flex items-start justify-between gap-3 py-2">
						<span
							><strong>{triageDecisionNames[triage.decision]}</strong>, to {purposeNames[triage.purpose]},
							{format().day(triage.decidedOn, today)}; it was {triage.vitality}.
							{#if triage.backups > 0}{triage.backups} cuttings first.{/if}
							{#if second}Else <a class="chalk" href={resolve('/trees/[id]/examine', { id: second.id })}
									>{second.tag}</a
								>.{/if}
							{#if triage.note}<span class="block text-sm text-slate">{triage.note}</span>{/if}</span
						>
						<form method="POST" action="?/remove" use:enhance={act({ keep: true })}>
							<input type="hidden" name="id" value={triage.id} /><input
								type="hidden"
								name="version"
								value={triage.version}
							/>
							<button
								class="chalk min-h-9 px-1 text-sm whitespace-nowrap text-slate"
								aria-label="Take out the decision of {format().day(triage.decidedOn)}">Take out</button
							>
						</form>
					</li>
				{/each}
			</ul>
		{/if}
	</section>

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
				{@render range('It lives, nursed first', advice.nursed)}
			</div>
			{#if subject.seasonFit !== 'in-window' && subject.windowOn}
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
			{#if lastLook}
				<p class="mt-3 text-sm text-slate">
					From the look of {format().day(lastLook.examinedOn, today)}: rot {format().percent(rotChance)}.
				</p>
			{:else}
				<p class="mt-3 text-sm text-slate">No look is kept yet; rot counts as unlikely until there is one.</p>
			{/if}
			{#if lifting}
				<div class="mt-3">
					<Caution title="Before a spade goes in"
						>Permission in writing, buried services located by whoever is responsible there, and the law on
						protected trees: local rules come before anything said here.</Caution
					>
				</div>
			{/if}
			{#if vitality === 'weak' || vitality === 'dying'}
				<p class="mt-3 text-sm text-slate">
					Two schools: a weak tree is left, for it seldom lives; or it is taken for that very reason, when it
					would be lost anyway.
				</p>
			{/if}
		{:else}
			<p class="mt-2 text-sm text-oxide" role="status">
				{checked.error?.issues[0]?.path.join(' ')}
				{checked.error?.issues[0]?.message}.
			</p>
		{/if}
	</Consequences>
</div>
