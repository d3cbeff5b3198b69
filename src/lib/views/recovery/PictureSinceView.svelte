<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { PictureLength, Point2 } from '$core/examine/pictures/plane';
	import { leafMoved, leavesSince } from '$core/recovery/leaves-since';
	import type { Picture } from '$core/take-in/picture';
	import type { Tree } from '$core/take-in/tree';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import { onMount, untrack } from 'svelte';
	import LengthsToLook from './LengthsToLook.svelte';
	import LinedUpSlider from './LinedUpSlider.svelte';
	import PictureStage from './PictureStage.svelte';
	import PlaneOutline from './PlaneOutline.svelte';
	import SizeBeside from './SizeBeside.svelte';
	import { PictureSince } from './picture-since.svelte';

	/** Two pictures of one view laid over each other, and what is measured between the two days. */
	interface Props {
		tree: Tree;
		before: Picture;
		after: Picture;
		rimMm: number | null;
		/** How much of the crown was in leaf about the day of the earlier; null where nobody looked. */
		seenThen: { leafCover: number; observedOn: string } | null;
		/** The same about the day of the later. */
		seenNow: { leafCover: number; observedOn: string } | null;
		values: Values;
		refused?: Refused | null;
	}
	let { tree, before, after, rimMm, seenThen, seenNow, values, refused }: Props = $props();
	const format = useFormat();
	const source = (picture: Picture): string => resolve('/pictures/[file]', { file: `${picture.hash}.jpg` });
	const reader = createPictureReader();
	const since = untrack(
		() => new PictureSince(after, { before: source(before), after: source(after) }, values, reader, rimMm)
	);
	onMount(() => {
		void since.lineUp().then(() =>
			reader
				.card(source(after), after.focalShare, values)
				.then((found) => since.measure.searched(found))
				.catch(() => since.measure.searched('no-card'))
		);
		return () => reader.stop();
	});

	// Where a length is touched along, that day is seen; of leaves half of either.
	let at = $derived(since.what === 'leaves' ? 50 : since.looksAt === 'then' ? 100 : 0);
	let over = $state('');
	$effect(() => {
		const { over: laid } = since;
		if (!laid) return;
		const address = URL.createObjectURL(laid);
		over = address;
		return () => URL.revokeObjectURL(address);
	});

	const day = (picture: Picture): string => format().date(picture.takenOn);
	const mm = (value: number): string => format().measure(value, 'mm');
	const lengthSaid = ({ mm: length, errorMm }: PictureLength): string =>
		`${mm(length)} ± ${mm(Math.max(1, errorMm))}`;
	const points = ({ cover, error }: { cover: number; error: number }): string =>
		`${format().percent(cover)} ± ${format().number(100 * error)}`;
	const path = (line: readonly Point2[]): string => line.map(({ x, y }) => `${x},${y}`).join(' ');

	const leaves = $derived(since.leaves);
	const moved = $derived(leaves ? leafMoved(leaves.then, leaves.now) : null);
	const movedSaid = {
		more: 'More leaf now',
		less: 'Less leaf now',
		'no-difference': 'No difference that the pictures can tell'
	};
	/** Share of green in the light of the leaves, where both pictures show the card. */
	const paler = $derived.by((): string => {
		if (!leaves) return '';
		if (!leaves.balanced)
			return 'The card does not show in both pictures: the light is not corrected, and nothing is said of the colour of the leaves.';
		const [then, now] = [leaves.then.greenness, leaves.now.greenness];
		if (then === null || now === null) return '';
		const by = now - then;
		const how =
			Math.abs(by) < values['picture.leafPaler']
				? 'as green as then'
				: by < 0
					? 'paler than then'
					: 'deeper green than then';
		return `The leaves themselves are ${how}: green is ${format().percent(now)} of their light, ${format().percent(then)} then. Corrected by the grey of the card.`;
	});
	let saidThen = $state('');
	const thenLeaf = $derived(seenThen?.leafCover ?? (saidThen === '' ? null : Number(saidThen)));
	const ofFull = $derived(
		leaves && thenLeaf !== null ? leavesSince(leaves.then, leaves.now, thenLeaf) : null
	);
	const note = $derived.by((): string => {
		const between = `Between two pictures (${after.view}), ${day(before)} and ${day(after)}`;
		if (since.what === 'leaves' && leaves)
			return `${between}: leaf ${points(leaves.then)} of the loop then, ${points(leaves.now)} now.`;
		return since.grown
			? `${between}: ${lengthSaid(since.grown.then)} then, ${lengthSaid(since.grown.now)} now.`
			: '';
	});
	const grew = $derived(since.grown?.grew ?? null);
	const tells = $derived(grew !== null && Math.abs(grew.mm) > grew.errorMm);
