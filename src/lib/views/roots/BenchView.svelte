<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { cutHow, holdHead } from '$core/roots/plan/cutting';
	import { crossings } from '$core/roots/map/course';
	import { roman } from '$core/roots/plan/plan';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Progress from '$ui/Progress.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';
	import { onMount, untrack } from 'svelte';
	import { BenchState } from './bench-state.svelte';
	import type { RootsOfTree } from './roots-of-tree';
	import { keepBeforeLeaving } from './leaving';
	import { RootsState } from './roots-state.svelte';
	import CutCloseUp from './CutCloseUp.svelte';
	import CutStops from './CutStops.svelte';
	import Gate from './Gate.svelte';
	import Wounds from './Wounds.svelte';

	/** One cut at a time, in type that reads from where the saw is. */
	let { of }: { of: RootsOfTree } = $props();
	const { tree, values, today } = $derived(of);
	const format = useFormat();
	const roots = untrack(() => new RootsState(of));
	keepBeforeLeaving(roots);
	$effect(() => {
		const [map, reduction] = [of.rootMap, of.plan];
		untrack(() => roots.adopt(map, reduction));
	});
	const stage = untrack(() =>
		Math.min(...(of.plan?.cuts ?? []).filter((cut) => cut.state === 'planned').map((cut) => cut.stage), 99)
	);
	const bench = untrack(
		() =>
			new BenchState(
				tree.id,
				// In the order of the map, as the chalk numbers run.
				roots.map.segments.flatMap((segment) =>
					(of.plan?.cuts ?? []).filter(
						(cut) => cut.segmentId === segment.id && cut.state === 'planned' && cut.stage === stage
					)
				)
			)
	);
	onMount(() => bench.open(localStorage));

	let way = $state<'ask' | 'differently' | 'not-now'>('ask');
	let atMm = $state<number | null>(null);
	let deeper = $state(false);
	let note = $state('');
	/** The number on the map; a later stage is counted through. */
	const numberOf = (segmentId: string, index: number): number =>
		(stage === 0 ? roots.cutNumbers.get(segmentId) : undefined) ?? index + 1;
	const cut = $derived(bench.current);
	const segment = $derived(roots.map.segments.find((candidate) => candidate.id === cut?.segmentId));
	const how = $derived(
		segment && cut
			? cutHow(segment, cut, { map: roots.map, windows: roots.standing.ledger.windows }, values)
			: null
	);
	const ledger = $derived(roots.standing.ledger);
	/** As the cuts in hand are answered, and the one that is looked at as it is planned. */
	const making = $derived(
		bench.cuts.flatMap((one) => {
			const answer = bench.answers[one.id];
			return answer?.kind === 'done' ? [{ id: one.id, atMm: answer.atMm ?? one.atMm }] : [];
		})
	);
	const spent = $derived(roots.takenBy(making));
	const allowed = $derived(ledger.stages[stage]?.allowed ?? 0);
	const over = $derived(spent > allowed + 1e-9);
	let doneOn = $state(untrack(() => today));
	const stops = $derived(roots.stopsFor(making, doneOn || today));
	/** What stands against the whole stage, before it is begun. */
	const stopsAhead = $derived(
		roots.stopsFor([...making, ...bench.cuts.filter((one) => !bench.answers[one.id])])
	);
	const because = $derived(bench.because);
	let foundMore = $state(false);
	let anew = $state(true);
	/** Begun although growth is not regained. */
	let allTheSame = $state(false);
	const waits = $derived(roots.gate !== null && roots.gate.answer !== 'met');
	/** Why it is cut all the same was said before the first cut, and nothing stands against it that did not then. */
	const toldWhy = $derived(
		allTheSame && stops.every((stop) => stopsAhead.some((ahead) => ahead.kind === stop.kind))
	);
	const held = $derived((waits || stopsAhead.length > 0) && !allTheSame && bench.answered === 0);
	/** Roots that lie under the one in hand, seen when it is lifted; then all others. */
	const under = $derived.by(() => {
		if (!segment) return [];
		const beneath = crossings(roots.map.segments).filter((crossing) => crossing.upperId === segment.id);
		const near = roots.map.segments.filter((other) =>
			beneath.some((crossing) => crossing.lowerId === other.id)
		);
		return [
			...near,
			...roots.map.segments.filter((other) => other.id !== segment.id && !near.includes(other))
		].map((other) => ({
			segment: other,
			atMm: beneath.find((crossing) => crossing.lowerId === other.id)?.lowerAtMm ?? 0
		}));
	});
	let damagedId = $state('');
	let damage = $state<'dented' | 'doubtful' | 'dead'>('dented');

	function next(): void {
		way = 'ask';
		atMm = null;
		deeper = false;
		damagedId = '';
		note = '';
	}
	function done(): void {
		bench.answer({ kind: 'done', atMm: null, note: '' });
		next();
	}
	function differently(): void {
		if (!segment || !cut) return;
		if (deeper) {
			roots.change(segment.id, {
				condition: 'dead',
				deadFromMm: atMm ?? 0,
				flaws: segment.flaws.includes('rotten') ? segment.flaws : [...segment.flaws, 'rotten']
			});
			foundMore = true;
		}
		const hurt = under.find((other) => other.segment.id === damagedId);
		if (hurt) {
			// A little nearer to the trunk than where the other lay on it.
			const from = Math.max(0, Math.round(hurt.atMm - hurt.segment.diameterStartMm));
			roots.change(
				hurt.segment.id,
				damage === 'dented'
					? { note: `${hurt.segment.note} Dented where another lay on it, sound.`.trim().slice(0, 400) }
					: damage === 'dead'
						? { condition: 'dead', deadFromMm: from }
						: { condition: 'doubtful', doubtfulFromMm: from, deadFromMm: null }
			);
			if (damage !== 'dented') foundMore = true;
		}
		bench.answer({
			kind: 'done',
			atMm,
			note: [
				deeper ? 'Rot went deeper than thought.' : '',
				hurt
					? `Under it the root at ${format().clock(roots.clock(hurt.segment))} is ${damage === 'dented' ? 'dented, but sound' : damage}.`
					: '',
				note.trim()
			]
				.filter(Boolean)
				.join(' ')
		});
		next();
	}
	function notNow(): void {
		bench.answer({ kind: 'left', why: note.trim() });
		next();
	}
	const back = resolve('/trees/[id]/roots', { id: untrack(() => tree.id) });
	const key =
		'min-h-16 rounded-md border-2 px-1 font-display text-lg font-semibold sm:min-h-20 sm:px-4 sm:text-2xl';
