<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { card } from '$core/examine/pictures/card';
	import { knownRectangles, readsLongBy, type Point2 } from '$core/examine/pictures/plane';
	import type { Picture } from '$core/take-in/picture';
	import type { Tree } from '$core/take-in/tree';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import { onMount, untrack } from 'svelte';
	import { PictureMeasure } from './picture-measure.svelte';

	/** Lengths in a picture, by the printed card, by a sheet that lies beside, or by two points. */
	interface Props {
		tree: Tree;
		picture: Picture;
		/** Width of the round pot it stood in that day; null where that is not known. */
		rimMm: number | null;
		values: Values;
		refused?: Refused | null;
	}
	let { tree, picture, rimMm, values, refused }: Props = $props();
	const format = useFormat();
	const measuring = untrack(() => new PictureMeasure(picture, values, rimMm));
	let stage = $state<HTMLElement>();
	/** Where the glass stands, px of the picture. */
	let glass = $state.raw<Point2 | null>(null);
	let held = $state.raw<{ which: 'corners' | 'line'; index: number } | null>(null);
	let as = $state<'shoots' | 'woundwood'>('shoots');
	const source = $derived(resolve('/pictures/[file]', { file: `${picture.hash}.jpg` }));
	const scale = $derived(measuring.shownWidthPx > 0 ? picture.widthPx / measuring.shownWidthPx : 1);
	const GLASS_PX = 132;
	const GLASS_ZOOM = 3;

	const mm = (value: number): string => format().measure(value, 'mm');
	const said = ({ mm: length, errorMm }: { mm: number; errorMm: number }): string =>
		`${mm(length)} ± ${mm(Math.max(1, errorMm))}`;
	onMount(() => {
		const reader = createPictureReader();
		reader
			.card(source, values)
			.then((found) => measuring.searched(found))
			// What cannot be read is said as what it is for the person: no card in it.
			.catch(() => measuring.searched('no-card'))
			.finally(() => reader.stop());
		return () => reader.stop();
	});

	function at(event: PointerEvent): Point2 | null {
		const box = stage?.getBoundingClientRect();
		if (!box) return null;
		return { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale };
	}
	function press(event: PointerEvent): void {
		if (event.button !== 0) return;
		stage?.setPointerCapture(event.pointerId);
		glass = at(event);
		event.preventDefault();
	}
	function slide(event: PointerEvent): void {
		if (glass === null) return;
		glass = at(event);
		if (held && glass) measuring.move(held.which, held.index, glass);
	}
	function lift(event: PointerEvent): void {
		const to = at(event);
		if (glass !== null && to && !held) measuring.touch(to);
		glass = held = null;
	}
	function nudge(event: KeyboardEvent, which: 'corners' | 'line', index: number): void {
		const steps: Record<string, [number, number]> = {
			ArrowLeft: [-1, 0],
			ArrowRight: [1, 0],
			ArrowUp: [0, -1],
			ArrowDown: [0, 1]
		};
		const step = steps[event.key];
		const point = measuring[which][index];
		if (!step || !point) return;
		const by = (event.shiftKey ? 20 : 2) * scale;
		measuring.move(which, index, { x: point.x + step[0] * by, y: point.y + step[1] * by });
		event.preventDefault();
	}
	const touched = $derived(measuring.corners.length + measuring.line.length);
	const path = (points: readonly Point2[]): string => points.map(({ x, y }) => `${x},${y}`).join(' ');
</script>

