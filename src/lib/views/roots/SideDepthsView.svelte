<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { clockOf } from '$core/maths/circular';
	import type { Segment } from '$core/roots/map/root-map';
	import type { Picture } from '$core/take-in/picture';
	import { counted } from '$core/text/plural';
	import { sideName } from '$core/text/sides';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { useFormat } from '$ui/format';
	import PictureStage from '$views/recovery/PictureStage.svelte';
	import PlaneOutline from '$views/recovery/PlaneOutline.svelte';
	import SizeBeside from '$views/recovery/SizeBeside.svelte';
	import { onMount, untrack } from 'svelte';
	import { keepBeforeLeaving } from './leaving';
	import type { RootsOfTree } from './roots-of-tree';
	import { RootsState } from './roots-state.svelte';
	import { FROM_DEG, SideDepths, type SideBase } from './side-depths.svelte';

	/** How deep roots of the map lie below the flare, from a picture taken from the side. */
	interface Props {
		of: RootsOfTree;
		picture: Picture;
		rimMm: number | null;
	}
	let { of, picture, rimMm }: Props = $props();
	const format = useFormat();
	const roots = untrack(() => new RootsState(of));
	keepBeforeLeaving(roots);
	const source = untrack(() => resolve('/pictures/[file]', { file: `${picture.hash}.jpg` }));
	const side = untrack(() => new SideDepths(picture, roots.map, of.values, rimMm));
	onMount(() => {
		const reader = createPictureReader();
		reader
			.card(source, picture.focalShare, of.values)
			.then((found) => side.measure.searched(found))
			.catch(() => side.measure.searched('no-card'));
		return () => {
			reader.stop();
			roots.ways.stop();
		};
	});

	const mm = (value: number): string => format().measure(value, 'mm');
	const clock = (azimuthDeg: number): string => format().clock(clockOf(azimuthDeg, roots.map.frame));
	const rootSaid = ({ course, diameterStartMm }: Segment): string =>
		`${clock(course[0]?.azimuthDeg ?? 0)}, ${mm(diameterStartMm)}`;
	const depthSaid = (depthMm: number): string =>
		depthMm < 0 ? `${mm(-depthMm)} above` : `${mm(depthMm)} below`;
	/** What the map has of its depth so far. */
	const before = (root: Segment): string =>
		root.guessed.includes('depth')
			? 'its depth was a guess so far'
			: `on the map ${depthSaid(root.course[0]?.depthMm ?? 0)} so far`;
	const NONE = 'none';
	const rootsFor = ({ about, root }: SideBase): { value: string; label: string }[] => [
		...(root && !about.includes(root) ? [root, ...about] : about).map((one) => ({
			value: one.id,
			label: rootSaid(one)
		})),
		{ value: NONE, label: 'none of the map' }
	];
	const inGround = $derived(roots.map.frame === 'ground');

	function put(): void {
		roots.deepen(picture.id, side.depths);
		void goto(resolve('/trees/[id]/roots', { id: of.tree.id }));
	}
</script>

