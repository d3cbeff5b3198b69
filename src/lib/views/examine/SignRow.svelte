<script lang="ts">
	import { atStart } from '$core/text/mid-sentence';
	import type { Finding } from '$core/examine/diagnosis/finding';
	import { gradesOf, gradeWord, howToLook, signOf, topGrade, type SignId } from '$core/vocabulary/signs';
	import type { Situation } from '$core/vocabulary/words';
	import Ruler from '@lucide/svelte/icons/ruler';
	import { page } from '$app/state';
	import Button from '$ui/Button.svelte';
	import Keys from '$ui/Keys.svelte';
	import { makeMove } from '../practice/move';
	import Terms from '$ui/Terms.svelte';

	/** One sign: what to look for, how, and its answers. */
	interface Props {
		id: SignId;
		/** How the tree stands: what is looked at differs by it. */
		situation: Situation;
		/** Grade set by hand; null while not looked for. */
		grade: number | null;
		/** What was measured lately, if anything. */
		measured?: Finding | null;
		/** Day of that measurement, written. */
		measuredOn?: string;
		/** Where it can be measured, if it can. */
		measureHref?: string | null;
		minutes: number;
		brief?: boolean;
		onset: (grade: number | null) => void;
	}
	let {
		id,
		situation,
		grade,
		measured = null,
		measuredOn = '',
		measureHref = null,
		minutes,
		brief = false,
		onset
	}: Props = $props();
	const uid = $props.id();
	const sign = $derived(signOf(id));
	const how = $derived(howToLook(id, situation));
	/** A practice tree answers by itself. */
	const practice = $derived(page.data.practice);
	async function see(): Promise<void> {
		if (!practice) return;
		const answer = await makeMove(practice.id, { move: 'see', signId: id });
		if (answer?.grade !== undefined) onset(answer.grade);
	}
	const options = $derived(
		// What is found comes first, what is sound last, as in a spoken answer.
		[...gradesOf(id).entries()]
			.map(([value, word]) => ({
				value: String(value),
				label: atStart(word),
				tone: value > 0 ? ('strong' as const) : ('plain' as const)
			}))
			.sort((a, b) => (topGrade(id) === 1 ? Number(b.value) - Number(a.value) : 0))
	);
</script>

<li class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5 py-1.5">
	<span class={['min-w-0 flex-1', brief ? 'basis-44' : 'basis-64']}>
		<span id={uid} class={brief ? 'font-semibold' : ''}>{sign.label}</span>
		<span class={['text-xs text-slate', brief ? 'hidden sm:block' : 'block']}
			><Terms text={brief ? how : `${how} With ${sign.tool}, ${minutes} min.`} />
			<!-- eslint-disable-next-line svelte/no-navigation-without-resolve -- the caller resolves -->
			{#if measureHref}<a class="chalk text-rain" href={measureHref}>Measure it</a>{/if}</span
		>
		{#if measured}
			<span class="mt-0.5 flex items-center gap-1.5 text-sm text-rain">
				<Ruler size={15} aria-hidden="true" />Found: {gradeWord(id, measured.grade)}{measuredOn
					? `, ${measuredOn}`
					: ''}{#if grade !== null && grade !== measured.grade}<strong class="text-ochre">
						– you set it otherwise; your answer counts</strong
					>{/if}
			</span>
		{/if}
	</span>
	{#if practice}
		{#if grade === null}<Button size="small" onclick={() => void see()}
				>Look for it<span class="sr-only">: {sign.label}</span></Button
			>{:else}<strong class={grade > 0 ? 'text-oxide' : ''}>{atStart(gradeWord(id, grade))}</strong>{/if}
	{:else}<Keys
			labelledBy={uid}
			{options}
			value={grade === null ? '' : String(grade)}
			onchange={(value) => onset(value === '' ? null : Number(value))}
		/>{/if}
</li>
