<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { readsLongBy } from '$core/examine/pictures/plane';
	import { clockOf } from '$core/maths/circular';
	import { polarOf } from '$core/roots/map/geometry';
	import type { Picture } from '$core/take-in/picture';
	import { counted } from '$core/text/plural';
	import { createPictureReader } from '$lib/workers/picture-reader';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import { useFormat } from '$ui/format';
	import PictureStage from '$views/recovery/PictureStage.svelte';
	import PlaneOutline from '$views/recovery/PlaneOutline.svelte';
	import SizeBeside from '$views/recovery/SizeBeside.svelte';
	import Check from '@lucide/svelte/icons/check';
	import X from '@lucide/svelte/icons/x';
	import { onMount, untrack } from 'svelte';
	import { keepBeforeLeaving } from './leaving';
	import { PictureRoots, type OnOffer } from './picture-roots.svelte';
	import type { RootsOfTree } from './roots-of-tree';
	import { RootsState } from './roots-state.svelte';
	import TurnedPicture from './TurnedPicture.svelte';

	/** A root map read from a picture: turned to its plane, its roots offered, traced, taken or refused. */
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
	const reader = createPictureReader();
	const from = untrack(() => new PictureRoots(picture, source, roots.map, of.values, reader, rimMm));
	onMount(() => {
		reader
			.card(source, picture.focalShare, of.values)
			.then((found) => from.measure.searched(found))
			.catch(() => from.measure.searched('no-card'));
		return () => {
			reader.stop();
			roots.ways.stop();
		};
	});

	/** Which of the two is shown once the picture was turned. */
	let shows = $state<'turned' | 'picture'>('turned');
	let turned = $state('');
	$effect(() => {
		const { read } = from;
		if (!read) return;
		const address = URL.createObjectURL(read.picture);
		turned = address;
		shows = 'turned';
		return () => URL.revokeObjectURL(address);
	});
	const mm = (value: number): string => format().measure(value, 'mm');
	const clock = ({ root }: OnOffer): string => {
		const [first] = root.course;
		return first ? format().clock(clockOf(polarOf(first).azimuthDeg, from.map.frame)) : '';
	};
	const placeOf = (one: OnOffer): string =>
		`${one.parentId === null ? clock(one) : `side root, ${clock(one)}`}, ${mm(from.lies(one).diameterStartMm)}`;
	const chosen = $derived(from.offers.find(({ id }) => id === from.chosenId) ?? null);
	const open = $derived(from.offers.filter(({ says }) => says === 'open').length);
	const saidOf = { open: 'offered', yes: 'taken', no: 'refused', there: 'on the map already' };

	function put(): void {
		const { segments, picture: under } = from.segments();
		const first = roots.map.segments.length === 0;
		from.problem = roots.bring(segments, 'add', {
			picture: under,
			...(first && { mappedOn: picture.takenOn })
		});
		if (from.problem) return;
		void goto(resolve('/trees/[id]/roots', { id: of.tree.id }));
	}
</script>

