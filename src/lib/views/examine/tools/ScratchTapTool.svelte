<script lang="ts">
	import { counted } from '$core/text/plural';
	import { atStart } from '$core/text/mid-sentence';
	import {
		diebackLimit,
		scratchTapData,
		tissueReadingNames,
		tissueReadings,
		type TissueReading
	} from '$core/examine/measuring/dieback';
	import { markOf } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { scaleLinear } from 'd3';
	import { untrack } from 'svelte';
	import { partLeft } from './left';
	import { before, type ToolProps } from './tool';

	let { tree, values, previous, left, onread }: ToolProps = $props();
	const format = useFormat();

	interface Point {
		heightMm: number;
		sideDeg: number;
		reading: TissueReading;
	}
	let heightMm = $state<number | null>(
		untrack(() => before(previous, 'scratch-tap')?.heightMm ?? (tree.heightM ? tree.heightM * 1000 : 1000))
	);
	let points = $state<Point[]>(untrack(() => partLeft(left, 'points', scratchTapData.shape.points)) ?? []);
	let reading = $state<TissueReading>('alive');
	let typedMm = $state<number | null>(null);
	let side = $state('0');
	const top = $derived(Math.max(20, heightMm ?? 1000));
	const data = $derived({ heightMm: top, points });
	const parsed = $derived(scratchTapData.safeParse(data));
	const result = $derived(parsed.success ? diebackLimit(parsed.data, values) : null);
	$effect(() => onread(points.length > 0 ? { tool: 'scratch-tap', ...data } : null));

	const sides = [
		{ value: '0', label: 'front' },
		{ value: '90', label: 'left' },
		{ value: '180', label: 'back' },
		{ value: '270', label: 'right' }
	];
	const sideName = (deg: number): string => sides[Math.round(deg / 90) % 4]?.label ?? 'front';
	function add(point: Omit<Point, 'reading'>): void {
		if (points.length >= 200) return;
		points.push({ ...point, reading });
	}

	const W = 320;
	const H = 420;
	const M = { left: 72, right: 10, top: 22, bottom: 30 };
	const y = $derived(
		scaleLinear()
			.domain([0, top])
			.range([H - M.bottom, M.top])
	);
	const x = scaleLinear()
		.domain([-45, 315])
		.range([M.left, W - M.right]);
	const xOf = (deg: number): number => x(deg > 315 ? deg - 360 : deg);
	function tap(event: PointerEvent & { currentTarget: SVGSVGElement }): void {
		const box = event.currentTarget.getBoundingClientRect();
		const px = ((event.clientX - box.left) / box.width) * W;
		const py = ((event.clientY - box.top) / box.height) * H;
		const height = Math.round(y.invert(py));
		const deg = (Math.round(x.invert(px)) + 360) % 360;
		if (height < 0 || height > top) return;
		add({ heightMm: height, sideDeg: deg });
	}
</script>

<p class="mb-3">
	Scratch a thumbnail’s width of bark, or knock on thick wood. Choose what you found, then touch the place on
	the stem drawn here, unrolled, front on the left.
