<script lang="ts">
	import { azimuthOf, clockOf } from '$core/maths/circular';
	import { fieldProblems } from '$core/vocabulary/fields';
	import {
		combinedDiameterMm,
		STEM_LIMIT,
		stemsOf,
		stemSchema,
		type Outline,
		type Stem
	} from '$core/roots/map/outline';
	import { parsePlaces, writePlaces } from '$core/roots/io/quick-entry';
	import { obstacleKinds, obstacleSchema, type Obstacle, type ObstacleKind } from '$core/roots/map/root-map';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { useFormat } from '$ui/format';
	import Trash2 from '@lucide/svelte/icons/trash-2';
	import type { RootsState } from './roots-state.svelte';

	/** What the map is drawn round: trunk or stems with their outlines, ball, lean, and what stands in the way. */
	interface Props {
		roots: RootsState;
		open: boolean;
	}
	let { roots, open = $bindable() }: Props = $props();
	const format = useFormat();
	const map = $derived(roots.map);
	let problem = $state('');

	const within = (mm: number | null, least: number, most: number): mm is number =>
		mm !== null && mm >= least && mm <= most;
	function setStems(stems: Stem[]): void {
		const parsed = stemSchema.array().safeParse(stems);
		if (!parsed.success) {
			const [first] = fieldProblems(parsed.error);
			problem = `The outline ${first?.message ?? 'cannot be read'}.`;
			return;
		}
		problem = '';
		roots.setMap(
			stems.length === 0
				? { stems }
				: { stems, trunkDiameterMm: Math.round(combinedDiameterMm(stems) * 10) / 10 }
		);
	}
	const change = (id: string, patch: Partial<Stem>): void =>
		setStems(map.stems.map((stem) => (stem.id === id ? { ...stem, ...patch } : stem)));
	const roundOf = (outline: Outline, stem: Stem): number =>
		outline.shape === 'circle' ? outline.diameterMm : Math.round(combinedDiameterMm([stem]));
	/** The same stem in another shape, about as thick. */
	function reshape(stem: Stem, shape: Outline['shape']): Outline {
		const mm = roundOf(stem.outline, stem);
		if (shape === 'circle') return { shape, diameterMm: mm };
		if (shape === 'ellipse') return { shape, longMm: mm, shortMm: Math.round(mm * 0.8), longAzimuthDeg: 0 };
		return {
			shape,
			points: Array.from({ length: 8 }, (_, i) => ({ azimuthDeg: i * 45, radiusMm: Math.round(mm / 2) }))
		};
	}
	const newStemId = (): string => `s${Date.now().toString(36)}${map.stems.length}`;
	function addStem(): void {
		const [first] = stemsOf(map);
		if (!first) return;
		const base = map.stems.length > 0 ? map.stems : [{ ...first, id: 'trunk' }];
		setStems([
			...base,
			{
				id: newStemId(),
				centre: { azimuthDeg: 90, radiusMm: Math.round(map.trunkDiameterMm * 0.8) },
				outline: { shape: 'circle', diameterMm: Math.round(map.trunkDiameterMm * 0.5) },
				note: ''
			}
		]);
	}
	const clockText = (deg: number): string => format().clock(clockOf(deg, map.frame));
	/** A clock position as typed; null when it is none. */
	function clockIn(text: string): number | null {
		const [, hour, minute = '0'] = /^(\d{1,2})(?::(\d{2}))?$/.exec(text.trim()) ?? [];
		const at = Number(hour) + Number(minute) / 60;
		return hour !== undefined && at > 0 && at < 13 ? azimuthOf(at, map.frame) : null;
	}
	function trace(stem: Stem, text: string): void {
		const places = parsePlaces(text, map.frame, format().settings.units);
		if (!places.ok) return void (problem = places.problem);
		change(stem.id, { outline: { shape: 'polygon', points: places.points } });
	}

	let kind = $state<ObstacleKind>('stone');
	let places = $state('');
	let obstacleProblem = $state('');
	function addObstacle(): void {
		const points = parsePlaces(places, map.frame, format().settings.units);
		if (!points.ok) return void (obstacleProblem = points.problem);
		const obstacle: Obstacle = {
			id: `o${Date.now().toString(36)}`,
			kind,
			points: points.points,
			toDepthMm: 300,
			note: ''
		};
		const parsed = obstacleSchema.safeParse(obstacle);
		if (!parsed.success)
			return void (obstacleProblem = `The ${kind} ${fieldProblems(parsed.error)[0]?.message ?? 'cannot be read'}.`);
		obstacleProblem = '';
		places = '';
		roots.setMap({ obstacles: [...map.obstacles, parsed.data] });
	}
	const shapeNames = [
		{ value: 'circle', label: 'round' },
		{ value: 'ellipse', label: 'oval' },
		{ value: 'polygon', label: 'traced' }
	] as const;
</script>

<Sheet
	bind:open
	title="Trunk, ball and ground"
	description="They set the scale of the map, and what a root is measured against."
	wide
