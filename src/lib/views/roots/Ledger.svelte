<script lang="ts">
	import { balanceWords } from '$core/roots/plan/ledger';
	import ChartTable from '$ui/ChartTable.svelte';
	import { isForArborist } from '$core/roots/plan/cutting';
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/maths/circular';
	import { seasonFitNames } from '$core/climate/windows';
	import { crossings, wallShare } from '$core/roots/map/course';
	import { roman, tempers } from '$core/roots/plan/plan';
	import { touchingMates } from '$core/roots/map/mates';
	import { startAzimuth } from '$core/roots/map/root-map';
	import { reservesNames } from '$core/vocabulary/words';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Workings from '$ui/Workings.svelte';
	import CrownLedger from './CrownLedger.svelte';
	import Gate from './Gate.svelte';
	import { useFormat } from '$ui/format';
	import { Tween, prefersReducedMotion } from 'svelte/motion';
	import type { RootsState } from './roots-state.svelte';

	interface Props {
		roots: RootsState;
		oncut: () => void;
	}
	let { roots, oncut }: Props = $props();
	const format = useFormat();

	const standing = $derived(roots.standing);
	const ledger = $derived(standing.ledger);
	const balance = $derived({
		before: balanceWords(ledger.before, roots.options.values),
		after: balanceWords(ledger.after, roots.options.values)
	});
	const stages = $derived(
		ledger.stages.filter(
			(stage) =>
				stage.stage === 0 || roots.plan.cuts.some((cut) => cut.stage === stage.stage && cut.state !== 'left')
		)
	);
	const focus = $derived(roots.focus);
	/** All of the stage was cut: it is no plan any more. */
	const focusDone = $derived.by(() => {
		const own = roots.plan.cuts.filter((cut) => cut.stage === (focus?.stage ?? 0) && cut.state !== 'left');
		return own.length > 0 && own.every((cut) => cut.state === 'done');
	});
	const planned = $derived(roots.plan.cuts.filter((cut) => cut.state === 'planned'));
	const shown = new Tween(0);
	$effect(() => {
		void shown.set(focus?.loss ?? 0, { duration: prefersReducedMotion.current ? 0 : 260 });
	});
	const allowance = $derived(standing.allowances[focus?.stage ?? 0] ?? standing.allowances[0]);
	const tone = $derived(focus && !focus.fits ? 'text-oxide' : 'text-ink');
	const byClock = $derived(
		[...ledger.windows].sort(
			(a, b) => clockOf(a.azimuthDeg, roots.map.frame) - clockOf(b.azimuthDeg, roots.map.frame)
		)
	);
	const span = (azimuthDeg: number): string => {
		const half = roots.options.values['anchorage.windowDeg'] / 2;
		const name = (deg: number): string => format().clock(clockOf(deg, roots.map.frame)).replace(':00', '');
		return `${name(azimuthDeg - half)}–${name(azimuthDeg + half)}`;
	};
	/** Structural cuts near a big trunk are for qualified people. */
	const referral = $derived.by(() => {
		if (roots.map.frame !== 'ground') return [];
		return roots.map.segments.filter((segment) => {
			const cut = roots.plan.cuts.find(
				(candidate) => candidate.segmentId === segment.id && candidate.state === 'planned'
			);
			return cut && ['anchor', 'scaffold'].includes(segment.rootClass);
		});
	});
	const anchorsCut = $derived(
		roots.map.segments.filter((segment) => segment.rootClass === 'anchor' && ledger.gone.has(segment.id))
			.length
	);
	const undone = $derived(
		(roots.taken?.left ?? []).flatMap((entry) => {
			const segment = roots.map.segments.find((candidate) => candidate.id === entry.segmentId);
			const cut = roots.plan.cuts.some((c) => c.segmentId === entry.segmentId && c.state !== 'left');
			return segment && !cut ? [{ ...entry, segment }] : [];
		})
	);
	/** Roots that were not cut yet. */
	const uncut = $derived(
		roots.map.segments.filter(
			(segment) => !roots.plan.cuts.some((cut) => cut.segmentId === segment.id && cut.state === 'done')
		)
	);
	const wall = $derived(wallShare({ ...roots.map, segments: uncut }));
	const touching = $derived(
		crossings(uncut).filter(
			(crossing) =>
				crossing.gapMm <= roots.options.values['contact.toleranceMm'] &&
				crossing.angleDeg >= roots.options.values['course.crossingDeg']
		)
	);
	const mates = $derived(touchingMates(uncut, roots.mates, roots.options.values['contact.toleranceMm']));
	const nameOf = (segmentId: string): string => {
		const segment = roots.map.segments.find((candidate) => candidate.id === segmentId);
		return segment ? at(startAzimuth(segment)) : '';
	};
	/** Said after each step: what a stage takes, against its allowance, and what it does to the hold. */
	const spoken = $derived(
		`${focusDone ? 'Went' : 'Goes'}: ${format().percent(focus?.loss ?? 0)} of living root, allowed ${format().percent(focus?.allowed ?? 0)}${focus && !focus.fits ? ', too much' : ''}. ${
			ledger.least?.left === null || ledger.least === null
				? 'Nothing structural is mapped yet.'
				: `Anchorage left at least ${format().percent(ledger.least.left)}${ledger.least.short ? ', less than wanted' : ''}.`
		}`
	);
	const at = (azimuthDeg: number): string => format().clock(clockOf(azimuthDeg, roots.map.frame));
	/** Towards which it leans, to half an hour: no root stands in just that direction. */
	const towards = (azimuthDeg: number): string => at(Math.round(azimuthDeg / 15) * 15);
