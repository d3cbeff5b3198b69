<script lang="ts">
	import { counted } from '$core/text/plural';
	import { atStart } from '$core/text/mid-sentence';
	import { azimuthOf, clockOf } from '$core/maths/circular';
	import { flareNames, flares, judgeCollar } from '$core/examine/measuring/collar';
	import { collarData } from '$core/examine/measuring/collar';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Workings from '$ui/Workings.svelte';
	import { markOf } from '$core/values/values';
	import { useFormat } from '$ui/format';
	import { arc } from 'd3';
	import { untrack } from 'svelte';
	import { partLeft } from './left';
	import { yesOrNo, type ToolProps } from './tool';

	let { tree, values, left, onread }: ToolProps = $props();
	const format = useFormat();
	const frame = $derived(tree.situation === 'in-ground' ? ('ground' as const) : ('container' as const));

	const unkept = untrack(() => left);
	const { shape } = collarData;
	const word = (said: boolean | null): 'yes' | 'no' | '' => (said === null ? '' : said ? 'yes' : 'no');
	let flare = $state<(typeof flares)[number] | ''>(partLeft(unkept, 'flare', shape.flare) ?? '');
	let buriedMm = $state<number | null>(partLeft(unkept, 'buriedMm', shape.buriedMm));
	let heaped = $state<'yes' | 'no' | ''>(word(partLeft(unkept, 'heaped', shape.heaped)));
	let above = $state<'yes' | 'no' | ''>(word(partLeft(unkept, 'rootsAboveFlare', shape.rootsAboveFlare)));
	/** Whether roots lie across it; what nobody said is not known. */
	const crossing = partLeft(unkept, 'across', shape.across);
	let crossed = $state<'none' | 'some' | ''>(crossing === null ? '' : crossing.length > 0 ? 'some' : 'none');
	interface Across {
		fromDeg: number;
		toDeg: number;
		diameterMm: number;
	}
	let across = $state<Across[]>(crossing ?? []);
	let fromClock = $state<string>('6');
	let toClock = $state<string>('9');
	let diameterMm = $state<number | null>(15);
	const hours = Array.from({ length: 24 }, (_, i) => 12 - i * 0.5).toReversed();
	const answered = (answer: 'yes' | 'no' | ''): boolean | null => (answer === '' ? null : answer === 'yes');
	const data = $derived({
		flare,
		buriedMm,
		heaped: answered(heaped),
		rootsAboveFlare: answered(above),
		across: crossed === 'none' ? [] : across.length > 0 ? across : null
	});
	const add = (fromDeg: number, toDeg: number): void => {
		if (fromDeg === toDeg || across.length >= 20) return;
		across.push({ fromDeg, toDeg, diameterMm: diameterMm ?? 15 });
		crossed = 'some';
	};
	const parsed = $derived(collarData.safeParse(data));
	const result = $derived(parsed.success ? judgeCollar(parsed.data, tree.trunkDiameterMm, values) : null);
	const said = $derived(
		flare !== '' ||
			buriedMm !== null ||
			data.heaped !== null ||
			data.rootsAboveFlare !== null ||
			data.across !== null
	);
	$effect(() => onread(said ? { tool: 'collar', ...data } : null));

	/** First end of an arc that is being touched on the ring. */
	let begun = $state<number | null>(null);
	const R = 130;
	const C = 160;
	// On the page the clock stands upright, whatever its zero.
	const shownDeg = (azimuth: number): number => clockOf(azimuth, frame) * 30;
	function touch(event: PointerEvent & { currentTarget: SVGSVGElement }): void {
		const box = event.currentTarget.getBoundingClientRect();
		const dx = ((event.clientX - box.left) / box.width) * 2 * C - C;
		const dy = ((event.clientY - box.top) / box.height) * 2 * C - C;
		if (Math.hypot(dx, dy) < 30) return;
		const clock = ((Math.atan2(dx, -dy) * 6) / Math.PI + 12) % 12 || 12;
		const azimuth = azimuthOf(Math.round(clock * 4) / 4, frame);
		if (begun === null) begun = azimuth;
		else {
			add(begun, azimuth);
			begun = null;
		}
	}
	const ring = (one: Across, lane: number): string => {
		const from = (shownDeg(one.fromDeg) * Math.PI) / 180;
		const length = ((((one.toDeg - one.fromDeg) % 360) + 360) % 360) * (Math.PI / 180);
		return (
			arc()({
				innerRadius: 72 + lane * 11,
				outerRadius: 72 + lane * 11 + Math.max(5, Math.min(10, one.diameterMm / 3)),
				startAngle: from,
				endAngle: from + length
			}) ?? ''
		);
	};
	const clockText = (deg: number): string => format().clock(clockOf(deg, frame));
</script>

<p class="mb-3">
	Brush soil and mulch away by hand until the bark widens into roots. Follow what lies against the bark.
