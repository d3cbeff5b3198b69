<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import { movedBy } from '$core/tree/moved-by';
	import { enhance } from '$app/forms';
	import { replaceState } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import type { TreeRecords } from '$core/tree/case';
	import { conditionOf } from '$core/vocabulary/conditions';
	import { gradeWord, signApplies, signOf } from '$core/vocabulary/signs';
	import {
		findingsOf,
		isTool,
		rawReading,
		toolNames,
		toolsFitting,
		type RawReading,
		type Tool
	} from '$core/examine/measuring/measurement';
	import { readingWords } from '$core/examine/measuring/words';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import Consequences from '$ui/Consequences.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { onMount, untrack, type Component } from 'svelte';
	import DepthProfile from './DepthProfile.svelte';
	import ExamineParts from './ExamineParts.svelte';
	import CollarTool from './tools/CollarTool.svelte';
	import CoresTool from './tools/CoresTool.svelte';
	import DrainTimeTool from './tools/DrainTimeTool.svelte';
	import MoistureTool from './tools/MoistureTool.svelte';
	import InfiltrationTool from './tools/InfiltrationTool.svelte';
	import OutflowTool from './tools/OutflowTool.svelte';
	import PenetrometerTool from './tools/PenetrometerTool.svelte';
	import RootSampleTool from './tools/RootSampleTool.svelte';
	import ScratchTapTool from './tools/ScratchTapTool.svelte';
	import SlideTestTool from './tools/SlideTestTool.svelte';
	import SqueezeTestTool from './tools/SqueezeTestTool.svelte';
	import TextureTool from './tools/TextureTool.svelte';
	import WeighingTool from './tools/WeighingTool.svelte';
	import { leaveReading, leftReading, type Left } from './tools/left';
	import type { ToolProps } from './tools/tool';

	/** One tool at a time: what was read on the left, what it says and what was read before on the right. */
	interface Props {
		title: 'Measure' | 'Soil';
		records: TreeRecords;
		values: Values;
		today: string;
		choice: readonly Tool[];
		refused?: Refused | null;
	}
	let { title, records, values, today, choice, refused }: Props = $props();
	const format = useFormat();

	const forms: Record<Tool, Component<ToolProps>> = {
		weighing: WeighingTool,
		moisture: MoistureTool,
		outflow: OutflowTool,
		'drain-time': DrainTimeTool,
		'squeeze-test': SqueezeTestTool,
		'scratch-tap': ScratchTapTool,
		collar: CollarTool,
		'root-sample': RootSampleTool,
		'slide-test': SlideTestTool,
		texture: TextureTool,
		penetrometer: PenetrometerTool,
		'soil-cores': CoresTool,
		infiltration: InfiltrationTool
	};
	const cautions: Partial<Record<Tool, string>> = {
		'root-sample':
			'Draw only where the ball is open already, or as few as decide it; each root drawn is a root lost.',
		'slide-test':
			'Leave it in the pot while it is weak or out of season unless rot is likely; taking it out tears fine roots.',
		penetrometer: 'Have buried services located before pushing a rod into the ground.',
		'soil-cores': 'Have buried services located before driving a ring; stay off roots thicker than a thumb.',
		collar: 'By hand, with water or with air: no spade against the bark. Cut nothing yet.'
	};
	const tree = $derived(records.tree);
	/** What can be read of it as it stands; what was read while it stood otherwise is shown all the same. */
	const offered = $derived(toolsFitting(choice, tree.situation));
	const asked = page.url.searchParams.get('tool');
	const potted = untrack(() => records.tree.situation === 'potted');
	let tool = $state<Tool>(
		untrack(() =>
			isTool(asked) && offered.includes(asked)
				? asked
				: (offered.find((candidate) => records.measurements.some((m) => m.raw.tool === candidate)) ??
					(offered[0] as Tool))
		)
	);
	let raw = $state.raw<unknown>(null);
	let fresh = $state(0);
	let measuredOn = $state(untrack(() => today));
	const Form = $derived(forms[tool]);
	const reading = $derived.by((): RawReading | null => {
		const parsed = rawReading.safeParse(raw);
		return parsed.success && parsed.data.tool === tool ? parsed.data : null;
	});
	const on = $derived(measuredOn || today);
	const found = $derived(
		reading
			? findingsOf(reading, on, tree, values).filter((finding) => signApplies(finding.signId, tree.situation))
			: []
	);
	const kept = $derived(
		records.measurements
			.filter((measurement) => choice.includes(measurement.raw.tool))
			.toSorted((a, b) => (a.measuredOn < b.measuredOn ? 1 : -1))
	);
	const previous = $derived(kept.find((measurement) => measurement.raw.tool === tool)?.raw ?? null);

	/** What the reading changes: the last look's findings and all measured lately, with and without it. */
	const moved = $derived(found.length === 0 ? [] : movedBy(records, found, on, values).slice(0, 4));

	/** What was read with this tool before and not kept: a side page or a flat battery loses nothing. */
	let left = $state.raw<Left | null>(null);
	/** Looked for what was left: until then nothing is written over it. */
	let looked = false;
	onMount(() => {
		left = leftReading(tree.id, tool);
		looked = true;
		if (left) fresh++;
	});
	function read(next: unknown): void {
		raw = next;
		if (looked) leaveReading(tree.id, tool, next);
	}
	function anew(): void {
		leaveReading(tree.id, tool, null);
		left = null;
		raw = null;
		fresh++;
	}
	function choose(next: Tool): void {
		tool = next;
		left = leftReading(tree.id, next);
		raw = null;
		fresh++;
		const url = new URL(page.url);
		url.searchParams.set('tool', next);
		// eslint-disable-next-line svelte/no-navigation-without-resolve -- the same page
		replaceState(url, {});
	}
	function done(): void {
		anew();
		measuredOn = today;
	}
	const latestOf = (candidate: Tool): string | null => {
		const last = kept.find((measurement) => measurement.raw.tool === candidate);
		return last ? format().day(last.measuredOn, today) : null;
	};
	const profile = $derived(
		reading?.tool === 'penetrometer'
			? reading
			: (kept.map((m) => m.raw).find((raw) => raw.tool === 'penetrometer') ?? null)
	);
	const cores = $derived(
		reading?.tool === 'soil-cores'
			? reading
			: (kept.map((m) => m.raw).find((raw) => raw.tool === 'soil-cores') ?? null)
	);
