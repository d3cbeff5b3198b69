<script lang="ts">
	import type { RawReadingOf } from '$core/examine/measuring/measurement';
	import { densityNames, judgeCore } from '$core/examine/soil/bulk-density';
	import { hardnessNames, resistanceProfile } from '$core/examine/soil/penetrometer';
	import { textureClasses } from '$core/vocabulary/textures';
	import type { Values } from '$core/values/values';
	import { roundMarks } from '$ui/axis';
	import { useFormat } from '$ui/format';
	import { line, scaleLinear } from 'd3';

	/** Resistance and density of the soil by depth, drawn downward, with the limits at which roots slow and stop. */
	interface Props {
		profile: RawReadingOf<'penetrometer'> | null;
		cores: RawReadingOf<'soil-cores'> | null;
		values: Values;
	}
	let { profile, cores, values }: Props = $props();
	const format = useFormat();

	let width = $state(430);
	let densityWidth = $state(320);
	const H = 380;
	const TOP = 46;
	const BOTTOM = 14;
	const LEFT = 66;
	const resistance = $derived(profile ? resistanceProfile(profile.readings, values) : null);
	const judged = $derived(cores ? cores.cores.map((core) => judgeCore(core, cores.texture, values)) : []);
	const deepest = $derived(
		Math.max(300, resistance?.bands.at(-1)?.toMm ?? 0, ...judged.map((core) => core.toMm))
	);
	const y = $derived(
		scaleLinear()
			.domain([0, deepest])
			.range([TOP, H - BOTTOM])
	);
	const x = $derived(
		scaleLinear()
			.domain([0, Math.max(4, (resistance?.worst?.mostMpa ?? 0) * 1.05)])
			.range([LEFT, width - 12])
	);
	const d = $derived(
		scaleLinear()
			.domain([0.9, 2])
			.range([LEFT, densityWidth - 12])
			.clamp(true)
	);
	const slow = $derived(values['soil.resistance-slow']);
	const stop = $derived(values['soil.resistance-stop']);
	const traces = $derived.by(() => {
		if (!profile) return [];
		const byPosition = new Map<number, { depthMm: number; resistanceMpa: number }[]>();
		for (const reading of profile.readings) {
			const list = byPosition.get(reading.position) ?? [];
			list.push(reading);
			byPosition.set(reading.position, list);
		}
		const path = line<{ depthMm: number; resistanceMpa: number }>()
			.x((reading) => x(reading.resistanceMpa))
			.y((reading) => y(reading.depthMm));
		return [...byPosition.values()]
			.slice(0, 30)
			.map((list) => path(list.toSorted((a, b) => a.depthMm - b.depthMm)) ?? '');
	});
	const rooted = $derived(values['soil.root-depth']);
	const limits = $derived(
		cores
			? {
					ideal: values[`soil.density.ideal.${cores.texture}`],
					affects: values[`soil.density.affects.${cores.texture}`],
					restricts: values[`soil.density.restricts.${cores.texture}`]
				}
			: null
	);
	const resistanceSpoken = $derived(
		(resistance?.bands ?? [])
			.map(
				(band) =>
					`${format().measure(band.fromMm, 'mm')}: ${format().measure(band.meanMpa, 'MPa')}, ${hardnessNames[band.hardness]}`
			)
			.join('; ')
	);
	/** A resistance as the axis has it: its unit stands at the top. */
	const shownMpa = (mpa: number): string => {
		const { toShown, digits } = format().unitOf('MPa');
		return format().number(toShown(mpa), digits);
	};
	const densitySpoken = $derived(
		judged
			.map(
				(core) =>
					`${format().measure(core.fromMm, 'mm')}: ${format().number(core.bulkDensityMgPerM3, 2)} Mg/m³, ${densityNames[core.judgement]}`
			)
			.join('; ')
	);
</script>

