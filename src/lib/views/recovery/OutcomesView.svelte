<script lang="ts">
	import { counted } from '$core/text/plural';
	import { atStart } from '$core/text/mid-sentence';
	import { resolve } from '$app/paths';
	import { brierScore, brierSkill, reliability, type Said } from '$core/recovery/outcomes/forecast-score';
	import {
		entangledWith,
		outcomeFactorNames,
		outcomeFactors,
		outcomesBy,
		type LossRow,
		type OutcomeCase,
		type OutcomeFactor
	} from '$core/recovery/outcomes/outcomes';
	import { lossCauseNames } from '$core/take-in/tree';
	import { markOf, type Values } from '$core/values/values';
	import Choice from '$ui/Choice.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import { rollups } from 'd3';
	import SurvivalChart from './SurvivalChart.svelte';

	/** What the yard’s cases taught: outcomes by what was done, the app’s own forecasts judged, and the losses. */
	interface Props {
		cases: OutcomeCase[];
		said: (Said & { tag: string })[];
		losses: LossRow[];
		values: Values;
		today: string;
	}
	let { cases, said, losses, values, today }: Props = $props();
	const format = useFormat();
	let factor = $state<OutcomeFactor>('group');
	const overall = $derived(outcomesBy(cases, null, today, values)[0] ?? null);
	const groups = $derived(outcomesBy(cases, factor, today, values));
	const entangled = $derived(entangledWith(cases, factor, values));
	let shown = $state('');
	const curveOf = $derived(groups.find((group) => group.level === shown && group.curve) ?? overall);
	const bins = $derived(reliability(said));
	const score = $derived(brierScore(said));
	const skill = $derived(brierSkill(said));
	const causes = $derived(
		rollups(
			losses,
			(list) => list.length,
			(loss) => loss.lossCause ?? 'not-known'
		).sort((a, b) => b[1] - a[1])
	);
	const least = $derived(values['outcomes.least']);
</script>

