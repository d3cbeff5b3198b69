<script lang="ts">
	import { resolve } from '$app/paths';
	import { enhance } from '$app/forms';
	import type { Judged } from '$core/practice/judged';
	import { addDays } from '$core/maths/calendar';
	import { decisionNames } from '$core/practice/round';
	import { atStart, midSentence } from '$core/text/mid-sentence';
	import { listed } from '$core/text/plural';
	import { conditionOf, type ConditionId } from '$core/vocabulary/conditions';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';
	import CourseOfRound from './CourseOfRound.svelte';
	import BrierCourse from './BrierCourse.svelte';

	/** A round that is over: what was true, where it turned, what each choice was worth, and what to do otherwise. */
	interface Props {
		round: { id: string; name: string; kind: string; setCase: number | null; seed: number };
		judged: Judged;
		startOn: string;
		days: { day: number; dryness: number; roots: number; watered: boolean }[];
		alive: number[];
		said: { day: number; chances: { conditionId: ConditionId; chance: number }[] }[];
		briers: number[];
	}
	let { round, judged, startOn, days, alive, said, briers }: Props = $props();
	const format = useFormat();
	const names = (ids: readonly ConditionId[]): string =>
		listed(ids.map((id) => midSentence(conditionOf(id).label)));
	const truth = $derived(
		judged.truth.length === 0 ? 'Nothing ailed it.' : `${atStart(names(judged.truth))} ailed it.`
	);
	const last = $derived(said.at(-1)?.chances ?? []);
	const points = (chance: number): string => `${chance > 0 ? '+' : '−'}${format().percent(Math.abs(chance))}`;
	const bars = $derived([
		{ label: 'Your care', chance: judged.own, own: true },
		{ label: 'Bruntle’s advice', chance: judged.advised, own: false },
		{ label: 'The best known', chance: judged.best, own: false },
		{ label: 'Watered, nothing else', chance: judged.nothing, own: false }
	]);
	const chances = $derived([
		...judged.truth.map((id) => ({
			id,
			true: true,
			chance: last.find((one) => one.conditionId === id)?.chance ?? 0
		})),
		...last
			.filter((one) => !judged.truth.includes(one.conditionId))
			.map((one) => ({ id: one.conditionId, true: false, chance: one.chance }))
	]);
</script>

<svelte:head><title>{round.name}, judged · Bruntle</title></svelte:head>