<div class="page grid grid-cols-1 gap-x-8 gap-y-5 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<div class="min-w-0">
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Depth from the side, {format().date(picture.takenOn)}</h2>
			<a class="chalk" href={resolve('/trees/[id]/roots', { id: of.tree.id })}>Back to the map</a>
		</div>
		<p class="mt-1 text-lg" aria-live="polite">{side.says}</p>
		<PictureStage
			{picture}
			{source}
			bind:shownWidthPx={side.measure.shownWidthPx}
			groups={[
				{ name: 'Corner', points: side.measure.corners, tone: 'size' },
				{ name: 'Edge', points: side.edges, tone: 'size' },
				{ name: 'Root', points: side.bases.map(({ at }) => at), tone: 'thing' }
			]}
			touch={(at) => side.touch(at)}
			move={(name, index, to) => side.move(name, index, to)}
		>
			{#snippet over(scale)}
				<PlaneOutline measuring={side.measure} {scale} />
				{@const [a, b] = side.edges}
				{#if a && b}
					<line
						x1={a.x}
						y1={a.y}
						x2={b.x}
						y2={b.y}
						class="stroke-rain"
						stroke-width={2.5 * scale}
						stroke-dasharray="{6 * scale} {4 * scale}"
					/>
				{/if}
			{/snippet}
		</PictureStage>
		<div class="mt-2 flex flex-wrap gap-2">
			<Button
				disabled={side.step === 'wait'}
				onclick={() => side.touch({ x: picture.widthPx / 2, y: picture.heightPx / 2 })}
				>A touch in the middle</Button
			>
			<Button disabled={side.touched === 0} onclick={() => side.back()}>Take the last back</Button>
		</div>
	</div>

	<section aria-labelledby="depths-title" class="flex h-fit min-w-0 flex-col gap-4">
		<h3 id="depths-title" class="text-lg">
			Roots from {side.fromDeg === null ? 'the side' : sideName(side.fromDeg, inGround)}
		</h3>
		<SelectField
			name="from"
			label="Taken from"
			bind:value={
				() => String(side.fromDeg ?? ''), (chosen) => (side.fromDeg = chosen === '' ? null : Number(chosen))
			}
			options={[
				...(side.fromDeg === null ? [{ value: '', label: 'not said yet' }] : []),
				...FROM_DEG.map((deg) => ({ value: String(deg), label: sideName(deg, inGround) }))
			]}
		/>
		<Choice
			label="What lies beside for its size stands upright"
			size="small"
			bind:value={side.stands}
			options={[
				{ value: 'beside', label: 'beside the trunk, in line with its middle' },
				{ value: 'front', label: 'in front, against the bark' }
			]}
		/>
		{#if roots.map.segments.length === 0}
			<p>
				No root is on the map yet: read them from above first, <a
					class="chalk"
					href={resolve('/trees/[id]/roots', { id: of.tree.id })}>or enter them</a
				>.
			</p>
		{/if}
		{#if side.step === 'bases'}
			{#if side.width}
				<p class="text-sm" class:text-oxide={side.widthIsOff}>
					Between the two edges {mm(side.width.seenMm)}; the trunk on the map is {mm(side.width.mapMm)} wide there.
					{#if side.widthIsOff}Touch the edges anew, or say where the card stands: depths would be off as
						much.{/if}
				</p>
			{/if}
			{#if side.bases.length > 0}
				<ul class="divide-y border-y" aria-label="Bases touched in the picture">
					{#each side.bases as base, i (base.id)}
						<li class="flex flex-col gap-1 py-2">
							{#if base.seen}
								<p>
									<strong>{clock(base.seen.azimuthDeg)}</strong>: {mm(Math.abs(base.seen.depthMm))} ± {mm(
										Math.max(1, base.seen.errorMm)
									)}
									{base.seen.depthMm < 0 ? 'above' : 'below'} the flare
								</p>
								<SelectField
									name="root-{i}"
									label="Root {i + 1} is"
									bind:value={
										() => base.root?.id ?? NONE, (chosen) => side.is(base.id, chosen === NONE ? null : chosen)
									}
									options={rootsFor(base)}
								/>
								{#if base.root}<p class="text-sm text-slate">{before(base.root)}</p>{/if}
							{:else if side.fromDeg === null}
								<p>Root {i + 1}: touched.</p>
							{:else}
								<p>
									Root {i + 1} is seen beside the trunk: its depth is told by a picture from the side that it grows
									to.
								</p>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
			<Button tone="solid" size="large" disabled={side.depths.length === 0} onclick={put}
				>Put {counted(side.depths.length, 'depth')} on the map</Button
			>
		{:else}
			<SizeBeside measuring={side.measure} {rimMm} />
		{/if}
	</section>
</div>
