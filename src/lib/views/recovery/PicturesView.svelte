<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { viewsOf, type Picture } from '$core/take-in/picture';
	import { viewFaultSaid } from '$core/examine/pictures/lined-up';
	import type { Tree } from '$core/take-in/tree';
	import { counted } from '$core/text/plural';
	import type { Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Choice from '$ui/Choice.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Camera from '@lucide/svelte/icons/camera';
	import CameraSheet from './CameraSheet.svelte';
	import { onDestroy } from 'svelte';
	import PairSlider from './PairSlider.svelte';
	import PictureFile from './PictureFile.svelte';
	import { PairUp } from './pair-up.svelte';

	/** Pictures of a tree by view: taken from the same spot, in pairs, along its time. */
	interface Props {
		tree: Tree;
		pictures: Picture[];
		works: { on: string; label: string }[];
		today: string;
		values: Values;
		refused?: Refused | null;
	}
	let { tree, pictures, works, today, values, refused }: Props = $props();
	const format = useFormat();

	const views = $derived(viewsOf(pictures));
	let view = $state('');
	const shownView = $derived(view || (views.find((one) => one.count > 0)?.view ?? 'front'));
	const ofView = $derived(pictures.filter((picture) => picture.view === shownView));
	let first = $state('');
	let second = $state('');
	const chosenTwo = $derived([
		ofView.find((picture) => picture.id === first) ?? ofView[0],
		ofView.find((picture) => picture.id === second) ?? ofView.at(-1)
	]);
	const inOrder = $derived(
		ofView.indexOf(chosenTwo[0] as Picture) <= ofView.indexOf(chosenTwo[1] as Picture)
			? chosenTwo
			: [...chosenTwo].reverse()
	);
	const before = $derived(inOrder[0]);
	const after = $derived(inOrder[1]);
	// In the order of their days, whichever was chosen for which side.
	const pair = new PairUp();
	onDestroy(() => pair.stop());
	$effect(() => {
		if (before && after && before.id !== after.id) pair.of(source(before), source(after), values);
	});
	const source = (picture: Picture): string => resolve('/pictures/[file]', { file: `${picture.hash}.jpg` });
	const small = (picture: Picture): string =>
		resolve('/pictures/[file]', { file: `${picture.hash}.small.jpg` });
	let other = $state(false);
	let camera = $state(false);
	let file = $state<PictureFile>();
	let takenOn = $state('');
	const lastWork = $derived(works.at(-1)?.on);
</script>

<div class="page grid grid-cols-1 gap-x-10 gap-y-6 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Pictures</h2>
			<a class="chalk" href={resolve('/trees/[id]/recovery', { id: tree.id })}>Back to Recovery</a>
		</div>
		{#if pictures.length === 0}
			<p class="mt-1 text-lg">
				No picture yet. The first is what every later one is held against: take it before the next work.
			</p>
		{:else}
			<div class="mt-2">
				<Choice
					label="View"
					size="small"
					value={shownView}
					onchange={(value) => (view = value)}
					options={views
						.filter((one) => one.count > 0)
						.map((one) => ({ value: one.view, label: `${one.view} ${one.count}` }))}
				/>
			</div>
			{#if before && after && before.id !== after.id}
				<div class="mt-3 max-w-lg"><PairSlider {before} {after} over={pair.over} /></div>
				<p class="mt-1 text-sm" aria-live="polite" class:text-slate={typeof pair.lined !== 'string'}>
					{#if pair.lined === null}Laying the earlier picture over the later one …
					{:else if typeof pair.lined === 'string'}{viewFaultSaid[pair.lined]}
					{:else}Laid over each other by {counted(pair.lined.fits, 'place')} found in both.{/if}
				</p>
				<p class="mt-1">
					<a
						class="chalk"
						href={resolve('/trees/[id]/recovery/pictures/[picture]/since/[before]', {
							id: tree.id,
							picture: after.id,
							before: before.id
						})}>Measure between the two</a
					>
				</p>
			{:else if before}
				<img
					src={resolve('/pictures/[file]', { file: `${before.hash}.jpg` })}
					alt="{before.view}, {format().date(before.takenOn)}"
					class="mt-3 max-w-full rounded-sm border sm:max-w-2xl"
					width={before.widthPx}
					height={before.heightPx}
				/>
			{/if}
			<ol class="relative mt-4 flex gap-3 overflow-x-auto pb-2" aria-label="Along its time">
				{#each ofView as picture, i (picture.id)}
					{@const worked = works.filter(
						(work) => work.on > (ofView[i - 1]?.takenOn ?? '') && work.on <= picture.takenOn
					)}
					<li class="w-32 shrink-0">
						{#if worked.length > 0}<p class="truncate text-xs text-oxide">
								{worked.at(-1)?.label} before
							</p>{:else}<p class="text-xs">&nbsp;</p>{/if}
						<img
							src={small(picture)}
							alt="{picture.view}, {format().date(picture.takenOn)}"
							class="h-24 w-full rounded-sm border object-cover"
							loading="lazy"
						/>
						<p class="mt-1 text-sm">{format().day(picture.takenOn, today)}</p>
						{#if picture.note}<p class="truncate text-xs text-slate" title={picture.note}>
								{picture.note}
							</p>{/if}
						<a
							class="chalk text-sm"
							aria-label="Measure in it: {picture.view}, {format().date(picture.takenOn)}"
							href={resolve('/trees/[id]/recovery/pictures/[picture]', { id: tree.id, picture: picture.id })}
							>measure in it</a
						>
						<div class="mt-1 flex flex-wrap gap-1">
							<Button
								size="small"
								tone={before?.id === picture.id ? 'solid' : 'outline'}
								aria-label="Left of the pair: {format().date(picture.takenOn)}"
								onclick={() => (first = picture.id)}>left</Button
							>
							<Button
								size="small"
								tone={after?.id === picture.id ? 'solid' : 'outline'}
								aria-label="Right of the pair: {format().date(picture.takenOn)}"
								onclick={() => (second = picture.id)}>right</Button
							>
							<form method="POST" action="?/remove" use:enhance={act()}>
								<input type="hidden" name="id" value={picture.id} />
								<input type="hidden" name="version" value={picture.version} />
								<Button
									size="small"
									tone="quiet"
									type="submit"
									aria-label="Take out: {picture.view}, {format().date(picture.takenOn)}">×</Button
								>
							</form>
						</div>
					</li>
				{/each}
			</ol>
		{/if}
	</div>

	<section aria-labelledby="take-title" class="h-fit">
		<h2 id="take-title" class="text-lg">Take one</h2>
		<p class="text-sm text-slate">
			JPEG, PNG or WebP, up to 20 MB. It is turned upright and made smaller; the place in it is taken off.
			{#if lastWork && !pictures.some((picture) => picture.takenOn >= lastWork)}<strong class="text-ochre"
					>None since the work on {format().date(lastWork)}.</strong
				>{/if}
		</p>
		<form
			method="POST"
			action="?/keep"
			enctype="multipart/form-data"
			use:enhance={act({
				done: () => {
					file?.forget();
					takenOn = '';
					other = false;
				}
			})}
			class="mt-3 flex flex-col gap-3"
			novalidate
		>
			<Problem {refused} />
			{#if other}
				<TextField name="view" label="Name of the view" maxlength={40} {refused} />
			{:else}
				<Choice
					label="View"
					name="view"
					size="small"
					value={shownView}
					onchange={(value) => (view = value)}
					options={views.slice(0, 10).map((one) => ({ value: one.view, label: one.view }))}
				/>
				<Button size="small" tone="quiet" onclick={() => (other = true)}>Another view</Button>
			{/if}
			<PictureFile bind:this={file} {today} ontaken={(day) => (takenOn = day)} />
			<Button onclick={() => (camera = true)}><Camera size={18} /> Camera over the last {shownView}</Button>
			<DateField
				name="takenOn"
				label="Taken on"
				value={takenOn}
				hint="Left empty, the day in the picture"
				max={today}
				optional
				{refused}
			/>
			<TextField name="note" label="Note" optional {refused} />
			<Button type="submit" tone="solid">Keep the picture</Button>
		</form>
	</section>
</div>

<CameraSheet
	bind:open={camera}
	last={ofView.at(-1) ?? null}
	view={shownView}
	ontake={(taken) => file?.took(taken)}
/>
