<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { recentEventNames } from '$core/vocabulary/season-and-events';
	import { compareLooks, type ComparedSign, type Examination } from '$core/examine/diagnosis/examination';
	import { gradeWord, signOf, type SignId } from '$core/vocabulary/signs';
	import { toolNames, type Measurement } from '$core/examine/measuring/measurement';
	import type { Tree } from '$core/take-in/tree';
	import Button from '$ui/Button.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';

	/** A look as it was kept, and what changed since the one before. */
	interface Props {
		look: Examination;
		before: Examination | null;
		tree: Tree;
		measurements: readonly Measurement[];
		/** The map of its roots; null where there is none. */
		mapId: string | null;
		today: string;
		/** Asks to correct it in its place. */
		correct: () => void;
	}
	let { look, before, tree, measurements, mapId, today, correct }: Props = $props();
	const format = useFormat();
	const compared = $derived(compareLooks(before?.findings ?? [], look.findings));
	const changeWords: Record<ComparedSign['change'], string> = {
		new: 'new',
		worse: 'worse',
		better: 'better',
		gone: 'gone',
		same: 'as before',
		'first looked': 'not looked for before',
		'not looked': 'not looked for again'
	};
	const toneOf = (sign: ComparedSign): string =>
		sign.change === 'new' || sign.change === 'worse'
			? 'text-oxide'
			: sign.change === 'better' || sign.change === 'gone'
				? 'text-lichen'
				: 'text-slate';
	const measuredWith = (sign: SignId): string | null => {
		const by = look.findings.find((finding) => finding.signId === sign)?.measuredBy;
		const measurement = measurements.find((candidate) => candidate.id === by);
		return measurement
			? toolNames[measurement.raw.tool].toLowerCase()
			: by
				? by === mapId
					? 'the root map'
					: 'the field book'
				: null;
	};
	const word = (sign: SignId, grade: number): string =>
		gradeWord(sign, grade) === 'seen' ? 'seen' : grade === 0 ? 'looked, not there' : gradeWord(sign, grade);
</script>

<h2 class="mt-5 text-lg">Found on {format().date(look.examinedOn)}</h2>
{#if look.version > 1}<p class="mt-1 text-sm text-slate">Corrected since it was kept.</p>{/if}
{#if look.note}<p class="mt-1">{look.note}</p>{/if}
{#if look.events.length > 0 || look.failingFast}
	<p class="mt-1 text-sm text-slate">
		{look.events.length > 0
			? `In the weeks before: ${look.events.map((event) => recentEventNames[event]).join(', ')}.`
			: ''}
		{look.failingFast ? 'It was failing within weeks.' : ''}
	</p>
{/if}
{#if before}
	<p class="mt-1 text-sm text-slate">Against the look of {format().day(before.examinedOn, today)}.</p>
{/if}
<ul class="mt-2 divide-y border-y">
	{#each compared as sign (sign.signId)}
		{@const tool = measuredWith(sign.signId)}
		<li class={['flex flex-wrap items-baseline gap-x-4 py-2', sign.after === null && 'text-slate']}>
			<span class="min-w-0 flex-1 basis-56"
				>{signOf(sign.signId).label}{#if tool}<span class="ml-2 text-sm text-rain">measured: {tool}</span
					>{/if}</span
			>
			<strong class={(sign.after ?? 0) > 0 ? 'text-oxide' : 'font-normal text-slate'}
				>{sign.after === null
					? `was: ${word(sign.signId, sign.before ?? 0)}`
					: word(sign.signId, sign.after)}</strong
			>
			{#if before}<span class={['w-36 text-right text-sm', toneOf(sign)]}
					>{changeWords[sign.change]}{#if sign.change === 'new' && sign.before === null}<span
							class="block text-xs text-slate">not looked for before</span
						>{/if}{#if (sign.change === 'worse' || sign.change === 'better') && sign.before !== null}
						<span class="block text-xs text-slate">was {word(sign.signId, sign.before)}</span>{/if}</span
				>{/if}
		</li>
	{:else}
		<li class="py-2 text-slate">No sign was set.</li>
	{/each}
</ul>
<form
	method="POST"
	action="{resolve('/trees/[id]/examine', { id: tree.id })}?/remove"
	use:enhance={act({ keep: true })}
	class="mt-2"
>
	<input type="hidden" name="id" value={look.id} />
	<input type="hidden" name="version" value={look.version} />
	<Button size="small" onclick={correct}>Correct this look</Button>
	<Button type="submit" tone="quiet" size="small">Take this look out</Button>
</form>