<div class="page max-w-5xl pt-6 pb-16">
	<p class="text-sm"><a class="chalk" href={resolve('/practice')}>Practice</a></p>
	<h1 class="text-3xl">{round.name}: {judged.diedOn === null ? 'it lives' : 'it died'}</h1>
	<p class="mt-2 max-w-3xl text-lg">
		{truth}
		{#if judged.diedOn !== null}On {format().date(judged.diedOn)} {judged.diedOf}.{/if}
		{#if judged.turned}It turned in the week of {format().date(judged.turned.on)}: {judged.turned.by} took {format().percent(
				judged.turned.lost
			)} of its chance.{/if}
	</p>

	{#if judged.decision.own !== null}<p class="mt-1 max-w-3xl">
			You decided to {decisionNames[judged.decision.own]}; {judged.decision.own === judged.decision.best
				? 'so the best way known has it too.'
				: `the best way known is to ${decisionNames[judged.decision.best]}.`}
		</p>{/if}

	<section class="mt-5 max-w-3xl border-l-4 border-ochre py-1 pl-4" aria-labelledby="lessons-title">
		<h2 id="lessons-title" class="text-xl">What to do otherwise</h2>
		<ul class="mt-1 grid gap-1">
			{#each judged.lessons as lesson (lesson)}<li>{format().inWords(lesson)}</li>{/each}
		</ul>
	</section>

	<div class="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-2">
		<section aria-labelledby="chance-title">
			<h2 id="chance-title" class="text-xl">Chance to come through</h2>
			<p class="mt-1 mb-2 text-sm text-slate">
				Over all luck, by what was done; yours is judged by this, never by how it fell out.
			</p>
			<table class="w-full">
				<tbody>
					{#each bars as bar (bar.label)}
						<tr>
							<th scope="row" class={['py-1 pr-3 text-left', bar.own ? 'font-bold' : 'font-normal']}
								>{bar.label}</th
							>
							<td class="w-1/2"
								><span
									class={['block h-4 rounded-sm', bar.own ? 'bg-lichen' : 'border border-lichen']}
									style="width: {Math.max(1, bar.chance * 100)}%"
								></span></td
							>
							<td class="py-1 pl-3 text-right tabular-nums">{format().percent(bar.chance)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
			<p class="mt-2 text-sm">
				{format().number(judged.minutes)} minutes of yours; the best known takes {format().number(
					judged.bestMinutes
				)} over the year.
			</p>
		</section>

		<section aria-labelledby="course-title">
			<h2 id="course-title" class="text-xl">How it went</h2>
			<CourseOfRound {days} {alive} {startOn} />
		</section>

		<section aria-labelledby="choices-title" class="min-w-0">
			<h2 id="choices-title" class="text-xl">Each choice</h2>
			<p class="mt-1 mb-2 text-sm text-slate">What its chance would have been without it.</p>
			<div class="overflow-x-auto">
				<table class="w-full text-sm">
					<thead
						><tr class="border-b text-left"
							><th scope="col" class="py-1 pr-3 font-semibold">Day</th><th
								scope="col"
								class="py-1 pr-3 font-semibold">What</th
							><th scope="col" class="py-1 pr-3 text-right font-semibold">Chance</th><th
								scope="col"
								class="py-1 text-right font-semibold">Minutes</th
							></tr
						></thead
					>
					<tbody>
						{#each judged.choices as choice, i (i)}
							<tr class="border-b align-top">
								<td class="py-1.5 pr-3">{format().date(addDays(startOn, choice.day))}</td>
								<td class="py-1.5 pr-3"
									>{choice.kind === 'left-undone' ? `left undone: ${choice.what}` : choice.what}</td
								>
								<td
									class={[
										'py-1.5 pr-3 text-right whitespace-nowrap tabular-nums',
										choice.chance < 0 && 'font-semibold text-oxide'
									]}>{Math.abs(choice.chance) < 0.005 ? 'none' : points(choice.chance)}</td
								>
								<td class="py-1.5 text-right tabular-nums">{Math.round(choice.minutes)}</td>
							</tr>
						{:else}<tr><td colspan="4" class="py-2 text-slate">Nothing was done to it.</td></tr>
						{/each}
					</tbody>
				</table>
			</div>
		</section>

		<section aria-labelledby="said-title">
			<h2 id="said-title" class="text-xl">What you said of it</h2>
			{#if said.length === 0}
				<p class="mt-1">You gave no chances, so that there is nothing to hold against what was true.</p>
			{:else}
				<table class="mt-1 w-full text-sm">
					<tbody>
						{#each chances as one (one.id)}
							<tr class="border-b">
								<th scope="row" class="py-1.5 pr-3 text-left font-semibold">{conditionOf(one.id).label}</th>
								<td class="py-1.5 pr-3 text-right">{format().percent(one.chance)}</td>
								<td class="py-1.5">{one.true ? 'it had it' : 'it had it not'}</td>
							</tr>
						{/each}
					</tbody>
				</table>
				<p class="mt-2 text-sm">
					Off by {format().number(judged.brier ?? 0, 3)} (mean square over all causes; 0 is right throughout){judged.brierFirst !==
						null && said.length > 1
						? `; your first word was off by ${format().number(judged.brierFirst, 3)}`
						: ''}.
				</p>
			{/if}
			{#if briers.length > 1}<BrierCourse {briers} />{/if}
		</section>
	</div>

	<div class="mt-8 flex flex-wrap gap-3">
		<form method="POST" action="/practice?/start" use:enhance>
			{#if round.setCase !== null}<input type="hidden" name="case" value={round.setCase} />{:else}<input
					type="hidden"
					name="seed"
					value={round.seed}
				/>{/if}
			<Button type="submit">The same tree once more</Button>
		</form>
		<Button href={resolve('/practice')}>Another tree</Button>
	</div>
</div>
