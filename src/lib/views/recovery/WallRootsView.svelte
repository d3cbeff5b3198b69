<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { ShareRange } from '$core/examine/pictures/wall-words';
	import { rootSample, sampleSaid } from '$core/examine/measuring/root-sample';
	import type { Picture } from '$core/take-in/picture';
	import type { Tree } from '$core/take-in/tree';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { onMount, untrack } from 'svelte';
	import PictureStage from './PictureStage.svelte';
	import { WallRoots, type WallTouch } from './wall-roots.svelte';

	/** Roots on the wall of a ball: white, brown or none, by colours that are touched once; what the brown ones are is felt. */
	interface Props {
		tree: Tree;
		picture: Picture;
		values: Values;
		refused?: Refused | null;
	}
	let { tree, picture, values, refused }: Props = $props();
	const format = useFormat();
	const source = $derived(resolve('/pictures/[file]', { file: `${picture.hash}.jpg` }));
	const reader = createPictureReader();
	const wall = untrack(() => new WallRoots(source, values, reader));
	onMount(() => () => reader.stop());

	let shownWidthPx = $state(0);
	let drawn = $state('');
	let showsRead = $state(true);
	$effect(() => {
		const { found } = wall;
		drawn = '';
		if (!found) return;
		const address = URL.createObjectURL(found.drawn);
		drawn = address;
		return () => URL.revokeObjectURL(address);
	});
	const range = ({ low, high }: ShareRange): string =>
		`${format().percent(low)} to ${format().percent(high)}`;
	const path = $derived(wall.edge.map(({ x, y }) => `${x},${y}`).join(' '));
	const names: Record<WallTouch, string> = {
		white: 'White root',
		brown: 'Brown root',
		none: 'Soil',
		edge: 'Edge'
	};
	const nameOf = (name: string): WallTouch =>
		(Object.keys(names) as WallTouch[]).find((one) => names[one] === name) ?? 'edge';
	const of = $derived(wall.found ? wall.found.sample.white + wall.found.sample.brown : 0);
	const said = $derived(wall.sample ? rootSample(wall.sample, values) : null);
	const note = $derived(
		wall.found
			? `Read in a picture of the wall of the ball (${picture.view}): white roots on ${format().percent(wall.found.shares.white.share)} of it, brown ones on ${format().percent(wall.found.shares.brown.share)}${wall.felt === 'not-felt' ? '' : `; the brown ones felt ${wall.felt}`}.`
			: ''
	);
</script>

