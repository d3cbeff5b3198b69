<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import { midSentence } from '$core/text/mid-sentence';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	interface RoundTold {
		id: string;
		treeId: string;
		name: string;
		setCase: number | null;
		seed: number;
		kind: string;
		startedAt: string;
		day: number;
		days: number;
		over: boolean;
		judged: {
			truth: string[];
			died: boolean;
			own: number;
			best: number;
			advised: number;
			brier: number | null;
		} | null;
	}
	/** Invented trees to learn on: those set for a class, those drawn by chance, and how one’s rounds went. */
	interface Props {
		rounds: RoundTold[];
		current: string | null;
		cases: { number: number; name: string; story: string; kind: string }[];
		asked: { setCase: number | null; seed: number | null } | null;
		others: boolean;
		refused?: Refused | null | undefined;
	}
	let { rounds, current, cases, asked, others, refused }: Props = $props();
	const format = useFormat();
	const going = $derived(rounds.filter((round) => !round.over));
	const over = $derived(rounds.filter((round) => round.over));
	const done = $derived(new Set(over.map((round) => round.setCase)));
	const linked = $derived(cases.find((one) => one.number === asked?.setCase));
	const link = (round: RoundTold): string =>
		round.setCase === null ? `/practice?seed=${round.seed}` : `/practice?case=${round.setCase}`;
</script>

<svelte:head><title>Practice · Bruntle</title></svelte:head>

{#snippet begin(name: string, value: string | number, label: string, tone: 'solid' | 'outline' = 'outline')}
	<form method="POST" action="?/start" use:enhance={act({ keep: true })}>
		{#if name}<input type="hidden" {name} {value} />{/if}
		<Button type="submit" {tone}>{label}</Button>
	</form>
{/snippet}

<div class="page max-w-5xl pt-6 pb-16">
	<h1 class="text-3xl">Practice</h1>
	<p class="mt-1 max-w-3xl text-slate">
		Trees that cannot die. What ails them is hidden; they answer what you look for, and what you do to them,
		through the same models as everything here. Nothing of it reaches your yard: not its trees, its stock or
		what it has learnt.
	</p>
	<Problem {refused} />

	{#if asked?.seed !== null && asked?.seed !== undefined}
		<section class="mt-5 border-l-4 border-ochre py-1 pl-4" aria-labelledby="linked-title">
			<h2 id="linked-title" class="text-lg">Tree {asked.seed}, by a link</h2>
			<div class="mt-2">{@render begin('seed', asked.seed, 'Take it in', 'solid')}</div>
		</section>
	{:else if linked}
		<section class="mt-5 border-l-4 border-ochre py-1 pl-4" aria-labelledby="linked-title">
			<h2 id="linked-title" class="text-lg">Case {linked.number}, by a link: {linked.name}</h2>
			<p class="mt-1">{linked.story}</p>
			<div class="mt-2">{@render begin('case', linked.number, 'Take it in', 'solid')}</div>
		</section>
	{/if}

	<div class="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
		<div>
			{#if going.length > 0}
				<section aria-labelledby="going-title" class="mb-8">
					<h2 id="going-title" class="text-xl">Under way</h2>
					<ul class="mt-2 divide-y border-y">
						{#each going as round (round.id)}
							<li class="flex flex-wrap items-center gap-3 py-2">
								<span class="min-w-0 flex-1"
									><strong>{round.name}</strong>, {midSentence(round.kind)}, day {round.day} of {round.days}{round.id ===
									current
										? '; the one you are at'
										: ''}</span
								>
								<form method="POST" action="?/goOn" use:enhance>
									<input type="hidden" name="id" value={round.id} />
									<Button type="submit" size="small" tone="solid"
										>Go on<span class="sr-only"> with {round.name}</span></Button
									>
								</form>
								<form method="POST" action="?/remove" use:enhance={act({ keep: true })}>
									<input type="hidden" name="id" value={round.id} />
									<Button type="submit" size="small" tone="quiet"
										>Give up<span class="sr-only"> {round.name}</span></Button
									>
								</form>
							</li>
						{/each}
					</ul>
				</section>
			{/if}

			<section aria-labelledby="cases-title">
				<h2 id="cases-title" class="text-xl">Twelve set cases, from easy to hard</h2>
				<p class="mt-1 text-sm text-slate">
					The same for everybody. A class is given one by its link, <span class="whitespace-nowrap"
						>/practice?case=3</span
					>, or any tree by its number, <span class="whitespace-nowrap">/practice?seed=…</span>
				</p>
				<ol class="mt-2 divide-y border-y">
					{#each cases as one (one.number)}
						<li class="flex flex-wrap items-center gap-3 py-2">
							<span class="w-6 text-right font-semibold text-slate">{one.number}</span>
							<span class="min-w-48 flex-1"
								><strong>{one.name}</strong><span class="text-slate">, {midSentence(one.kind)}</span><br
								/><span class="text-sm">{one.story}</span></span
							>
							<form method="POST" action="?/start" use:enhance={act({ keep: true })}>
								<input type="hidden" name="case" value={one.number} />
								<Button type="submit" size="small"
									>{done.has(one.number) ? 'Once more' : 'Begin'}<span class="sr-only">: {one.name}</span
									></Button
								>
							</form>
						</li>
					{/each}
				</ol>
			</section>
		</div>

		<div>
			<section aria-labelledby="new-title">
				<h2 id="new-title" class="text-xl">A tree drawn by chance</h2>
				<p class="mt-1 mb-3 text-sm">
					Any kind, any season, anything that can ail a tree, or nothing. What you judged badly comes oftener.
				</p>
				{@render begin('', '', 'Take one in', 'solid')}
			</section>

			<section aria-labelledby="over-title" class="mt-8">
				<h2 id="over-title" class="text-xl">Your rounds</h2>
				{#if over.length === 0}
					<p class="mt-1 text-slate">
						None is over yet. A round is judged when its year has run out, or the tree is dead.
					</p>
				{:else}
					<p class="mt-1 text-sm">
						{counted(over.filter((one) => one.judged?.died).length, 'tree')} of {over.length} died.
					</p>
					<ul class="mt-2 divide-y border-y">
						{#each over as round (round.id)}
							<li class="py-2">
								<a class="chalk font-semibold" href={resolve('/practice/[round]', { round: round.id })}
									>{round.name}, {midSentence(round.kind)}</a
								>
								{#if round.judged}<span class="block text-sm"
										>{round.judged.died ? 'died' : 'lives'}; your care {format().percent(round.judged.own)},
										the best known {format().percent(round.judged.best)}. {round.judged.truth.join(' and ') ||
											'Nothing ailed it'}.</span
									>{/if}
								<!-- eslint-disable svelte/no-navigation-without-resolve -- built above --><a
									class="chalk text-sm text-rain"
									href={link(round)}>The link to this tree</a
								>
							</li>
						{/each}
					</ul>
				{/if}
				{#if over.length > 0 || others}<p class="mt-3">
						<a class="chalk" href={resolve('/practice/results.csv')} download
							>{others ? 'Results of everybody as CSV' : 'Results as CSV'}</a
						>
					</p>{/if}
			</section>
		</div>
	</div>
</div>