<div class="page grid grid-cols-1 gap-x-10 gap-y-5 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Measure in a picture</h2>
			<a class="chalk" href={resolve('/trees/[id]/recovery/pictures', { id: tree.id })}
				>Back to the pictures</a
			>
		</div>
		<p class="mt-1 text-lg" class:text-oxide={measuring.fault !== null} aria-live="polite">
			{measuring.says}
		</p>
		<div
			bind:this={stage}
			bind:clientWidth={measuring.shownWidthPx}
			class="relative mt-2 touch-none overflow-hidden rounded-sm border select-none"
			style="aspect-ratio: {picture.widthPx} / {picture.heightPx}; max-width: calc(max(30rem, 100vh - 18rem) * {picture.widthPx /
				picture.heightPx})"
			onpointerdown={press}
			onpointermove={slide}
			onpointerup={lift}
			onpointercancel={() => (glass = held = null)}
			role="presentation"
		>
			<img
				src={source}
				alt="{picture.view}, {format().date(picture.takenOn)}"
				class="pointer-events-none size-full"
				draggable="false"
			/>
			<svg viewBox="0 0 {picture.widthPx} {picture.heightPx}" class="absolute inset-0 size-full">
				{#snippet points(which: 'corners' | 'line', name: string)}
					{#each measuring[which] as { x, y }, i (i)}
						<circle
							cx={x}
							cy={y}
							r={7 * scale}
							class="cursor-grab touch-none stroke-paper {which === 'corners' ? 'fill-rain' : 'fill-oxide'}"
							stroke-width={2 * scale}
							role="button"
							tabindex="0"
							aria-label="{name} {i + 1} of {measuring[which].length}: arrow keys move it"
							onpointerdown={() => (held = { which, index: i })}
							onkeydown={(event) => nudge(event, which, i)}
						/>
					{/each}
				{/snippet}
				{#if measuring.rim}
					{@const { middle, halfLong, halfShort, turnDeg } = measuring.rim}
					<ellipse
						rx={halfLong}
						ry={halfShort}
						transform="translate({middle.x} {middle.y}) rotate({turnDeg})"
						class="fill-none stroke-rain"
						stroke-width={2 * scale}
						stroke-dasharray="{6 * scale} {4 * scale}"
					/>
				{:else if measuring.rectangle !== 'rim' && (measuring.plane?.corners ?? measuring.corners).length > 1}
					<polygon
						points={path(measuring.plane?.corners ?? measuring.corners)}
						class="fill-none stroke-rain"
						stroke-width={2 * scale}
						stroke-dasharray="{6 * scale} {4 * scale}"
					/>
				{/if}
				{#if measuring.line.length > 1}
					<polyline points={path(measuring.line)} class="fill-none stroke-paper" stroke-width={5 * scale} />
					<polyline points={path(measuring.line)} class="fill-none stroke-oxide" stroke-width={2.5 * scale} />
				{/if}
				{@render points('corners', 'Corner')}
				{@render points('line', 'Point')}
			</svg>
			{#if glass}
				<div
					class="pointer-events-none absolute rounded-full border-2 border-ink bg-duff"
					style="width: {GLASS_PX}px; height: {GLASS_PX}px; {glass.x < picture.widthPx / 2
						? 'right'
						: 'left'}: 8px; top: 8px; background-image: url({source}); background-size: {measuring.shownWidthPx *
						GLASS_ZOOM}px auto; background-position: {GLASS_PX / 2 -
						(glass.x / scale) * GLASS_ZOOM}px {GLASS_PX / 2 - (glass.y / scale) * GLASS_ZOOM}px"
					aria-hidden="true"
				>
					<span class="absolute top-1/2 left-1/2 h-px w-6 -translate-x-1/2 bg-oxide"></span>
					<span class="absolute top-1/2 left-1/2 h-6 w-px -translate-y-1/2 bg-oxide"></span>
				</div>
			{/if}
		</div>
		<div class="mt-2 flex flex-wrap gap-2">
			<Button
				onclick={() => measuring.touch({ x: picture.widthPx / 2, y: picture.heightPx / 2 })}
				disabled={measuring.step === 'line' && !measuring.plane}
				>{measuring.step === 'corners' && measuring.rectangle !== 'two-points'
					? 'A corner in the middle'
					: 'A point in the middle'}</Button
			>
			<Button onclick={() => measuring.back()} disabled={touched === 0}>Take the last back</Button>
			<Button tone="quiet" onclick={() => measuring.again()} disabled={touched === 0}>All anew</Button>
		</div>
	</div>

	<section aria-labelledby="size-title" class="flex h-fit flex-col gap-4">
		<div>
			<h3 id="size-title" class="text-lg">What lies beside for its size</h3>
			<p class="text-sm text-slate">
				{#if measuring.rectangle === 'card' && measuring.card !== null && typeof measuring.card !== 'string'}
					The printed card was found by itself: {counted(measuring.card.markers, 'marker')}, within {format().number(
						measuring.card.offPx,
						1
					)} px of the picture. It must lie flat, in the plane of what you measure.
				{:else if measuring.rectangle === 'rim'}
					Its tilt is corrected; that its near side is seen larger than its far one goes into the ±. Measure
					in its plane.
				{:else if measuring.rectangle === 'two-points'}
					Only the scale: the picture is taken as straight from the front. What lies nearer or farther than
					the two points reads wrong.
				{:else}
					Flat, in the plane of what you measure, all four corners in the picture.
				{/if}
			</p>
			{#if measuring.noCard && measuring.rectangle !== 'card'}<p class="mt-1 text-sm">
					{measuring.noCard}
				</p>{/if}
			<a class="chalk text-sm" href={resolve('/reference/card')}>Print the card, it is found by itself</a>
		</div>
		<SelectField
			name="rectangle"
			label="Size"
			bind:value={() => measuring.rectangle, (chosen) => measuring.choose(chosen)}
			options={[
				{ value: 'card', label: `printed card, ${mm(card.widthMm)} × ${mm(card.heightMm)}` },
				...Object.entries(knownRectangles).map(([value, { name, widthMm, heightMm }]) => ({
					value,
					label: `${name}, ${mm(widthMm)} × ${mm(heightMm)}`
				})),
				{ value: 'own', label: 'another rectangle' },
				{ value: 'rim', label: 'round rim of the pot' },
				{ value: 'two-points', label: 'two points, only the scale' }
			]}
		/>
		{#if measuring.rectangle === 'rim'}
			<MeasureField
				name="rimMm"
				label="Width of the rim, inside"
				unit="mm"
				value={measuring.rimMm}
				hint={rimMm === null ? undefined : 'As it was potted; measure it if that is not sure.'}
				oninput={(value) => (measuring.rimMm = value)}
			/>
		{/if}
		{#if measuring.rectangle === 'two-points'}
			<MeasureField
				name="apartMm"
				label="The two points are apart"
				unit="mm"
				value={measuring.apartMm}
				oninput={(value) => (measuring.apartMm = value)}
			/>
		{/if}
		{#if measuring.rectangle === 'own'}
			<div class="grid grid-cols-2 gap-3">
				<MeasureField
					name="ownWidthMm"
					label="Long side"
					unit="mm"
					value={measuring.ownWidthMm}
					oninput={(value) => (measuring.ownWidthMm = value)}
				/>
				<MeasureField
					name="ownHeightMm"
					label="Short side"
					unit="mm"
					value={measuring.ownHeightMm}
					oninput={(value) => (measuring.ownHeightMm = value)}
				/>
			</div>
		{/if}

		{#if measuring.plane}
			<p>
				{#if measuring.length}<strong class="text-2xl">{said(measuring.length)}</strong><br />{/if}
				<span class="text-sm text-slate">
					{measuring.plane.tiltDeg === null
						? 'Tilt is not corrected; taken from'
						: `Taken about ${format().number(measuring.plane.tiltDeg)}° from straight, from`} some {format().measure(
						measuring.plane.distanceMm / 1000,
						'm',
						1
					)} away. What lies {mm(10)} nearer to the camera than the {measuring.named} reads {format().percent(
						readsLongBy(measuring.plane, 10)
					)} too long.
				</span>
			</p>
			<Button tone="solid" disabled={!measuring.length} onclick={() => measuring.keep()}
				>Keep this length</Button
			>
		{/if}

		{#if measuring.kept.length > 0}
			<div>
				<h3 class="text-lg">Measured</h3>
				<ul class="mt-1 divide-y border-y">
					{#each measuring.kept as length, i (length)}
						<li class="flex items-center justify-between py-1">
							{said(length)}
							<Button
								size="small"
								tone="quiet"
								aria-label="Leave out {said(length)}"
								onclick={() => measuring.drop(i)}>×</Button
							>
						</li>
					{/each}
				</ul>
			</div>
			<form
				method="POST"
				action="?/look"
				use:enhance={act({ done: () => (measuring.kept = []) })}
				class="flex flex-col gap-3"
				novalidate
			>
				<Problem {refused} />
				<Choice
					label="Write it down as"
					size="small"
					bind:value={as}
					options={[
						{ value: 'shoots', label: 'shoots of this season' },
						{ value: 'woundwood', label: 'woundwood at the largest cut' }
					]}
				/>
				{#if as === 'shoots'}
					{#each measuring.kept as { mm: length }, i (i)}
						<input type="hidden" name="shootsMm" value={Math.round(length * 10) / 10} />
					{/each}
				{:else}
					<input
						type="hidden"
						name="woundwoodMm"
						value={Math.round((measuring.kept.at(-1)?.mm ?? 0) * 10) / 10}
					/>
					{#if measuring.kept.length > 1}
						<Caution title="One width"
							>The last of them is written down: {said(
								measuring.kept.at(-1) ?? { mm: 0, errorMm: 0 }
							)}.</Caution
						>
					{/if}
				{/if}
				<input type="hidden" name="observedOn" value={picture.takenOn} />
				<input
					type="hidden"
					name="note"
					value="Measured in a picture ({picture.view}): {measuring.kept.map(said).join('; ')}."
				/>
				<Button type="submit" tone="solid"
					>{as === 'shoots'
						? `Write down ${counted(measuring.kept.length, 'shoot')}`
						: 'Write down the width'} of {format().date(picture.takenOn)}</Button
				>
			</form>
		{/if}
	</section>
</div>