</script>

<p class="sr-only" role="status">{spoken}</p>
<div class="flex flex-col gap-4">
	<section aria-label="Living root">
		<p class={['font-display text-4xl leading-none font-bold', tone]}>
			<Workings
				label="Living root that goes in stage {roman(focus?.stage ?? 0)}"
				formula="Σ living share of the roots that this stage removes"
				lines={roots.plan.cuts
					.filter((cut) => cut.stage === (focus?.stage ?? 0) && cut.state !== 'left')
					.slice(0, 14)
					.map((cut) => {
						const segment = roots.map.segments.find((candidate) => candidate.id === cut.segmentId);
						return {
							label: segment
								? `${at(startAzimuth(segment))}, ${format().measure(segment.diameterStartMm, 'mm')} ${segment.rootClass}`
								: '',
							value: format().percent(ledger.cutCost.get(cut.segmentId) ?? 0, 1)
						};
					})}
				changes="A root’s share is its cross-section carried to its tips times its fine roots, by the pipe model (Shinozaki et al. 1964). Dead tissue costs nothing."
			>
				{format().percent(shown.current)}
			</Workings>
		</p>
		<p class="text-sm text-slate">
			of living root {focusDone ? 'went' : 'goes'}{focus && focus.stage > 0
				? ` in stage ${roman(focus.stage)}`
				: focusDone
					? ''
					: ' now'}
		</p>
		<div class="relative mt-2">
			<svg
				viewBox="0 0 300 26"
				class="block w-full"
				role="img"
				aria-label="Living root by stage; stays {format().percent(1 - ledger.totalLoss)}"
			>
				<rect x="0" y="3" width="300" height="18" class="fill-sapwood stroke-bark" stroke-width="1.2" />
				{#each ledger.stages as stage (stage.stage)}
					{@const from = ledger.stages.slice(0, stage.stage).reduce((sum, s) => sum + s.loss, 0)}
					<rect
						x={from * 300}
						y="3"
						width={stage.loss * 300}
						height="18"
						class={stage.stage === 0 ? 'fill-oxide' : 'stroke-oxide'}
						fill={stage.stage === 0 ? undefined : 'none'}
						stroke-width="1.6"
						stroke-dasharray={stage.stage === 0 ? undefined : '4 2'}
					/>
				{/each}
				{#if allowance}
					<path
						d="M{Math.min(299, (ledger.stages[0]?.allowed ?? 0) * 300)} 0v26"
						class="stroke-ink"
						stroke-width="2.5"
					/>
				{/if}
			</svg>
		</div>
		<ul class="mt-1 text-sm">
			{#each stages as stage (stage.stage)}
				<li class="flex items-baseline justify-between gap-2">
					<span>
						{roman(stage.stage)}
						<span class="text-slate"
							>{format().day(roots.plan.stageDates[stage.stage] ?? '')}, {seasonFitNames[
								standing.fits[stage.stage] ?? 'in-window'
							]}</span
						>
					</span>
					<span class={stage.fits ? '' : 'font-bold text-oxide'}
						>{format().percent(stage.loss)} of {format().percent(stage.allowed)}{stage.fits
							? ''
							: ', over'}</span
					>
				</li>
			{/each}
			<li class="flex justify-between border-t pt-0.5">
				<span>stays</span><strong>{format().percent(1 - ledger.totalLoss)}</strong>
			</li>
		</ul>
		{#if allowance}
			<p class="mt-1.5 text-sm">
				Allowance
				<Workings
					label="Allowance for one session"
					formula="{format().number(
						allowance.base,
						2
					)} × {allowance.vigourFactor} × {allowance.seasonFactor} × {allowance.reservesFactor} = {format().percent(
						allowance.share
					)}"
					lines={[
						{
							label: `${standing.group}, ${roots.plan.temper}`,
							value: format().percent(allowance.base),
							mark: markOf(`allowance.${standing.group}.${roots.plan.temper}`)
						},
						{
							label: `vigour ${roots.plan.vigour}`,
							value: `× ${allowance.vigourFactor}`,
							mark: markOf(`vigour.${roots.plan.vigour}`)
						},
						{
							label: seasonFitNames[standing.fits[focus?.stage ?? 0] ?? 'in-window'],
							value: `× ${allowance.seasonFactor}`,
							mark: markOf(`season.${standing.fits[focus?.stage ?? 0] ?? 'in-window'}`)
						},
						{
							label: reservesNames[roots.plan.reserves],
							value: `× ${allowance.reservesFactor}`,
							mark: markOf(`reserves.${roots.plan.reserves}`)
						}
					]}
					changes="A later stage is allowed this times 1 − (1 − regrown) × lost before. Each number can be changed under Reference, Values."
				>
					<strong>{format().percent(allowance.share)}</strong>
				</Workings>
				<span class="text-slate"
					>= {roots.plan.temper}
					{format().percent(allowance.base)} × vigour {format().number(allowance.vigourFactor, 2)} × season {format().number(
						allowance.seasonFactor,
						2
					)} × reserves {format().number(allowance.reservesFactor, 2)}</span
				>
			</p>
		{/if}
		<div class="mt-2">
			<Choice
				label="Temper"
				hideLabel
				size="small"
				value={roots.plan.temper}
				options={tempers.map((value) => ({ value, label: value }))}
				onchange={(temper) => roots.setPlan({ temper })}
			/>
		</div>
	</section>

	{#if roots.gate}<Gate gate={roots.gate} treeId={roots.options.tree.id} />{/if}

	{#each ledger.violations as violation (violation)}
		<Caution title="Not possible">{format().inWords(violation)}</Caution>
	{/each}

	<section aria-label="Anchorage">
		<h3 class="text-sm">Anchorage left, by 120° window</h3>
		<svg viewBox="0 0 300 74" class="block w-full" role="img" aria-label="Anchorage left by direction">
			{#each byClock as window, index (window.azimuthDeg)}
				{@const share = window.left ?? 0}
				{@const left = index * 25 + 2}
				{#if window.left === null}
					<path d="M{left} 55h20" class="stroke-slate" stroke-dasharray="2 3" />
				{:else}
					<rect
						x={left}
						y={56 - share * 48}
						width="20"
						height={share * 48}
						class={window.short ? 'fill-oxide' : 'fill-bark'}
					/>
					{#if window.short}<path d="M{left + 4} 50l12-12" class="stroke-paper" stroke-width="2" />{/if}
				{/if}
				<text x={left + 10} y="70" text-anchor="middle" font-size="12.5" class="fill-ink"
					>{clockOf(window.azimuthDeg, roots.map.frame)}</text
				>
			{/each}
			<path
				d="M0 {56 - roots.options.values['anchorage.wantedShare'] * 48}h300"
				class="stroke-ink"
				stroke-width="1.3"
				stroke-dasharray="4 3"
			/>
		</svg>
		<ChartTable
			caption="Anchorage left, by window of 120°"
			columns={['toward', 'left']}
			rows={byClock.map((window) => [
				at(window.azimuthDeg),
				window.left === null
					? 'nothing structural mapped'
					: `${format().percent(window.left)}${window.short ? ', less than wanted' : ''}`
			])}
		/>
		<p class="text-sm">
			{#if ledger.least?.left !== undefined && ledger.least.left !== null}
				Least at {span(ledger.least.azimuthDeg)} o’clock:
				<Workings
					label="Least anchorage"
					formula="sound structural root left ÷ what the window held"
					lines={[
						{
							label: 'weight of an anchor',
							value: String(roots.options.values['classWeight.anchor']),
							mark: markOf('classWeight.anchor')
						},
						{
							label: 'of a scaffold',
							value: String(roots.options.values['classWeight.scaffold']),
							mark: markOf('classWeight.scaffold')
						},
						{
							label: 'of a secondary',
							value: String(roots.options.values['classWeight.secondary']),
							mark: markOf('classWeight.secondary')
						},
						{
							label: 'wanted in each window',
							value: format().percent(roots.options.values['anchorage.wantedShare']),
							mark: markOf('anchorage.wantedShare')
						}
					]}
					changes="Cross-section times class weight; doubtful and dead wood holds nothing. It compares with what was there, not with what would be safe."
				>
					<strong class={ledger.least.short ? 'text-oxide' : ''}>{format().percent(ledger.least.left)}</strong
					>
				</Workings>, wanted {format().percent(roots.options.values['anchorage.wantedShare'])}
			{:else}
				Nothing structural is mapped yet.
			{/if}
		</p>
	</section>

	<section aria-label="Balance" class="text-sm">
		<h3 class="text-sm">Balance round the trunk</h3>
		{#if balance.after === null}
			<p>
				{balance.before === null
					? 'No root that holds it is mapped: how evenly they stand is not known.'
					: 'No root that holds it is left by this plan.'}
			</p>
		{:else}
			<p>
				Widest gap <strong>{format().number(ledger.after.gapDeg)}°</strong> from
				{at(
					ledger.after.gapFromDeg
				)}{#if balance.before !== null && Math.round(ledger.before.gapDeg) !== Math.round(ledger.after.gapDeg)}<span
						class="text-slate">{` (was ${format().number(ledger.before.gapDeg)}°)`}</span
					>{/if}.
				<Workings
					label="Balance round the trunk"
					formula="length of the mean of all directions, each weighed by its root: 0 even all round, 1 all on one side"
					lines={[
						{ label: 'before', value: format().number(ledger.before.resultantLength, 2) },
						{ label: 'after', value: format().number(ledger.after.resultantLength, 2) },
						{
							label: 'a little one-sided from',
							value: format().number(roots.options.values['balance.little'], 2),
							mark: markOf('balance.little')
						},
						{
							label: 'one-sided from',
							value: format().number(roots.options.values['balance.much'], 2),
							mark: markOf('balance.much')
						}
					]}
					changes="Roots cut on the heavy side even it out."><strong>{balance.after}</strong></Workings
				>{#if ledger.after.directionDeg !== null && ledger.after.resultantLength >= roots.options.values['balance.little']},
					heaviest to {towards(
						ledger.after.directionDeg
					)}{/if}{#if balance.before !== null && balance.before !== balance.after}<span class="text-slate"
						>{` (was ${balance.before.toLowerCase()})`}</span
					>{/if}.
			</p>
			<svg
				viewBox="0 0 300 22"
				class="mt-1 block w-full"
				role="img"
				aria-label="Structural share by 45° sector after the plan"
			>
				{#each ledger.after.sectors as share, index (index)}
					<rect
						x={index * 37.5 + 1}
						y={18 - Math.min(1, share * 2.5) * 16}
						width="35"
						height={Math.min(1, share * 2.5) * 16}
						class="fill-bark"
						opacity="0.75"
					/>
					<path d="M{index * 37.5 + 1} 18.5h35" class="stroke-line" />
				{/each}
			</svg>
			<ChartTable
				caption="Structural root by eighth round the trunk, after the plan"
				columns={['from', 'share']}
				rows={ledger.after.sectors.map((share, index) => [at(index * 45 - 22.5), format().percent(share)])}
			/>
			<p class="text-xs text-slate">by eighths, clockwise from {at(-22.5)}</p>
		{/if}
		{#if wall > 0.005 || touching.length > 0}
			<p class="mt-1">
				{#if wall > 0.005}<Workings
						label="Circling at the wall"
						formula="arcs that roots run along the wall of the ball, joined, ÷ 360°"
						lines={[
							{
								label: 'A root circles from',
								value: `${roots.options.values['course.circlingDeg']}°`,
								mark: markOf('course.circlingDeg')
							}
						]}
						changes="Courses drawn as they lie; what quick entry sketched is only as good as its words."
						>Circling roots cover <strong>{format().percent(wall)}</strong> of the wall</Workings
					>{/if}{wall > 0.005 && touching.length > 0 ? '; ' : ''}{#if touching.length > 0}{touching.length}
					crossing{touching.length === 1 ? '' : 's'} where roots touch{/if}.
			</p>
		{/if}
	</section>

	{#if roots.mates.length > 0}
		<section aria-label="In the same pot" class="text-sm">
			<h3 class="text-sm">In the same pot</h3>
			{#each mates as mate (mate.tag)}
				<p>
					{mate.segmentIds.length} root{mate.segmentIds.length === 1 ? '' : 's'} of this tree touch{mate
						.segmentIds.length === 1
						? 'es'
						: ''} those of {mate.tag}: {mate.segmentIds.map(nameOf).join(', ')}. Trace whose it is before it
					is cut.
				</p>
			{:else}
				<p>No root touches one of {roots.mates.map((mate) => mate.tag).join(', ')}, as they are mapped.</p>
			{/each}
		</section>
	{/if}

	<CrownLedger {roots} />

	{#if anchorsCut > 0 || referral.length > 0 || ledger.least?.short}
		<Caution
			title={isForArborist(roots.map, roots.options.values)
				? 'Not without a qualified arborist'
				: 'It loses hold'}
		>
			{referral.length > 0
				? 'A structural root of a standing tree is to be cut. Whether it stands safely is not for the eye or this ledger to say.'
				: anchorsCut > 0
					? `${anchorsCut} anchor${anchorsCut === 1 ? '' : 's'} would go. Tie the tree down and let it stand supported.`
					: 'A side is left with less anchorage than is wanted. Tie the tree down and let it stand supported.'}
		</Caution>
	{/if}

	<div class="no-print flex flex-wrap gap-2">
		{#if planned.length > 0}
			<Button
				class="!px-3"
				tone="solid"
				href={resolve('/trees/[id]/roots/bench', { id: roots.options.tree.id })}>To the bench</Button
			>
		{/if}
		<Button class="!px-3" onclick={oncut} disabled={planned.length === 0}>Record the cuts</Button>
		<Button class="!px-3" onclick={() => void roots.propose()} disabled={roots.map.segments.length === 0}
			>Propose stages</Button
		>
		{#if roots.map.segments.length > 0}
			<Button
				class="!px-3"
				tone="quiet"
				href={resolve('/trees/[id]/roots/card', { id: roots.options.tree.id })}>Cut card</Button
			>
		{/if}
		<Button class="!px-3" tone="quiet" href={resolve('/trees/[id]/rehearse', { id: roots.options.tree.id })}
			>Rehearse</Button
		>
	</div>
	{#if undone.length > 0}
		<section aria-label="Left undone" class="text-sm">
			<h3 class="text-sm">Left undone by the proposal</h3>
			<ul class="mt-1 divide-y border-t">
				{#each undone as entry (entry.segmentId)}
					<li class="py-1">
						<strong>{at(startAzimuth(entry.segment))}</strong>
						{format().inWords(entry.reason)}: {format()
							.inWords(entry.because)
							.replace(/(\d+)°(?! ?[CF])/g, (_, deg: string) => at(Number(deg)))}
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	<p class="text-xs text-slate">
		A proposal is the best plan within every limit shown here, or says how far it may be from it. What you set
		by hand stays; what you keep or trace is never cut.
	</p>
</div>