<div class="page grid grid-cols-1 gap-x-8 gap-y-5 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<div class="min-w-0">
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Roots from a picture, {format().date(picture.takenOn)}</h2>
			<a class="chalk" href={resolve('/trees/[id]/roots', { id: of.tree.id })}>Back to the map</a>
		</div>
		<p class="mt-1 text-lg" class:text-oxide={from.problem !== ''} aria-live="polite">{from.says}</p>
		{#if from.read}
			<div class="mt-2">
				<Choice
					label="Shown"
					hideLabel
					size="small"
					bind:value={shows}
					options={[
						{ value: 'turned', label: 'Turned to its plane' },
						{ value: 'picture', label: 'As it was taken' }
					]}
				/>
			</div>
		{/if}
		{#if from.read && shows === 'turned' && turned}
			<TurnedPicture {from} {turned} {placeOf} />
		{:else}
			<PictureStage
				{picture}
				{source}
				bind:shownWidthPx={from.measure.shownWidthPx}
				groups={[
					{ name: 'Corner', points: from.measure.corners, tone: 'size' },
					{
						name: 'Trunk',
						points: from.middle ? [from.middle] : [],
						tone: 'thing',
						says: 'Middle of the trunk'
					},
					{
						name: 'Front',
						points: from.front ? [from.front] : [],
						tone: 'thing',
						says: `Towards ${from.frontCalled}`
					},
					{ name: 'Colour', points: from.shown, tone: 'thing' }
				]}
				touch={(at) => from.touch(at)}
				move={(name, index, to) => from.move(name, index, to)}
			>
				{#snippet over(scale)}
					<PlaneOutline measuring={from.measure} {scale} />
					{#if from.middle && from.front}
						<line
							x1={from.middle.x}
							y1={from.middle.y}
							x2={from.front.x}
							y2={from.front.y}
							class="stroke-oxide"
							stroke-width={2 * scale}
						/>
					{/if}
				{/snippet}
			</PictureStage>
			{#if from.read}<p class="mt-1 text-sm text-slate">
					Where roots did not come out, touch one here: it shows their colour, and they are looked for anew.
				</p>{/if}
		{/if}
		<div class="mt-2 flex flex-wrap gap-2">
			{#if !from.read}
				<Button
					disabled={from.step === 'wait' || from.reading}
					onclick={() => from.touch({ x: picture.widthPx / 2, y: picture.heightPx / 2 })}
					>A touch in the middle</Button
				>
			{/if}
			<Button disabled={from.touched === 0 || from.reading} onclick={() => from.back()}
				>Take the last back</Button
			>
			{#if from.front}
				<Button disabled={from.reading} onclick={() => void from.look()}>Look anew</Button>
			{/if}
		</div>
	</div>

	<section
		aria-labelledby={from.read ? 'read-title' : 'size-title'}
		class="flex h-fit min-w-0 flex-col gap-4"
	>
		{#if from.read}
			<div class="flex flex-wrap items-baseline justify-between gap-2">
				<h3 id="read-title" class="text-lg">Roots in it</h3>
				{#if open > 0}
					<span class="flex gap-1.5">
						<Button size="small" tone="solid" onclick={() => from.sayAll('yes')}>Take all {open}</Button>
						<Button size="small" onclick={() => from.sayAll('no')}>Refuse all</Button>
					</span>
				{/if}
			</div>
			{#if from.offers.length > 0}
				<ul class="max-h-[26rem] divide-y overflow-y-auto border-y" aria-label="Roots read in the picture">
					{#each from.offers as one (one.id)}
						{@const root = from.lies(one)}
						<li class={['flex items-center gap-2 py-1', one.id === from.chosenId && 'bg-duff']}>
							<button
								class={[
									'min-h-11 min-w-0 flex-1 px-1 text-left',
									one.says === 'no' && 'text-slate line-through'
								]}
								aria-pressed={one.id === from.chosenId}
								onclick={() => (from.chosenId = one.id === from.chosenId ? null : one.id)}
							>
								<strong>{clock(one)}</strong>
								{one.parentId === null ? '' : 'side root'}
								{mm(root.diameterStartMm)} ± {mm(Math.max(0.1, root.thicknessErrorMm))}
								<span class="block text-sm text-slate"
									>{mm(root.lengthMm)} ± {mm(Math.max(1, root.lengthErrorMm))} long{root.runsOut
										? ', as far as the picture goes'
										: ''}; {saidOf[one.says]}</span
								>
							</button>
							{#if one.says !== 'there'}
								<Button
									size="small"
									tone={one.says === 'yes' ? 'solid' : 'outline'}
									aria-label="Take the root {placeOf(one)}"
									aria-pressed={one.says === 'yes'}
									onclick={() => from.say(one.id, one.says === 'yes' ? 'open' : 'yes')}
									><Check size={16} /></Button
								>
								<Button
									size="small"
									tone={one.says === 'no' ? 'solid' : 'outline'}
									aria-label="Refuse the root {placeOf(one)}"
									aria-pressed={one.says === 'no'}
									onclick={() => from.say(one.id, one.says === 'no' ? 'open' : 'no')}><X size={16} /></Button
								>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
			{#if chosen && chosen.says !== 'there'}
				<MeasureField
					name="rootDepthMm"
					label="The chosen root, below the flare"
					unit="mm"
					optional
					hint={from.cannotLie(chosen)
						? `This depth or that of the card cannot be: the camera was some ${mm(from.read.stand.cameraMm)} above the card. Nothing is reckoned with it.`
						: chosen.depthMm !== null && from.depthMm === null
							? 'Say below too how deep the card lies: its thickness and length are then reckoned for its own height.'
							: 'Where it does not lie as deep as the card: thickness and length are then reckoned for its own height.'}
					value={chosen.depthMm}
					oninput={(value) => from.sayDepth(chosen.id, value)}
				/>
			{/if}
			<MeasureField
				name="cardDepthMm"
				label="What lies beside for its size, below the flare"
				unit="mm"
				optional
				hint="The depth of all roots of which nothing else is said; left empty it stays a guess by their thickness."
				value={from.depthMm}
				oninput={(value) => (from.depthMm = value)}
			/>
			<Choice
				label="What was felt of those taken"
				size="small"
				bind:value={from.condition}
				options={[
					{ value: 'doubtful', label: 'not felt yet: doubtful' },
					{ value: 'sound', label: 'firm and light inside: sound' }
				]}
			/>
			{#if from.measure.plane}
				{@const { plane } = from.measure}
				<p class="text-sm text-slate">
					A root whose own depth is not said is taken to lie within {mm(of.values['picture.heightOffMm'])} of what
					lies beside for its size: that is in the ±. Nearer to the camera by {mm(30)} it reads {format().percent(
						readsLongBy(plane, 30)
					)} too thick.
				</p>
			{/if}
			<Button tone="solid" size="large" disabled={from.taken.length === 0} onclick={put}
				>Put {counted(from.taken.length, 'root')} on the map</Button
			>
		{:else}
			<SizeBeside measuring={from.measure} {rimMm} />
		{/if}
	</section>
</div>
