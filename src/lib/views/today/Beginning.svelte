<script lang="ts">
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import Button from '$ui/Button.svelte';
	import Mark from '$ui/Mark.svelte';

	/** The first page of a yard with nothing in care: how to begin. */
	interface Props {
		places: number;
		/** Cases that are closed. */
		closed: number;
	}
	let { places, closed }: Props = $props();
</script>

<div class="page max-w-3xl pt-12">
	<Mark size={56} />
	<h1 class="mt-4 text-3xl">Which tree needs you?</h1>
	{#if closed > 0}
		<p class="mt-3 max-w-prose text-lg">
			No tree is in care now: {counted(closed, 'case')}
			{closed === 1 ? 'is' : 'are'} closed. <a class="chalk" href={resolve('/trees')}>Trees</a> has all of
			them,
			<a class="chalk" href={resolve('/yard/outcomes')}>Outcomes</a> how they went.
		</p>
	{/if}
	<p class="mt-3 max-w-prose text-lg">
		Bruntle goes with a tree from the day it is taken in until it stands on its own roots again. It measures,
		reckons what a cut costs, remembers the next look, and says honestly what is not known.
	</p>
	<ol class="mt-8 divide-y border-y">
		<li class="flex flex-wrap items-center gap-4 py-4">
			<span class="font-display text-2xl font-semibold">1</span>
			<div class="min-w-0 flex-1">
				<h2 class="text-lg">Say where your trees stand</h2>
				<p class="text-slate">
					A bench, a cold frame, a garden: its latitude and shelter give seasons and cold nights.
				</p>
			</div>
			<Button tone={places === 0 ? 'solid' : 'outline'} href={resolve('/yard')}
				>{places === 0 ? 'First place' : `${places} known`}</Button
			>
		</li>
		<li class="flex flex-wrap items-center gap-4 py-4">
			<span class="font-display text-2xl font-semibold">2</span>
			<div class="min-w-0 flex-1">
				<h2 class="text-lg">Take in a tree, or a lot of like plants</h2>
				<p class="text-slate">Under a minute: tag, kind, situation, trunk.</p>
			</div>
			<Button tone={places > 0 ? 'solid' : 'outline'} href={resolve('/trees/new')}>Take in</Button>
		</li>
		<li class="flex flex-wrap items-center gap-4 py-4">
			<span class="font-display text-2xl font-semibold">3</span>
			<div class="min-w-0 flex-1">
				<h2 class="text-lg">Begin at any stage</h2>
				<p class="text-slate">
					Examine it, map its roots, or only write a look. What is missing lowers confidence and says so.
				</p>
			</div>
		</li>
	</ol>
	<p class="mt-6 text-slate">
		Have a tree from another Bruntle? Its JSON file is read back on the <a
			class="chalk"
			href={resolve('/reference/formats')}>formats page</a
		>, and the archive of a whole yard under <a class="chalk" href={resolve('/yard/backups')}>backups</a>.
		Units and dates are set under
		<a class="chalk" href={resolve('/yard/settings')}>the yard’s settings</a>.
	</p>
</div>
