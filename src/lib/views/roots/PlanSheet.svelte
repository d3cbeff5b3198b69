<script lang="ts">
	import { clockOf } from '$core/maths/circular';
	import { roman } from '$core/roots/plan/plan';
	import { startAzimuth } from '$core/roots/map/root-map';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Progress from '$ui/Progress.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import Workings from '$ui/Workings.svelte';
	import { useFormat } from '$ui/format';
	import type { RootsState } from './roots-state.svelte';
	import type { Proposed } from './ways.svelte';

	/** The three tempers side by side: what goes when, what it costs, what is left undone; one of them is taken. */
	interface Props {
		roots: RootsState;
	}
	let { roots }: Props = $props();
	const format = useFormat();
	let shown = $state<Proposed['temper'] | null>(null);
	const list = $derived(roots.ways.list ?? []);
	const one = $derived(
		list.find((proposed) => proposed.temper === shown) ??
			list.find((p) => p.temper === roots.plan.temper) ??
			list[0]
	);
	const open = {
		get now() {
			return roots.ways.list !== null;
		},
		set now(value: boolean) {
			if (value) return;
			roots.ways.close();
			shown = null;
		}
	};
	const at = (segmentId: string): string => {
		const segment = roots.map.segments.find((candidate) => candidate.id === segmentId);
		return segment
			? `${format().clock(clockOf(startAzimuth(segment), roots.map.frame))}, ${format().measure(segment.diameterStartMm, 'mm')}`
			: '';
	};
	const clockWords = (text: string): string =>
		format()
			.inWords(text)
			.replace(/(\d+)°(?! ?[CF])/g, (_, deg: string) =>
				format().clock(clockOf(Number(deg), roots.map.frame))
			);
	const rootWords = (text: string): string =>
		text.replace(/^root (\d+)/, (whole, number: string) => {
			const segment = roots.map.segments[Number(number) - 1];
			return segment ? `The root at ${at(segment.id)}` : whole;
		});
	const stagesOf = (proposed: Proposed) =>
		proposed.standing.ledger.stages.filter((stage) => stage.stage < proposed.plan.stageDates.length);
	function cutsIn(proposed: Proposed, stage: number): string {
		const cuts = proposed.plan.cuts.filter((cut) => cut.stage === stage && cut.state !== 'left');
		const done = cuts.filter((cut) => cut.state === 'done').length;
		return done > 0 ? `${done} done` : `${cuts.length} cut${cuts.length === 1 ? '' : 's'}`;
	}
	const proof = (gap: number | null): string =>
		gap === null
			? 'a careful plan, not proven the best: the time did not do'
			: gap <= 1e-6
				? 'proven best'
				: `within ${format().percent(gap, gap < 0.1 ? 1 : 0)} of the best`;
	const values = $derived(roots.options.values);
</script>

<Sheet
	bind:open={open.now}
	title="Ways to stage the work"
	description="Each is the best plan within its allowance: as much trouble gone as early as possible, for as little root as possible."
	wide="widest"