</p>
<div class="grid gap-x-8 gap-y-4 md:grid-cols-[19rem_1fr]">
	<svg
		viewBox="0 0 {W} {H}"
		class="w-full max-w-sm touch-manipulation self-start select-none"
		role="img"
		aria-label="Stem unrolled: {counted(points.length, 'place')} looked at{result
			? `, alive up to about ${format().measure(result.limitMm, 'mm')}`
			: ''}"
		onpointerdown={tap}
	>
		<rect
			x={M.left}
			y={M.top}
			width={W - M.left - M.right}
			height={H - M.top - M.bottom}
			class="fill-sapwood/40 stroke-bark"
			stroke-width="1.5"
		/>
		{#if result}
			<rect
				x={M.left}
				y={y(result.highMm)}
				width={W - M.left - M.right}
				height={Math.max(0, y(result.lowMm) - y(result.highMm))}
				class="fill-oxide"
				opacity="0.16"
			/>
			<rect
				x={M.left}
				y={M.top}
				width={W - M.left - M.right}
				height={Math.max(0, y(result.highMm) - M.top)}
				class="fill-slate"
				opacity="0.12"
			/>
			<path d="M{M.left} {y(result.limitMm)}H{W - M.right}" class="stroke-oxide" stroke-width="2.5" />
		{/if}
		{#each [0, 90, 180, 270] as deg (deg)}
			<text x={xOf(deg)} y={H - 10} text-anchor="middle" font-size="13" class="fill-slate"
				>{sideName(deg)}</text
			>
			{#if deg > 0}<path
					d="M{x(deg - 45)} {M.top}V{H - M.bottom}"
					class="stroke-line"
					stroke-dasharray="2 5"
				/>{/if}
		{/each}
		{#each roundMarks(y.domain(), 'mm', format(), 6) as tick (tick)}
			<text x={M.left - 6} y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
				>{format().measure(tick, 'mm')}</text
			>
		{/each}
		{#each points as point, index (index)}
			{#if point.reading === 'alive'}
				<circle
					cx={xOf(point.sideDeg)}
					cy={y(point.heightMm)}
					r="7"
					class="fill-lichen stroke-paper"
					stroke-width="1.5"
				/>
			{:else if point.reading === 'dead'}
				<path
					d="M{xOf(point.sideDeg) - 6} {y(point.heightMm) - 6}l12 12m0 -12l-12 12"
					class="stroke-oxide"
					stroke-width="3.5"
				/>
			{:else}
				<circle
					cx={xOf(point.sideDeg)}
					cy={y(point.heightMm)}
					r="7"
					class="fill-paper stroke-oxide"
					stroke-width="3"
				/>
			{/if}
		{/each}
		{#if result?.next}
			<g transform="translate({xOf(result.next.sideDeg)} {y(result.next.heightMm)})">
				<circle r="12" fill="none" class="stroke-ochre" stroke-width="2.5" stroke-dasharray="5 4" />
				<text
					y="-17"
					text-anchor="middle"
					font-size="13"
					font-weight="600"
					class="fill-ochre stroke-paper"
					stroke-width="3"
					paint-order="stroke">next</text
				>
			</g>
		{/if}
	</svg>
	<div class="flex flex-col gap-4">
		<Choice
			label="Found there"
			bind:value={reading}
			options={tissueReadings.map((value) => ({ value, label: atStart(tissueReadingNames[value]) }))}
		/>
		<MeasureField
			name="raw.heightMm"
			label="Height of the stem, dead top included"
			unit="mm"
			value={heightMm}
			oninput={(mm) => (heightMm = mm)}
			fieldClass="max-w-56"
		/>
		<fieldset class="flex flex-wrap items-end gap-2">
			<legend class="mb-1 text-sm text-slate">Or type the place</legend>
			<MeasureField
				name="typed"
				label="Height"
				unit="mm"
				value={typedMm}
				oninput={(mm) => (typedMm = mm)}
				fieldClass="w-36"
			/>
			<SelectField name="side" label="Side" bind:value={side} options={sides} fieldClass="w-28" />
			<Button
				disabled={typedMm === null || typedMm < 0 || typedMm > top}
				onclick={() => {
					if (typedMm !== null) add({ heightMm: typedMm, sideDeg: Number(side) });
					typedMm = null;
				}}>Add</Button
			>
		</fieldset>
		<div class="flex gap-2">
			<Button size="small" disabled={points.length === 0} onclick={() => points.pop()}>Last one back</Button>
			{#if result?.next}
				<Button
					size="small"
					onclick={() => {
						typedMm = Math.round(result.next?.heightMm ?? 0);
						side = String(result.next?.sideDeg ?? 0);
					}}>Take the next place</Button
				>
			{/if}
		</div>
		{#if result}
			<p class="text-lg" role="status">
				{#if result.limitMm >= top}
					Alive to its top.
				{:else}
					Alive up to <Workings
						label="Dieback limit"
						formula="Bayes over every height: alive below, dead above, each reading sometimes wrong"
						lines={[
							{ label: 'Most probable middle', value: format().measure(result.limitMm, 'mm') },
							{
								label: '80 % range',
								value: `${format().measure(result.lowMm, 'mm')} to ${format().measure(result.highMm, 'mm')}`
							},
							{
								label: 'One reading is wrong',
								value: format().percent(values['measuring.misread']),
								mark: markOf('measuring.misread')
							},
							{
								label: 'Close enough within',
								value: `${format().percent(values['measuring.dieback-close'])} of the height`,
								mark: markOf('measuring.dieback-close')
							}
						]}
						changes="A scratch where it says next."
						><strong>{format().measure(result.limitMm, 'mm')}</strong></Workings
					>, {format().percent(result.deadShare)} of the height dead.
				{/if}
				{#if result.next}
					<span class="block text-base"
						>Look next at {format().measure(result.next.heightMm, 'mm')}, {sideName(
							result.next.sideDeg
						)}.</span
					>
				{:else if result.limitMm < top}
					<span class="block text-base text-slate">Close enough.</span>
				{/if}
			</p>
			{#if result.levels.length > 1}
				<ul class="text-sm" aria-label="How high each side lives">
					{#each result.levels as level (level.sideDeg)}
						<li>
							{atStart(sideName(level.sideDeg))}: {level.aliveToMm === null
								? 'no living place found'
								: `alive at ${format().measure(level.aliveToMm, 'mm')}`}{level.deadFromMm === null
								? ''
								: `, dead from ${format().measure(level.deadFromMm, 'mm')}`}
						</li>
					{/each}
				</ul>
			{/if}
			{#if result.below.length > 0}
				<p class="text-sm text-ochre">
					{result.below.length === 1 ? 'One place is' : `${result.below.length} places are`} dead below living bark:
					a wound, scald or canker, or a misreading. Scratch beside it.
				</p>
			{/if}
		{/if}
	</div>
</div>