>
	<div class="flex flex-col gap-5">
		{#if problem}<p class="font-semibold text-oxide" role="alert">{problem}</p>{/if}
		<section aria-labelledby="stems-title">
			<h3 id="stems-title" class="text-base">Trunk above the flare</h3>
			{#if map.stems.length === 0}
				<div class="mt-2 grid gap-3 sm:grid-cols-[1fr_auto] sm:items-end">
					<MeasureField
						name="trunk"
						label="Thickness, by tape"
						unit="mm"
						value={map.trunkDiameterMm}
						oninput={(mm) => within(mm, 1, 3000) && roots.setMap({ trunkDiameterMm: mm })}
						hint="1 to 3000 mm; taken as round"
					/>
					<div class="flex flex-wrap gap-2">
						<Button
							onclick={() => {
								const [first] = stemsOf(map);
								if (first) setStems([{ ...first, outline: reshape(first, 'ellipse') }]);
							}}>It is not round</Button
						>
						<Button onclick={addStem}>Several stems</Button>
					</div>
				</div>
			{:else}
				<ul class="mt-1 divide-y border-y">
					{#each map.stems as stem, index (stem.id)}
						<li class="flex flex-col gap-3 py-3">
							<div class="flex flex-wrap items-end gap-3">
								<Choice
									label="Stem {index + 1}"
									value={stem.outline.shape}
									options={shapeNames}
									size="small"
									onchange={(shape) => change(stem.id, { outline: reshape(stem, shape) })}
								/>
								<span class="ml-auto">
									<Button
										tone="quiet"
										size="small"
										aria-label="Take stem {index + 1} off"
										onclick={() => setStems(map.stems.filter((other) => other.id !== stem.id))}
										><Trash2 size={16} /></Button
									>
								</span>
							</div>
							<div class="grid gap-3 sm:grid-cols-3">
								{#if stem.outline.shape === 'circle'}
									<MeasureField
										name="diameter-{index}"
										label="Thickness"
										unit="mm"
										value={stem.outline.diameterMm}
										oninput={(mm) =>
											within(mm, 1, 3000) &&
											change(stem.id, { outline: { shape: 'circle', diameterMm: mm } })}
									/>
								{:else if stem.outline.shape === 'ellipse'}
									{@const oval = stem.outline}
									<MeasureField
										name="long-{index}"
										label="The long way"
										unit="mm"
										value={oval.longMm}
										oninput={(mm) =>
											within(mm, 1, 3000) && change(stem.id, { outline: { ...oval, longMm: mm } })}
									/>
									<MeasureField
										name="short-{index}"
										label="The short way"
										unit="mm"
										value={oval.shortMm}
										oninput={(mm) =>
											within(mm, 1, 3000) && change(stem.id, { outline: { ...oval, shortMm: mm } })}
									/>
									<TextField
										name="toward-{index}"
										label="Long way points to, o’clock"
										value={clockText(oval.longAzimuthDeg)}
										onchange={(event) => {
											const deg = clockIn(event.currentTarget.value);
											if (deg === null) problem = 'The long way must point to a clock position, 1 to 12.';
											else change(stem.id, { outline: { ...oval, longAzimuthDeg: deg } });
										}}
									/>
								{:else}
									<TextField
										name="points-{index}"
										fieldClass="sm:col-span-3"
										label="Points round it, from its middle: o’clock and mm"
										value={writePlaces(stem.outline.points, map.frame, format().settings.units)}
										onchange={(event) => trace(stem, event.currentTarget.value)}
										hint="12 45; 2 52; 4 48; … once round, at least three"
									/>
								{/if}
								{#if map.stems.length > 1}
									<TextField
										name="at-{index}"
										label="Its middle stands at, o’clock"
										value={clockText(stem.centre.azimuthDeg)}
										onchange={(event) => {
											const deg = clockIn(event.currentTarget.value);
											if (deg === null) problem = 'The stem must stand at a clock position, 1 to 12.';
											else change(stem.id, { centre: { ...stem.centre, azimuthDeg: deg } });
										}}
									/>
									<MeasureField
										name="away-{index}"
										label="from the middle of the map"
										unit="mm"
										value={stem.centre.radiusMm}
										oninput={(mm) =>
											within(mm, 0, 20_000) && change(stem.id, { centre: { ...stem.centre, radiusMm: mm } })}
									/>
								{/if}
							</div>
						</li>
					{/each}
				</ul>
				<div class="mt-2 flex flex-wrap items-center gap-3">
					<Button size="small" disabled={map.stems.length >= STEM_LIMIT} onclick={addStem}
						>Another stem</Button
					>
					<Button size="small" tone="quiet" onclick={() => setStems([])}>One round trunk after all</Button>
					<span class="text-sm text-slate"
						>Together they count as {format().measure(map.trunkDiameterMm, 'mm')}{map.stems.length > 1
							? ' (BS 5837:2012)'
							: ' by tape'}.</span
					>
				</div>
			{/if}
		</section>

		<section aria-labelledby="ball-title">
			<h3 id="ball-title" class="text-base">{map.frame === 'ground' ? 'Ground opened' : 'Ball'} and lean</h3>
			<div class="mt-2 grid gap-3 sm:grid-cols-2">
				<MeasureField
					name="ball"
					label={map.frame === 'ground' ? 'Radius of the ground opened' : 'Radius of the ball'}
					unit="mm"
					value={map.ballRadiusMm}
					oninput={(mm) => within(mm, 10, 20_000) && roots.setMap({ ballRadiusMm: mm })}
					hint="10 to 20,000 mm"
				/>
				<MeasureField
					name="ball-depth"
					label="Depth under the flare"
					unit="mm"
					optional
					value={map.ballDepthMm}
					oninput={(mm) => (mm === null || within(mm, 10, 5000)) && roots.setMap({ ballDepthMm: mm })}
					hint="Left out: down to the lowest root"
				/>
				<MeasureField
					name="lean"
					label="The trunk leans by, degrees"
					unit=""
					optional
					value={map.lean?.deg ?? null}
					oninput={(deg) =>
						(deg === null || within(deg, 0, 89)) &&
						roots.setMap({ lean: deg === null ? null : { deg, towardDeg: map.lean?.towardDeg ?? 0 } })}
					hint="0 to 89, from upright"
				/>
				{#if map.lean}
					{@const lean = map.lean}
					<TextField
						name="lean-toward"
						label="It leans to, o’clock"
						value={clockText(lean.towardDeg)}
						onchange={(event) => {
							const deg = clockIn(event.currentTarget.value);
							if (deg === null) problem = 'It must lean to a clock position, 1 to 12.';
							else roots.setMap({ lean: { ...lean, towardDeg: deg } });
						}}
					/>
				{/if}
			</div>
		</section>

		{#if roots.options.tree.sharedPot !== ''}
			<section aria-labelledby="shared-title">
				<h3 id="shared-title" class="text-base">In the shared pot, {roots.options.tree.sharedPot}</h3>
				<div class="mt-2 grid gap-3 sm:grid-cols-2">
					<MeasureField
						name="in-pot"
						label="Its middle is from the middle of the pot"
						unit="mm"
						optional
						value={map.inPot?.radiusMm ?? null}
						oninput={(mm) =>
							(mm === null || within(mm, 0, 20_000)) &&
							roots.setMap({
								inPot: mm === null ? null : { radiusMm: mm, azimuthDeg: map.inPot?.azimuthDeg ?? 0 }
							})}
						hint="Then the others in the pot are shown on the map"
					/>
					{#if map.inPot}
						{@const inPot = map.inPot}
						<TextField
							name="in-pot-at"
							label="at, o’clock"
							value={clockText(inPot.azimuthDeg)}
							onchange={(event) => {
								const deg = clockIn(event.currentTarget.value);
								if (deg === null) problem = 'It must stand at a clock position, 1 to 12.';
								else roots.setMap({ inPot: { ...inPot, azimuthDeg: deg } });
							}}
						/>
					{/if}
				</div>
			</section>
		{/if}

		<section aria-labelledby="obstacles-title">
			<h3 id="obstacles-title" class="text-base">What stands in the way</h3>
			{#if map.obstacles.length > 0}
				<ul class="mt-1 divide-y border-y">
					{#each map.obstacles as obstacle, index (obstacle.id)}
						<li class="flex items-center gap-3 py-1">
							<span class="w-14 font-semibold">{obstacle.kind}</span>
							<span class="min-w-0 flex-1 truncate text-sm"
								>{writePlaces(obstacle.points, map.frame, format().settings.units)}</span
							>
							<Button
								tone="quiet"
								size="small"
								aria-label="Take the {obstacle.kind} {index + 1} off"
								onclick={() =>
									roots.setMap({ obstacles: map.obstacles.filter((other) => other.id !== obstacle.id) })}
								><Trash2 size={16} /></Button
							>
						</li>
					{/each}
				</ul>
			{/if}
			<div class="mt-2 grid gap-3 sm:grid-cols-[9rem_1fr_auto] sm:items-end">
				<SelectField
					name="obstacle"
					label="Kind"
					bind:value={kind}
					options={obstacleKinds.map((value) => ({ value, label: value }))}
				/>
				<TextField
					name="obstacle-places"
					label="Runs along: o’clock and mm from the middle"
					value={places}
					placeholder={kind === 'stone' ? '2 180; 2:40 220; 3 190' : '1 900; 5 900'}
					oninput={(event) => (places = event.currentTarget.value)}
				/>
				<Button disabled={places.trim() === ''} onclick={addObstacle}>Add</Button>
			</div>
			{#if obstacleProblem}<p class="mt-1 text-sm font-semibold text-oxide" role="alert">
					{obstacleProblem}
				</p>{/if}
		</section>
		<Button tone="solid" onclick={() => (open = false)}>Done</Button>
	</div>
</Sheet>