{#snippet grid(panelWidth: number)}
	{#each roundMarks(y.domain(), 'mm', format(), 7) as tick (tick)}
		<path d="M{LEFT} {y(tick)}H{panelWidth - 8}" class="stroke-line" />
		<text x={LEFT - 8} y={y(tick) + 4} text-anchor="end" font-size="12.5" class="fill-slate"
			>{format().measure(tick, 'mm')}</text
		>
	{/each}
	{#if rooted < deepest}
		<path
			d="M{LEFT} {y(rooted)}H{panelWidth - 8}"
			class="stroke-lichen"
			stroke-width="1.6"
			stroke-dasharray="7 5"
		/>
		<text
			x={panelWidth - 10}
			y={y(rooted) - 5}
			text-anchor="end"
			font-size="12.5"
			class="fill-lichen stroke-paper"
			stroke-width="3"
			paint-order="stroke">most roots above this</text
		>
	{/if}
{/snippet}

<div class={['mt-2 grid gap-4', resistance && cores && 'sm:grid-cols-[4fr_3fr]']}>
	{#if resistance}
		<div bind:clientWidth={width} class="min-w-0">
			<svg
				viewBox="0 0 {width} {H}"
				{width}
				height={H}
				class="block w-full"
				role="img"
				aria-label="Resistance by depth: {resistanceSpoken}"
			>
				<defs>
					<pattern
						id="hard-soil"
						width="8"
						height="8"
						patternUnits="userSpaceOnUse"
						patternTransform="rotate(45)"
					>
						<path d="M0 0V8" class="stroke-oxide" stroke-width="3" />
					</pattern>
					<pattern
						id="slow-soil"
						width="8"
						height="8"
						patternUnits="userSpaceOnUse"
						patternTransform="rotate(45)"
					>
						<path d="M0 0V8" class="stroke-ochre" stroke-width="1.6" />
					</pattern>
				</defs>
				{@render grid(width)}
				{#each resistance.bands as band (band.fromMm)}
					<rect
						x={x(0)}
						y={y(band.fromMm) + 1}
						width={Math.max(0, x(band.meanMpa) - x(0))}
						height={Math.max(1, y(band.toMm) - y(band.fromMm) - 2)}
						fill={band.hardness === 'stops'
							? 'url(#hard-soil)'
							: band.hardness === 'slow'
								? 'url(#slow-soil)'
								: undefined}
						class={[
							band.hardness === 'open'
								? 'fill-sapwood stroke-bark'
								: band.hardness === 'slow'
									? 'stroke-ochre'
									: 'stroke-oxide'
						]}
					>
						<title
							>{format().measure(band.fromMm, 'mm')} to {format().measure(band.toMm, 'mm')}: {format().measure(
								band.meanMpa,
								'MPa'
							)} ({format().measure(band.leastMpa, 'MPa')} to {format().measure(band.mostMpa, 'MPa')}), {hardnessNames[
								band.hardness
							]}</title
						>
					</rect>
				{/each}
				{#each traces as trace, index (index)}
					<path d={trace} fill="none" class="stroke-ink" opacity="0.35" />
				{/each}
				<path
					d="M{x(slow)} {TOP - 6}V{H - BOTTOM}"
					class="stroke-ochre"
					stroke-width="1.8"
					stroke-dasharray="6 4"
				/>
				<path d="M{x(stop)} {TOP - 6}V{H - BOTTOM}" class="stroke-oxide" stroke-width="2" />
				<text x={x(slow)} y={TOP - 12} text-anchor="middle" font-size="12.5" class="fill-ochre"
					>{shownMpa(slow)} slow</text
				>
				<text x={x(stop)} y={TOP - 12} text-anchor="middle" font-size="12.5" class="fill-oxide"
					>{shownMpa(stop)} stop</text
				>
				<text x={x(0)} y={14} font-size="13" font-weight="600" class="fill-ink"
					>Resistance, {format().unitOf('MPa').unit}</text
				>
			</svg>
		</div>
	{/if}
	{#if limits && cores}
		<div bind:clientWidth={densityWidth} class="min-w-0">
			<svg
				viewBox="0 0 {densityWidth} {H}"
				width={densityWidth}
				height={H}
				class="block w-full"
				role="img"
				aria-label="Density by depth: {densitySpoken}"
			>
				{@render grid(densityWidth)}
				{#each [[limits.ideal, 'stroke-lichen', 'fill-lichen', 'ideal under'], [limits.affects, 'stroke-ochre', 'fill-ochre', ''], [limits.restricts, 'stroke-oxide', 'fill-oxide', 'closed']] as const as [limit, stroke, fill, word], index (index)}
					<path
						d="M{d(limit)} {TOP - 6}V{H - BOTTOM}"
						class={stroke}
						stroke-width="1.8"
						stroke-dasharray={index === 2 ? undefined : '6 4'}
					/>
					<text
						x={d(limit)}
						y={TOP - 12}
						text-anchor={index === 0 ? 'end' : index === 1 ? 'middle' : 'start'}
						font-size="12.5"
						class={fill}>{format().number(limit, 2)} {word}</text
					>
				{/each}
				{#each judged as core, index (index)}
					<rect
						x={d(core.bulkDensityMgPerM3) - 6}
						y={y(core.fromMm)}
						width="12"
						height={Math.max(4, y(core.toMm) - y(core.fromMm))}
						class={[
							'stroke-ink',
							core.judgement === 'restricts'
								? 'fill-oxide'
								: core.judgement === 'affects'
									? 'fill-ochre'
									: 'fill-lichen'
						]}
					/>
					<text
						x={d(core.bulkDensityMgPerM3) - 10}
						y={y((core.fromMm + core.toMm) / 2) + 4}
						text-anchor="end"
						font-size="12.5"
						class="fill-ink stroke-paper"
						stroke-width="3"
						paint-order="stroke">{format().number(core.bulkDensityMgPerM3, 2)}</text
					>
				{/each}
				<text x={LEFT} y={14} font-size="13" font-weight="600" class="fill-ink"
					>Density, Mg/m³, {textureClasses[cores.texture].label}</text
				>
			</svg>
		</div>
	{/if}
</div>
{#if profile}
	<p class="text-sm text-slate">
		{resistance?.positions ?? 0} position{resistance?.positions === 1 ? '' : 's'}, means by {format().measure(
			50,
			'mm'
		)}; thin lines are single positions.{profile.source === 'simulated'
			? ' Simulated probe, not a real soil.'
			: ''}
	</p>
{/if}