</script>

<div class="page grid grid-cols-1 gap-x-10 gap-y-5 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_22rem]">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Then and now: {after.view}</h2>
			<a class="chalk" href={resolve('/trees/[id]/recovery/pictures', { id: tree.id })}
				>Back to the pictures</a
			>
		</div>
		<p
			class="mt-1 text-lg"
			class:text-oxide={typeof since.lined === 'string' || since.problem !== ''}
			aria-live="polite"
		>
			{since.says}
		</p>
		<PictureStage
			picture={after}
			source={source(after)}
			bind:shownWidthPx={since.measure.shownWidthPx}
			groups={since.what === 'leaves'
				? [{ name: 'Loop', points: since.loop, tone: 'thing' }]
				: [
						{ name: 'Corner', points: since.measure.corners, tone: 'size' },
						// Of the day that is touched in alone: its foot is often touched where it was before.
						since.day === 'then'
							? { name: 'Then', points: since.was, tone: 'size' }
							: { name: 'Now', points: since.is, tone: 'thing' }
					]}
			touch={(point) => since.touch(point)}
			move={(name, index, to) =>
				since.move(
					name === 'Loop' ? 'loop' : name === 'Then' ? 'was' : name === 'Now' ? 'is' : 'corners',
					index,
					to
				)}
		>
			{#snippet over(scale)}
				{@render earlier()}
				{#if since.what === 'length'}<PlaneOutline measuring={since.measure} {scale} />{/if}
				{#if since.what === 'leaves' && since.loop.length > 1}
					<polygon points={path(since.loop)} class="fill-none stroke-paper" stroke-width={4 * scale} />
					<polygon points={path(since.loop)} class="fill-none stroke-oxide" stroke-width={2 * scale} />
				{/if}
				{#if since.what === 'length'}
					{#each [{ line: since.was, tone: 'stroke-rain' }, { line: since.is, tone: 'stroke-oxide' }] as { line, tone } (tone)}
						<polyline points={path(line)} class="fill-none stroke-paper" stroke-width={5 * scale} />
						<polyline points={path(line)} class="fill-none {tone}" stroke-width={2.5 * scale} />
					{/each}
				{/if}
			{/snippet}
		</PictureStage>
		{#if over}
			<div style="max-width: {since.measure.shownWidthPx}px">
				<LinedUpSlider bind:at before="{day(before)}, then" after="{day(after)}, now" />
			</div>
		{/if}
		{#if since.how}
			<div class="mt-2 flex flex-wrap gap-2">
				<Button onclick={() => since.touch({ x: after.widthPx / 2, y: after.heightPx / 2 })}
					>A point in the middle</Button
				>
				<Button onclick={() => since.back()} disabled={since.touched === 0}>Take the last back</Button>
				<Button tone="quiet" onclick={() => since.again()} disabled={since.touched === 0}>All anew</Button>
			</div>
			<p class="mt-2 text-sm text-slate">
				Laid over each other by {counted(since.how.fits, 'place')} found in both; such a place lies within {format().number(
					2 * since.how.offPx,
					1
				)} px. {#if Math.abs(since.how.larger - 1) > values['picture.nearerSaid']}The later was taken {since
						.how.larger > 1
						? 'nearer'
						: 'farther away'}; that is corrected.
				{/if}What does not lie in one plane with them may be seen a little beside itself.
			</p>
		{/if}
	</div>

	<section aria-label="What is measured" class="flex h-fit flex-col gap-4">
		{#if typeof since.lined === 'string'}
			<Caution title="Not comparable">
				Nothing is measured between these two. Each can be measured in by itself under Pictures.
			</Caution>
		{:else if since.how}
			<Choice
				label="Measure"
				size="small"
				bind:value={since.what}
				options={[
					{ value: 'leaves', label: 'leaf in the crown' },
					{ value: 'length', label: 'a length: shoot or wound' }
				]}
			/>
			{#if since.what === 'leaves'}
				<Button onclick={() => void since.outline()}>Outline the crown by what is green</Button>
				{#if leaves}
					<div>
						<p class="text-2xl font-semibold">{moved ? movedSaid[moved] : ''}</p>
						<dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-4">
							<dt>{day(before)}</dt>
							<dd>{points(leaves.then)} of the loop is leaf</dd>
							<dt>{day(after)}</dt>
							<dd>{points(leaves.now)}</dd>
						</dl>
						<p class="mt-2 text-sm text-slate">
							{paler}
							{#if Math.max(leaves.then.dark, leaves.now.dark) > values['picture.darkSaid']}
								{format().percent(Math.max(leaves.then.dark, leaves.now.dark))} of the loop is too dark to tell.
							{/if}
							What is green behind the crown counts as leaf: a wall or a cloth behind it tells more.
						</p>
					</div>
					{#if seenThen}
						<p>
							Written down for {format().date(seenThen.observedOn)}: {format().percent(seenThen.leafCover)} of the
							crown in leaf.
						</p>
					{:else}
						<Choice
							label="How much of the crown was in leaf on {day(before)}?"
							size="small"
							bind:value={saidThen}
							options={[1, 0.9, 0.75, 0.5, 0.25].map((value) => ({
								value: String(value),
								label: format().percent(value)
							}))}
						/>
					{/if}
					{#if seenNow}
						<p>
							Written down for {format().date(seenNow.observedOn)}: {format().percent(seenNow.leafCover)} of the
							crown in leaf.
						</p>
					{/if}
					{#if ofFull}
						<form method="POST" action="?/look" use:enhance={act()} class="flex flex-col gap-3" novalidate>
							<Problem {refused} />
							<p>
								So it has {format().percent(ofFull.leafCover)} ± {format().number(100 * ofFull.error)} of its leaf
								on {day(after)}.
							</p>
							<input type="hidden" name="leafCover" value={Math.round(ofFull.leafCover * 100) / 100} />
							<input type="hidden" name="observedOn" value={after.takenOn} />
							<input type="hidden" name="note" value={note} />
							<Button type="submit" tone="solid"
								>Write down {format().percent(ofFull.leafCover)} in leaf, {day(after)}</Button
							>
						</form>
					{:else if thenLeaf !== null}
						<p>
							It had too little leaf then to measure what it has now against. Look at the leaves yourself
							under Recovery.
						</p>
					{/if}
				{/if}
			{:else}
				<Choice
					label="Touched in"
					size="small"
					bind:value={since.day}
					options={[
						{ value: 'then', label: day(before) },
						{ value: 'now', label: day(after) }
					]}
				/>
				<SizeBeside measuring={since.measure} {rimMm} />
				{#if since.grown && grew}
					<div>
						<p class="text-2xl font-semibold">
							{tells
								? `${grew.mm > 0 ? 'Longer' : 'Shorter'} by ${lengthSaid({ ...grew, mm: Math.abs(grew.mm) })}`
								: 'No difference that the pictures can tell'}
						</p>
						<p>
							{lengthSaid(since.grown.then)} on {day(before)}, {lengthSaid(since.grown.now)} on {day(after)}.
						</p>
					</div>
					{@const { now } = since.grown}
					<LengthsToLook
						lengths={[now]}
						picture={after}
						{note}
						said={lengthSaid}
						done={() => since.again()}
						{refused}
					>
						{#snippet label()}Write down {lengthSaid(now)} of {day(after)}{/snippet}
					</LengthsToLook>
				{/if}
			{/if}
		{/if}
	</section>
</div>

{#snippet earlier()}
	{#if over}
		<image
			href={over}
			x="0"
			y="0"
			width={after.widthPx}
			height={after.heightPx}
			class="pointer-events-none"
			style="clip-path: inset(0 {100 - at}% 0 0)"
			aria-hidden="true"
		/>
	{/if}
{/snippet}
