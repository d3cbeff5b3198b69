<script lang="ts">
	import { resolve } from '$app/paths';
	import { readsLongBy, type Point2 } from '$core/examine/pictures/plane';
	import type { Picture } from '$core/take-in/picture';
	import type { Tree } from '$core/take-in/tree';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import { onMount, untrack } from 'svelte';
	import LengthsToLook from './LengthsToLook.svelte';
	import PictureStage from './PictureStage.svelte';
	import PlaneOutline from './PlaneOutline.svelte';
	import SizeBeside from './SizeBeside.svelte';
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
	const source = $derived(resolve('/pictures/[file]', { file: `${picture.hash}.jpg` }));
	const mm = (value: number): string => format().measure(value, 'mm');
	const said = ({ mm: length, errorMm }: { mm: number; errorMm: number }): string =>
		`${mm(length)} ± ${mm(Math.max(1, errorMm))}`;
	onMount(() => {
		const reader = createPictureReader();
		reader
			.card(source, picture.focalShare, values)
			.then((found) => measuring.searched(found))
			// What cannot be read is said as what it is for the person: no card in it.
			.catch(() => measuring.searched('no-card'))
			.finally(() => reader.stop());
		return () => reader.stop();
	});

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
		<PictureStage
			{picture}
			{source}
			bind:shownWidthPx={measuring.shownWidthPx}
			groups={[
				{ name: 'Corner', points: measuring.corners, tone: 'size' },
				{ name: 'Point', points: measuring.line, tone: 'thing' }
			]}
			touch={(at) => measuring.touch(at)}
			move={(name, index, to) => measuring.move(name === 'Corner' ? 'corners' : 'line', index, to)}
		>
			{#snippet over(scale)}
				<PlaneOutline {measuring} {scale} />
				{#if measuring.line.length > 1}
					<polyline points={path(measuring.line)} class="fill-none stroke-paper" stroke-width={5 * scale} />
					<polyline points={path(measuring.line)} class="fill-none stroke-oxide" stroke-width={2.5 * scale} />
				{/if}
			{/snippet}
		</PictureStage>
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
		<p class="text-sm">
			<a
				class="chalk"
				href={resolve('/trees/[id]/recovery/pictures/[picture]/wall', { id: tree.id, picture: picture.id })}
				>Roots on the wall of a ball in it</a
			>
		</p>
		<SizeBeside {measuring} {rimMm} />

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
			<LengthsToLook
				lengths={measuring.kept}
				{picture}
				note="Measured in a picture ({picture.view}): {measuring.kept.map(said).join('; ')}."
				{said}
				done={() => (measuring.kept = [])}
				{refused}
			>
				{#snippet label(as)}
					{as === 'shoots' ? `Write down ${counted(measuring.kept.length, 'shoot')}` : 'Write down the width'} of
					{format().date(picture.takenOn)}
				{/snippet}
			</LengthsToLook>
		{/if}
	</section>
</div>