</script>

<div class="page flex min-h-[calc(100dvh-4rem)] flex-col py-2 pb-20 sm:py-4">
	<div class="flex items-baseline justify-between gap-4">
		<h1 class="text-xl">{tree.tag} at the bench, stage {roman(stage === 99 ? 0 : stage)}</h1>
		<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved above -->
		<a class="chalk min-h-11 content-center text-lg" href={back}>Leave the bench</a>
	</div>
	<p class="text-lg" role="status">
		{bench.answered} of {bench.cuts.length} ·
		<strong class={over ? 'text-oxide' : ''}>{format().percent(spent)}</strong>
		of living root so far, {format().percent(allowed)} allowed{roots.saveState === 'waiting'
			? ' · no answer from Bruntle; all is kept on this device'
			: ''}
	</p>
	<Progress label="Cuts answered" value={bench.answered} max={bench.cuts.length} class="mt-1 shrink-0" />

	{#if held}
		<section aria-label="Before this stage" class="mt-6 max-w-2xl">
			{#if waits && roots.gate}<Gate gate={roots.gate} treeId={tree.id} large />{/if}
			<div class="mt-3 flex flex-col gap-3 text-lg">
				<CutStops stops={stopsAhead} bind:because={() => bench.because, (text) => bench.say(text)} />
			</div>
			<div class="mt-4">
				<Button
					size="large"
					disabled={stopsAhead.length > 0 && because.trim() === ''}
					onclick={() => (allTheSame = true)}>Begin all the same</Button
				>
			</div>
		</section>
	{:else if cut && segment && how}
		<section aria-label="This cut" class="mt-3 flex flex-1 flex-col sm:mt-5">
			<div class="grid items-start gap-x-10 gap-y-4 xl:grid-cols-[minmax(0,1fr)_auto]">
				<div>
					<div class="flex flex-wrap items-center gap-x-4 gap-y-2 sm:gap-x-8">
						<span
							class="grid size-14 shrink-0 place-items-center rounded-full bg-oxide font-display text-3xl font-bold text-paper sm:size-24 sm:text-5xl"
							aria-label="Chalk number">{numberOf(cut.segmentId, bench.at)}</span
						>
						<p class="font-display text-4xl leading-tight font-bold sm:text-7xl">
							{format().clock(roots.clock(segment))}
						</p>
						<p class="text-lg leading-snug sm:text-3xl">
							{#if !segment.guessed.includes('depth')}{format().measure(
									segment.course[0]?.depthMm ?? 0,
									'mm'
								)} deep<span class="max-sm:hidden"><br /></span><span class="sm:hidden"
									>,
								</span>{/if}{format().measure(segment.diameterStartMm, 'mm')} thick, {segment.rootClass}
						</p>
					</div>
					<p class="mt-2 text-xl leading-snug sm:mt-5 sm:text-3xl">
						{how.tool}, {how.backTo}{cut.atMm > 0 ? `, ${format().measure(cut.atMm, 'mm')} out` : ''}. {how.face}
					</p>
					<p class="mt-1 text-lg text-slate first-letter:uppercase sm:mt-2 sm:text-xl">
						{format().inWords(cut.reason || 'Chosen by hand')}; costs {format().percent(
							ledger.cutCost.get(segment.id) ?? 0,
							1
						)}.
					</p>
					{#if how.hold}
						<p class="mt-3 border-l-4 border-oxide pl-3 text-xl" role="alert">
							<strong class="text-oxide">{holdHead(how.hold)}</strong>
							{format().inWords(how.hold.why)}
						</p>
					{/if}
				</div>
				<CutCloseUp {roots} {cut} />
			</div>
			<!-- The answers stay in sight, above the bar at the foot of a phone. -->
			<div class="sticky bottom-13 z-10 -mx-4 mt-auto bg-paper px-4 pt-3 pb-2 sm:bottom-0 sm:mx-0 sm:px-0">
				{#if way === 'ask'}
					<div class="grid grid-cols-[1.2fr_1.3fr_1fr] gap-2 sm:grid-cols-[2fr_1fr_1fr] sm:gap-3">
						<button class={[key, 'border-ink bg-ink text-paper']} onclick={done}>Done</button>
						<button class={[key, 'border-edge']} onclick={() => (way = 'differently')}>Differently</button>
						<button class={[key, 'border-edge']} onclick={() => (way = 'not-now')}>Not now</button>
					</div>
				{:else if way === 'differently'}
					<div class="grid gap-3 sm:grid-cols-2">
						<MeasureField
							name="at"
							label="Cut at, from its start"
							unit="mm"
							value={cut.atMm}
							oninput={(mm) => (atMm = mm)}
						/>
						<TextField
							name="note"
							label="What was different"
							value={note}
							maxlength={300}
							oninput={(event) => (note = event.currentTarget.value)}
						/>
						<label class="flex min-h-11 items-center gap-2 text-lg"
							><input type="checkbox" class="size-6" bind:checked={deeper} />Rot goes deeper: dead from the
							cut outward</label
						>
						<div class="grid grid-cols-[1fr_9rem] items-end gap-2">
							<SelectField
								name="damaged"
								label="Damaged under it"
								bind:value={damagedId}
								options={[
									{ value: '', label: 'no other root' },
									...under.map(({ segment: other }) => ({
										value: other.id,
										label: `${format().clock(roots.clock(other))}, ${format().measure(other.diameterStartMm, 'mm')}`
									}))
								]}
							/>
							<SelectField
								name="damage"
								label="It is"
								bind:value={damage}
								disabled={damagedId === ''}
								options={[
									{ value: 'dented', label: 'dented, but sound' },
									{ value: 'doubtful', label: 'doubtful' },
									{ value: 'dead', label: 'dead' }
								]}
							/>
						</div>
						<div class="flex gap-3">
							<Button tone="solid" size="large" onclick={differently}>Cut so</Button>
							<Button size="large" onclick={next}>Back</Button>
						</div>
					</div>
				{:else}
					<div class="flex flex-wrap items-end gap-3">
						<TextField
							name="why"
							label="Why not now"
							value={note}
							maxlength={300}
							fieldClass="min-w-64 flex-1"
							oninput={(event) => (note = event.currentTarget.value)}
						/>
						<Button tone="solid" size="large" disabled={note.trim() === ''} onclick={notNow}>Leave it</Button>
						<Button size="large" onclick={next}>Back</Button>
					</div>
				{/if}
				{#if bench.at > 0}
					<Button tone="quiet" class="mt-3" onclick={() => (bench.back(), next())}>To the cut before</Button>
				{/if}
			</div>
		</section>
	{:else if bench.cuts.length === 0}
		<p class="mt-6 text-2xl">Nothing is planned to be cut now.</p>
	{:else}
		<section aria-label="The stage is through" class="mt-6 max-w-2xl">
			<h2 class="text-3xl">Through</h2>
			<p class="mt-2 text-xl">
				{bench.record.done.length} cut, {bench.record.left.length} left, against {bench.cuts.length} planned;
				{format().percent(spent)} of living root, {format().percent(allowed)} allowed.
			</p>
			{#if foundMore}<p class="mt-2 text-lg">What you found is on the map.</p>
				<label class="mt-1 flex min-h-11 items-center gap-2 text-lg"
					><input type="checkbox" class="size-6" bind:checked={anew} />Once the record is kept, work out anew
					what remains</label
				>{/if}
			<Button tone="quiet" class="mt-2" onclick={() => bench.back()}>To the cut before</Button>
		</section>
	{/if}
	{#if bench.answered > 0}
		<form
			method="POST"
			action="{back}?/cuts"
			use:enhance={act({
				keep: true,
				done: () => {
					bench.clear();
					void goto(back, { state: { propose: foundMore && anew } });
				}
			})}
			class="mt-6 flex flex-wrap items-end gap-3 border-t pt-4"
		>
			<input type="hidden" name="planVersion" value={roots.planVersion} />
			<input type="hidden" name="done" value={JSON.stringify(bench.record.done)} />
			<input type="hidden" name="left" value={JSON.stringify(bench.record.left)} />
			{#if bench.answered === bench.cuts.length}<div class="w-full"><Wounds /></div>{/if}
			{#if stops.length > 0}<div class="flex w-full flex-col gap-3">
					<CutStops {stops} told={toldWhy} bind:because={() => bench.because, (text) => bench.say(text)} />
				</div>{/if}
			<DateField name="on" label="Done on" value={doneOn} max={today} oninput={(day) => (doneOn = day)} />
			<Button
				type="submit"
				size="large"
				tone={bench.answered === bench.cuts.length ? 'solid' : 'outline'}
				disabled={roots.saveState !== 'saved' || (stops.length > 0 && because.trim() === '')}
				>Keep the record{bench.answered < bench.cuts.length ? ` of ${bench.answered}` : ''}</Button
			>
		</form>
	{/if}
</div>