<div class="page pt-6 pb-20">
	<h1 class="text-3xl">Outcomes</h1>
	<p class="mt-1 text-lg text-slate">
		{#if overall}
			{counted(overall.count, 'case')}:
			<strong class="text-ink">{overall.reEstablished} re-established</strong>, {overall.lost}
			lost, {overall.gone} gone elsewhere, {overall.inCare} in care.
		{:else}No case yet.{/if}
		{#if overall && overall.reEstablished + overall.lost < least}
			Too few are decided to claim anything; the counts stand for themselves.
		{/if}
	</p>

	<div class="mt-5 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_26rem]">
		<section aria-labelledby="by-title">
			<h2 id="by-title" class="text-lg">By what was done</h2>
			<div class="mt-2">
				<Choice
					label="By"
					hideLabel
					size="small"
					bind:value={factor}
					options={outcomeFactors.map((value) => ({ value, label: outcomeFactorNames[value] }))}
				/>
			</div>
			<div class="relative mt-3 overflow-x-auto">
				<table class="w-full text-sm">
					<thead>
						<tr class="border-b text-left text-slate">
							{#each [outcomeFactorNames[factor], 'cases', 're-established', 'lost', 'in care', 'half by'] as heading (heading)}
								<th class="py-1 pr-4 font-normal">{heading}</th>
							{/each}
						</tr>
					</thead>
					<tbody class="divide-y">
						{#each groups as group (group.level)}
							<tr>
								<th scope="row" class="py-2 pr-4 text-left font-semibold">
									{#if group.curve}
										<button
											class={['min-h-8 text-left', group.level === shown ? '' : 'chalk']}
											onclick={() => (shown = group.level === shown ? '' : group.level)}>{group.level}</button
										>
									{:else}{group.level}{/if}
								</th>
								<td class="pr-4">{group.count}</td>
								<td class="pr-4 text-lichen">{group.reEstablished}</td>
								<td class="pr-4 text-oxide">{group.lost}</td>
								<td class="pr-4">{group.inCare}</td>
								<td>
									{group.curve
										? group.medianDays === null
											? 'not half yet'
											: `${format().number(group.medianDays / 30.44)} months`
										: 'too few'}
								</td>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
			<p class="mt-1 text-xs text-slate">
				A time is given from {least} cases of a sort on. Lost trees stay among those for whom it has not happened.
			</p>
			{#if entangled.length > 0}
				<div class="mt-3 border-l-4 border-ochre pl-3 text-sm" role="note" aria-label="What went together">
					<p class="font-semibold text-ochre">Read no cause into this.</p>
					<ul>
						{#each entangled as one (one.factor)}
							<li>
								<Workings
									label="How closely two went together"
									formula="Cramér’s V over the cases where both are known: 0 apart, 1 one and the same"
									lines={[{ label: outcomeFactorNames[one.factor], value: format().number(one.v, 2) }]}
									changes="More cases, in which the two do not go together."
									>{outcomeFactorNames[one.factor]} went along with it</Workings
								> ({one.example}).
							</li>
						{/each}
					</ul>
				</div>
			{/if}
		</section>

		<div class="flex flex-col gap-8">
			<section aria-labelledby="time-title">
				<h2 id="time-title" class="text-lg">
					How long it took{curveOf && curveOf.level !== 'all' ? `: ${curveOf.level}` : ''}
				</h2>
				{#if curveOf?.curve && curveOf.curve.length > 0}
					<SurvivalChart
						curve={curveOf.curve}
						follows={curveOf.follows}
						label="Share re-established by days since the work, {curveOf.count} cases"
					/>
					<p class="text-xs text-slate">
						Kaplan–Meier with its 95 % interval; below, how many are still watched.
					</p>
				{:else}
					<p class="text-slate">No curve from fewer than {least} cases with one re-established.</p>
				{/if}
			</section>

			<section aria-labelledby="said-title">
				<h2 id="said-title" class="text-lg">What was forecast, and what came</h2>
				{#if score === null}
					<p class="text-slate">No forecast has been decided yet.</p>
				{:else}
					<p>
						<Workings
							label="Brier score"
							formula="mean of (said − came)²"
							lines={[
								{ label: 'decided forecasts', value: String(said.length) },
								{
									label: 'against always saying the share that came',
									value: skill === null ? 'all went one way' : format().percent(skill)
								}
							]}
							changes="Every case that is closed."><strong>{format().number(score, 3)}</strong></Workings
						>
						from {said.length} decided; 0 is perfect, 0.25 is tossing a coin.
						{said.length < least ? 'Too few to judge by.' : ''}
					</p>
					<ul class="mt-2 divide-y border-y text-sm" aria-label="Said against came">
						{#each bins as bin (bin.from)}
							<li class="grid grid-cols-[7rem_1fr_auto] items-center gap-3 py-1.5">
								<span>said {format().percent(bin.said)}</span>
								<span class="relative h-4 rounded-sm bg-duff" aria-hidden="true">
									<span
										class="absolute inset-y-1 bg-edge"
										style="left:{bin.low * 100}%; width:{(bin.high - bin.low) * 100}%"
									></span>
									<span class="absolute inset-y-0 w-1 bg-lichen" style="left:calc({bin.came * 100}% - 2px)"
									></span>
									<span class="absolute inset-y-0 w-0.5 bg-ink" style="left:{bin.said * 100}%"></span>
								</span>
								<span>{Math.round(bin.came * bin.count)} of {bin.count} came</span>
							</li>
						{/each}
					</ul>
					<p class="mt-1 text-xs text-slate">
						Line: our forecast. Green: what happened, with its 95 % interval.
					</p>
				{/if}
			</section>
		</div>
	</div>

	<section aria-labelledby="loss-title" class="mt-8">
		<h2 id="loss-title" class="text-lg">
			Register of losses <span class="text-base font-normal text-slate">{losses.length}</span>
		</h2>
		{#if causes.length > 1}
			<p class="text-sm text-slate">
				{causes.map(([cause, count]) => `${lossCauseNames[cause]} ${count}`).join(', ')}
			</p>
		{/if}
		<ul class="mt-2 divide-y border-y">
			{#each losses as loss (loss.treeId)}
				<li class="grid gap-x-6 gap-y-1 py-3 md:grid-cols-[16rem_1fr]">
					<div>
						<p class="flex items-center gap-2">
							<TreeTag tag={loss.tag} size="small" />
							<a class="chalk" href={resolve('/trees/[id]/recovery', { id: loss.treeId })}>{loss.name}</a>
						</p>
						<p class="text-sm text-slate">
							{loss.kindName}{loss.closedOn ? `, ${format().date(loss.closedOn)}` : ''}
						</p>
					</div>
					<div>
						<p class="font-semibold">
							{atStart(lossCauseNames[loss.lossCause ?? 'not-known'])}
						</p>
						{#if loss.shownEarlier}<p>
								<span class="text-slate">Shown earlier by:</span>
								{loss.shownEarlier}
							</p>{/if}
						{#if loss.lossConditions}<p class="text-sm text-slate">{loss.lossConditions}</p>{/if}
						<p class="text-sm">{loss.closingNote}</p>
					</div>
				</li>
			{:else}
				<li class="py-2 text-slate">No tree was lost.</li>
			{/each}
		</ul>
		<p class="mt-2 text-xs text-slate">
			Limits: {markOf('outcomes.least') === 'ours' ? 'our own' : ''} working values under Reference, Values.
		</p>
	</section>
</div>