</p>
<div class="grid gap-x-8 gap-y-4 md:grid-cols-[20rem_1fr]">
	<div>
		<svg
			viewBox="0 0 {2 * C} {2 * C}"
			class="w-full max-w-xs touch-manipulation select-none"
			role="img"
			aria-label="The collar from above: {counted(across.length, 'root')} across the trunk{result?.arcShare
				? `, ${format().percent(result.arcShare)} of it`
				: ''}"
			onpointerdown={touch}
		>
			<g transform="translate({C} {C})">
				<circle r={R} fill="none" class="stroke-line" />
				{#each Array.from({ length: 12 }, (_, i) => i + 1) as hour (hour)}
					<text
						x={Math.sin((hour * Math.PI) / 6) * (R + 14)}
						y={-Math.cos((hour * Math.PI) / 6) * (R + 14) + 5}
						text-anchor="middle"
						font-size="13"
						class="fill-slate">{hour}</text
					>
				{/each}
				<circle
					r="64"
					class="fill-sapwood stroke-bark"
					stroke-width={flare === 'all-round' ? 8 : 3}
					stroke-dasharray={flare === 'one-side' ? '200 202' : undefined}
				/>
				<text text-anchor="middle" y="5" font-size="13" fill="#241c16"
					>{format().measure(tree.trunkDiameterMm, 'mm')}</text
				>
				{#each across as one, index (index)}
					<path d={ring(one, Math.min(4, index))} class="fill-oxide stroke-paper" />
				{/each}
				{#if begun !== null}
					<path
						d="M{Math.sin((shownDeg(begun) * Math.PI) / 180) * 66} {-Math.cos(
							(shownDeg(begun) * Math.PI) / 180
						) * 66}L{Math.sin((shownDeg(begun) * Math.PI) / 180) * R} {-Math.cos(
							(shownDeg(begun) * Math.PI) / 180
						) * R}"
						class="stroke-ochre"
						stroke-width="3"
						stroke-dasharray="5 4"
					/>
				{/if}
			</g>
		</svg>
		<p class="text-sm text-slate">
			{begun === null
				? 'Touch where a root begins to lie across the trunk, then, clockwise, where it ends.'
				: 'Now touch where it ends, clockwise.'}
			{frame === 'container' ? 'The front is at 6.' : 'North is at 12.'}
		</p>
	</div>
	<div class="flex flex-col gap-4">
		<Choice
			label="The flare is seen"
			bind:value={flare}
			options={flares.map((value) => ({ value, label: atStart(flareNames[value]) }))}
		/>
		<MeasureField
			name="raw.buriedMm"
			label="Soil or mulch above the flare"
			unit="mm"
			value={buriedMm}
			oninput={(mm) => (buriedMm = mm)}
			fieldClass="max-w-56"
		/>
		<Choice label="Soil, turf or mulch is heaped against the bark" bind:value={heaped} options={yesOrNo} />
		<Choice label="Roots come from the trunk above the flare" bind:value={above} options={yesOrNo} />
		<Choice
			label="Roots lie across the trunk"
			bind:value={crossed}
			options={[
				{ value: 'none', label: 'None, all round' },
				{ value: 'some', label: 'Some' }
			]}
			onchange={(value) => {
				if (value === 'none') across = [];
			}}
		/>
		<fieldset class="flex flex-wrap items-end gap-2">
			<legend class="mb-1 text-sm font-semibold">A root across the trunk</legend>
			<label class="flex flex-col gap-1 text-sm"
				>From<select class="input !w-24" bind:value={fromClock}>
					{#each hours as hour (hour)}<option value={String(hour)}>{format().clock(hour)}</option>{/each}
				</select></label
			>
			<label class="flex flex-col gap-1 text-sm"
				>to, clockwise<select class="input !w-24" bind:value={toClock}>
					{#each hours as hour (hour)}<option value={String(hour)}>{format().clock(hour)}</option>{/each}
				</select></label
			>
			<MeasureField
				name="thick"
				label="Thick"
				unit="mm"
				value={diameterMm}
				oninput={(mm) => (diameterMm = mm)}
				fieldClass="w-28"
			/>
			<Button
				disabled={fromClock === toClock || diameterMm === null || diameterMm < 1 || across.length >= 20}
				onclick={() => add(azimuthOf(Number(fromClock), frame), azimuthOf(Number(toClock), frame))}
				>Add</Button
			>
		</fieldset>
		{#if across.length > 0}
			<ul class="divide-y border-y">
				{#each across as one, index (index)}
					<li class="flex items-center justify-between gap-3 py-1">
						<span
							>{clockText(one.fromDeg)} to {clockText(one.toDeg)}, {format().measure(one.diameterMm, 'mm')} thick</span
						>
						<Button
							tone="quiet"
							size="small"
							aria-label="Without the root {clockText(one.fromDeg)} to {clockText(one.toDeg)}"
							onclick={() => across.splice(index, 1)}>×</Button
						>
					</li>
				{/each}
			</ul>
		{/if}
		{#if result?.arcShare && across.length > 0}
			<p class="text-lg" role="status">
				<Workings
					label="Trunk lain across"
					formula="arcs joined, overlaps once, ÷ 360°"
					lines={[
						{
							label: 'Thickest',
							value: format().measure(Math.max(...across.map((one) => one.diameterMm)), 'mm')
						},
						{
							label: 'One class up when thicker than',
							value: format().measure(values['girdling.thickShareOfTrunk'] * tree.trunkDiameterMm, 'mm'),
							mark: markOf('girdling.thickShareOfTrunk')
						},
						{
							label: 'A collar is buried from',
							value: format().measure(values['measuring.buried'], 'mm'),
							mark: markOf('measuring.buried')
						}
					]}
					changes="Mapping the roots gives the true contact."
					><strong>{format().percent(result.arcShare)}</strong></Workings
				>
				of the trunk lain across: {result.severity}.
			</p>
			{#if result.severity === 'serious' || result.severity === 'critical'}
				<p class="text-sm">Map the roots before cutting: what strangles may also anchor it.</p>
			{/if}
		{/if}
	</div>
</div>