<div class="page grid grid-cols-1 gap-x-10 gap-y-5 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<div class="min-w-0">
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Roots on the wall of the ball, {format().date(picture.takenOn)}</h2>
			<a class="chalk" href={resolve('/trees/[id]/recovery/pictures', { id: tree.id })}
				>Back to the pictures</a
			>
		</div>
		<p class="mt-1 text-lg" class:text-oxide={wall.problem !== '' || wall.alike} aria-live="polite">
			{wall.says}
		</p>
		<div class="mt-2">
			<Choice
				label="What is touched"
				size="small"
				bind:value={wall.what}
				options={[
					{ value: 'white', label: 'white roots' },
					{ value: 'brown', label: 'brown roots' },
					{ value: 'none', label: 'soil, stones' },
					{ value: 'edge', label: 'edge of the wall' }
				]}
			/>
		</div>
		<PictureStage
			{picture}
			{source}
			bind:shownWidthPx
			groups={[
				{ name: names.edge, points: wall.edge, tone: 'size' },
				{ name: names.white, points: wall.touches.white, tone: 'light' },
				{ name: names.brown, points: wall.touches.brown, tone: 'thing' },
				{ name: names.none, points: wall.touches.none, tone: 'dark' }
			]}
			touch={(at) => wall.touch(at)}
			move={(name, index, to) => wall.move(nameOf(name), index, to)}
		>
			{#snippet over(scale)}
				{#if drawn && showsRead}
					<image
						href={drawn}
						x="0"
						y="0"
						width={picture.widthPx}
						height={picture.heightPx}
						preserveAspectRatio="none"
						class="pointer-events-none"
						style="image-rendering: pixelated"
						aria-hidden="true"
					/>
				{/if}
				{#if wall.edge.length > 1}
					<polygon points={path} class="fill-none stroke-paper" stroke-width={5 * scale} />
					<polygon points={path} class="fill-none stroke-rain" stroke-width={2.5 * scale} />
				{/if}
			{/snippet}
		</PictureStage>
		<div class="mt-2 flex flex-wrap items-center gap-2">
			<Button onclick={() => wall.touch({ x: picture.widthPx / 2, y: picture.heightPx / 2 })}
				>A touch in the middle</Button
			>
			<Button disabled={wall.touched === 0} onclick={() => wall.back()}>Take the last back</Button>
			<label class="flex min-h-11 items-center gap-2 text-sm"
				><input type="checkbox" class="size-5" bind:checked={showsRead} />Show what it was read as</label
			>
		</div>
	</div>

	<section aria-labelledby="wall-title" class="flex h-fit min-w-0 flex-col gap-4">
		<h3 id="wall-title" class="text-lg">What the wall shows</h3>
		{#if wall.found && !wall.alike}
			{@const { shares, unlike } = wall.found}
			<table class="w-full text-left">
				<thead class="text-sm text-slate">
					<tr
						><th scope="col" class="font-normal">Of the wall</th><th scope="col" class="font-normal">share</th
						><th scope="col" class="font-normal">in 95 of 100</th></tr
					>
				</thead>
				<tbody class="divide-y border-y">
					<tr
						><th scope="row" class="py-1.5 font-semibold">White roots</th><td
							>{format().percent(shares.white.share)}</td
						><td>{range(shares.white)}</td></tr
					>
					<tr
						><th scope="row" class="py-1.5 font-semibold">Brown roots</th><td
							>{format().percent(shares.brown.share)}</td
						><td>{range(shares.brown)}</td></tr
					>
					<tr
						><th scope="row" class="py-1.5 font-semibold">None</th><td
							>{format().percent(shares.none.share)}</td
						><td>{range(shares.none)}</td></tr
					>
				</tbody>
			</table>
			{#if unlike >= 0.005}<p class="text-sm">
					{format().percent(unlike)} is unlike all that was touched and counts as none of them.
				</p>{/if}
			{#if of === 0}
				<p>No roots were read on it.</p>
			{:else}
				<p class="text-sm text-slate">
					Neighbours tell nearly the same: the roots seen are worth {counted(of, 'root')} drawn at random, {wall
						.found.sample.white} of them white.
				</p>
				<Choice
					label="What the brown ones are, when you pull at them"
					size="small"
					bind:value={wall.felt}
					options={[
						{ value: 'not-felt', label: 'not felt yet' },
						{ value: 'dead', label: 'dead: dark, soft, or the skin slips' },
						{ value: 'alive', label: 'alive: firm, pale inside, only old' }
					]}
				/>
				{#if wall.felt === 'not-felt'}
					<p class="text-sm">
						White ones live. A brown one may be dead or only old, and a picture does not tell: pull at a few
						of them, then say it here.
					</p>
				{/if}
			{/if}
		{:else if !wall.alike}
			<p class="text-slate">
				Cut the wall clean, wet it, and take it from straight in front in even light. One touch on each of the
				three is enough to begin.
			</p>
		{/if}
		{#if wall.sample && said}
			<p class="text-lg" role="status">
				<strong>{format().percent(said.liveShare)}</strong> alive, between {format().percent(said.low)} and {format().percent(
					said.high
				)}. {sampleSaid(said)}
			</p>
			<form method="POST" action="?/measure" use:enhance={act()} novalidate class="flex flex-col gap-3">
				<Problem {refused} />
				<input type="hidden" name="raw" value={JSON.stringify({ tool: 'root-sample', ...wall.sample })} />
				<input type="hidden" name="measuredOn" value={picture.takenOn} />
				<TextField name="note" label="What else" optional value={note} {refused} />
				<Button type="submit" tone="solid" size="large">Keep this root sample</Button>
			</form>
		{/if}
	</section>
</div>