>
	{#if roots.ways.planning}
		<div class="flex items-center justify-between gap-3 border-b pb-3" role="status">
			<span>Working it out, {list.length} of 3 …</span>
			<Progress label="Ways worked out" value={list.length} max={3} class="flex-1" />
			<Button size="small" onclick={() => roots.ways.stop()}>Stop</Button>
		</div>
	{/if}
	{#if roots.ways.failed}<p class="font-semibold text-oxide" role="alert">{roots.ways.failed}</p>{/if}
	<div class="mt-2 grid gap-x-5 gap-y-6 sm:grid-cols-3">
		{#each list as proposed (proposed.temper)}
			{@const ledger = proposed.standing.ledger}
			<section
				aria-label={proposed.temper}
				class={['border-t-4 pt-2', one === proposed ? 'border-oxide' : 'border-line']}
			>
				<h3 class="text-lg first-letter:uppercase">{proposed.temper}</h3>
				<p class="font-display text-3xl font-semibold">{format().percent(ledger.totalLoss)}</p>
				<p class="text-sm text-slate">
					of living root in {stagesOf(proposed).length} stage{stagesOf(proposed).length === 1 ? '' : 's'}
				</p>
				<ul class="mt-2 text-sm">
					{#each stagesOf(proposed) as stage (stage.stage)}
						<li class="flex items-baseline justify-between gap-2 border-t py-1">
							<span
								><strong>{roman(stage.stage)}</strong>
								<span class="text-slate">{format().day(proposed.plan.stageDates[stage.stage] ?? '')}</span
								></span
							>
							<span class={stage.fits ? '' : 'font-bold text-oxide'}
								>{cutsIn(proposed, stage.stage)}, {format().percent(stage.loss)} of {format().percent(
									stage.allowed
								)}</span
							>
						</li>
					{/each}
				</ul>
				<dl class="mt-1 grid grid-cols-[1fr_auto] gap-x-2 border-t pt-1 text-sm">
					<dt>anchorage left, least</dt>
					<dd class={['font-semibold', ledger.least?.short && 'text-oxide']}>
						{ledger.least?.left === null || ledger.least === null
							? '–'
							: format().percent(ledger.least.left ?? 0)}
					</dd>
					<dt>widest gap after</dt>
					<dd class="font-semibold">{format().number(ledger.after.gapDeg)}°</dd>
					<dt>left undone</dt>
					<dd class="font-semibold">{proposed.result.left.length}</dd>
					<dt>
						<Workings
							label="How good the plan is"
							formula="Σ worth of what is settled × {values['plan.laterStage']}^stage − cost of root"
							lines={[
								{ label: 'Worth of this plan', value: `${format().number(proposed.result.worth, 1)} points` },
								{ label: 'Rot', value: String(values['plan.benefit.rot']), mark: markOf('plan.benefit.rot') },
								{
									label: 'Serious girdler',
									value: String(values['plan.benefit.girdling.serious']),
									mark: markOf('plan.benefit.girdling.serious')
								},
								{
									label: 'Circling, turned back',
									value: String(values['plan.benefit.circling']),
									mark: markOf('plan.benefit.circling')
								},
								{
									label: 'All living root',
									value: `−${values['plan.livingCost']}`,
									mark: markOf('plan.livingCost')
								},
								{
									label: 'All structural root',
									value: `−${values['plan.structuralCost']}`,
									mark: markOf('plan.structuralCost')
								}
							]}
							changes="Solved exactly by branch and bound; when it stops early, how far the best could be above it is proven."
							>the plan is</Workings
						>
					</dt>
					<dd class="font-semibold">{proof(proposed.result.gap)}</dd>
				</dl>
				<div class="mt-3 flex gap-2">
					<Button
						tone={proposed.temper === roots.plan.temper ? 'solid' : 'outline'}
						onclick={() => roots.take(proposed)}>Take {proposed.temper}</Button
					>
					<Button
						tone="quiet"
						size="small"
						aria-pressed={one === proposed}
						onclick={() => (shown = proposed.temper)}>Line by line</Button
					>
				</div>
			</section>
		{/each}
	</div>
	{#if list.some((proposed) => proposed.plan.stageDates.length > 1)}
		<p class="mt-4 text-sm">
			A later stage waits for its day and for what comes first: growth regained, shoots at least {format().percent(
				values['verdict.shootShareOfReference']
			)} of a healthy tree’s.
		</p>
	{/if}
	{#if one}
		<section aria-label="Line by line, {one.temper}" class="mt-6 text-sm">
			<h3 class="text-base">
				<span class="inline-block first-letter:uppercase">{one.temper}</span>, line by line
			</h3>
			{#if one.result.unmet.length > 0}
				<div class="mt-2">
					<Caution title="Cannot all be met"
						>{one.result.unmet.map((text) => clockWords(rootWords(text))).join('; ')}. {one.result.give
							.map(clockWords)
							.join(' ')}</Caution
					>
				</div>
			{/if}
			<ol class="mt-2 divide-y border-y">
				{#each one.result.cuts as cut (cut.segmentId)}
					<li class="grid grid-cols-[3rem_1fr_auto] gap-x-3 py-1.5">
						<strong>{roman(cut.stage)}</strong>
						<span
							><strong>{at(cut.segmentId)}</strong>: {clockWords(cut.reason)}
							<span class="block text-slate first-letter:uppercase">{clockWords(cut.whyThen)}.</span></span
						>
						<span>{format().percent(cut.livingShare, 1)}</span>
					</li>
				{:else}
					<li class="py-1.5 text-slate">Nothing is worth cutting.</li>
				{/each}
			</ol>
			{#if one.result.left.length > 0}
				<h4 class="mt-3 font-semibold">Not, and why not</h4>
				<ul class="mt-1 divide-y border-y">
					{#each one.result.left as entry (entry.segmentId)}
						<li class="py-1.5">
							<strong>{at(entry.segmentId)}</strong>, {clockWords(entry.reason)}: {clockWords(entry.because)}.
						</li>
					{/each}
				</ul>
			{/if}
		</section>
	{/if}
</Sheet>