</script>

<div class="page grid gap-x-10 lg:grid-cols-[minmax(0,1fr)_25rem]">
	<section aria-label={title} class="min-w-0 pt-1 pb-24">
		<ExamineParts treeId={tree.id} />
		{#if title === 'Soil' && potted}
			<p class="mt-2 text-sm text-slate">
				It stands in a pot: these look at soil in the ground, its own of old or where it will be planted.
			</p>
		{/if}
		{#if title === 'Soil' && (profile || cores)}
			<section aria-label="Depth profile" class="mt-2 mb-4">
				<h2 class="text-lg">
					{[profile, cores]
						.flatMap((raw) => (raw ? [atStart(readingWords(raw, on, tree, values, format()))] : []))
						.join('. ')}.
				</h2>
				<DepthProfile {profile} {cores} {values} />
			</section>
		{/if}
		<nav aria-label="Tools" class="mt-2">
			<ul class="flex flex-wrap gap-1.5">
				{#each offered as candidate (candidate)}
					<li>
						<button
							type="button"
							aria-pressed={tool === candidate}
							onclick={() => choose(candidate)}
							class={[
								'min-h-11 rounded-md border px-3 text-left leading-tight font-semibold',
								tool === candidate ? 'border-ink bg-ink text-paper' : 'border-edge hover:border-ink'
							]}
							>{toolNames[candidate]}{#if latestOf(candidate)}<span class="block text-xs font-normal"
									>{latestOf(candidate)}</span
								>{/if}</button
						>
					</li>
				{/each}
			</ul>
		</nav>
		<h2 class="mt-5 text-lg">{toolNames[tool]}</h2>
		{#if cautions[tool]}<div class="mt-2"><Caution>{cautions[tool]}</Caution></div>{/if}
		<div class="mt-3">
			{#if left}
				<p class="mb-3 text-sm" role="status">
					What you had read here is back.
					<button type="button" class="chalk" onclick={anew}>Begin anew</button>
				</p>
			{/if}
			{#key `${tool}.${fresh}`}
				<Form {tree} {values} {on} {previous} {left} onread={read} />
			{/key}
		</div>
		<form method="POST" action="?/measure" use:enhance={act({ done })} class="mt-6 border-t pt-4" novalidate>
			<Problem {refused} />
			<input type="hidden" name="raw" value={JSON.stringify(reading)} />
			<div class="grid gap-4 sm:grid-cols-[11rem_1fr]">
				<DateField
					name="measuredOn"
					label="Measured on"
					value={today}
					max={today}
					oninput={(day) => (measuredOn = day)}
					{refused}
				/>
				<TextField name="note" label="What else" optional {refused} />
			</div>
			<Button type="submit" tone="solid" size="large" class="mt-4" disabled={reading === null}
				>Keep this measurement</Button
			>
		</form>
	</section>

	<Consequences title="What it says">
		{#snippet summary()}
			<span class="truncate font-semibold"
				>{reading
					? atStart(readingWords(reading, on, tree, values, format()))
					: `${toolNames[tool]}: nothing read yet`}</span
			>
		{/snippet}
		<div role="status">
			{#if reading}
				<p class="mt-1 font-semibold">{atStart(readingWords(reading, on, tree, values, format()))}.</p>
				<ul class="mt-2 divide-y border-y">
					{#each found as finding (finding.signId)}
						<li class="flex items-baseline justify-between gap-3 py-1.5">
							<span>{signOf(finding.signId).label}</span><strong
								class={finding.grade > 0 ? 'text-oxide' : 'font-normal text-slate'}
								>{gradeWord(finding.signId, finding.grade)}</strong
							>
						</li>
					{:else}
						<li class="py-1.5 text-slate">No sign is decided by it yet.</li>
					{/each}
				</ul>
				{#if moved.length > 0}
					<h3 class="mt-3 text-base">With the last look it moves</h3>
					<ul class="text-sm">
						{#each moved as cause (cause.conditionId)}
							<li class="flex justify-between gap-3 py-0.5">
								<span>{conditionOf(cause.conditionId).label}</span>
								<span>{format().percent(cause.was)} → <strong>{format().percent(cause.is)}</strong></span>
							</li>
						{/each}
					</ul>
				{/if}
			{:else}
				<p class="mt-1 text-sm text-slate">
					Nothing read yet. What you enter is judged here as you enter it.
				</p>
			{/if}
		</div>
		{#if kept.length > 0}
			<h3 class="mt-5 text-base">Measured before</h3>
			<ul class="divide-y border-y">
				{#each kept as measurement (measurement.id)}
					<li class="flex items-start justify-between gap-3 py-2 text-sm">
						<span
							><strong>{toolNames[measurement.raw.tool]}</strong>, {format().day(
								measurement.measuredOn,
								today
							)}
							<span class="block"
								>{atStart(
									readingWords(measurement.raw, measurement.measuredOn, tree, values, format())
								)}</span
							>{#if measurement.note}<span class="block text-slate">{measurement.note}</span>{/if}</span
						>
						<form method="POST" action="?/remove" use:enhance={act({ keep: true })}>
							<input type="hidden" name="id" value={measurement.id} /><input
								type="hidden"
								name="version"
								value={measurement.version}
							/>
							<button
								class="chalk min-h-9 px-1 whitespace-nowrap text-slate"
								aria-label="Take out: {toolNames[measurement.raw.tool]}, {format().day(
									measurement.measuredOn
								)}">Take out</button
							>
						</form>
					</li>
				{/each}
			</ul>
			<p class="mt-2 text-xs text-slate">
				A measurement of the last {format().number(values['diagnosis.measured-days'])} days counts in a look by
				itself.
				<a class="chalk" href={resolve('/trees/[id]/examine', { id: tree.id })}>To the look</a>
			</p>
		{/if}
	</Consequences>
</div>
