<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { NightTemperature } from '$core/climate/normals';
	import type { TodayItem } from '$core/today/item';
	import type { RoundStop } from '$core/today/today';
	import AlongOffer from '../along/AlongOffer.svelte';
	import Button from '$ui/Button.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';
	import { resultAsked } from '$core/aftercare/tasks/result';
	import type { Refused } from '$ui/field';
	import Terms from '$ui/Terms.svelte';
	import DoneButton from '$views/aftercare/DoneButton.svelte';
	import DoneSheet from '$views/aftercare/DoneSheet.svelte';
	import SkipSheet from '$views/aftercare/SkipSheet.svelte';
	import ArrowRight from '@lucide/svelte/icons/arrow-right';
	import Check from '@lucide/svelte/icons/check';
	import Droplet from '@lucide/svelte/icons/droplet';
	import type { ComponentProps } from 'svelte';
	import TonightChart from './TonightChart.svelte';

	interface Props {
		today: string;
		items: TodayItem[];
		round: RoundStop[];
		nights: {
			placeName: string;
			night: NightTemperature;
			forecastC: number | null;
			limits: { tag: string; limitC: number }[];
		}[];
		treeCount: number;
		refused?: Refused | null;
	}
	let { today, items, round, nights, treeCount, refused }: Props = $props();
	const format = useFormat();

	const levels = [
		{ level: 'now', title: 'Now' },
		{ level: 'due', title: 'In its window' },
		{ level: 'soon', title: 'Coming up this week' }
	] as const;
	const minutes = $derived(round.reduce((sum, stop) => sum + stop.minutes, 0));
	const pressing = $derived(items.filter((item) => item.level === 'now').length);
	const duration = (total: number): string =>
		total < 60
			? `${total} min`
			: `${Math.floor(total / 60)} h ${total % 60 ? `${total % 60} min` : ''}`.trim();
	let doing = $state<ComponentProps<typeof DoneSheet>['task']>(null);
	let skipping = $state<ComponentProps<typeof SkipSheet>['task']>(null);
	/** Several at once: what is ticked, by its key; null while each is done alone. */
	let chosen = $state<string[] | null>(null);
	const keyOf = (item: TodayItem): string => item.task?.id ?? item.treeId + item.placeName + item.sentence;
	const together = $derived(items.filter((item) => chosen?.includes(keyOf(item))));
	const asOne = $derived(
		JSON.stringify({
			tasks: together.flatMap(({ treeId, task }) =>
				task ? [{ treeId, taskId: task.id, version: task.version }] : []
			),
			waterings: together.flatMap(({ treeId, pourL }) => (pourL === null ? [] : [{ treeId, litres: null }]))
		})
	);
	/** What one tick settles: work that asks for no result, and water. */
	const isQuick = (item: TodayItem): boolean =>
		item.task
			? !item.task.lapsed && [null, 'watering'].includes(resultAsked(item.task))
			: item.pourL !== null;
	/** What is alike at one place: one tick takes all of it. */
	const alike = (item: TodayItem): TodayItem[] =>
		items.filter(
			(other) =>
				other.level !== 'soon' &&
				other.placeName === item.placeName &&
				isQuick(other) &&
				(item.task ? other.task?.title === item.task.title : item.pourL !== null && other.pourL !== null)
		);
	let shown = $state(30);
	/** What fits into the time there is, in the order of urgency. */
	let available = $state<number | null>(null);
	const fits = $derived.by(() => {
		if (available === null) return null;
		let left = available;
		let count = 0;
		for (const item of items) {
			if (item.level === 'soon') break;
			const needs = item.task?.minutes ?? 5;
			if (needs > left) break;
			left -= needs;
			count++;
		}
		return count;
	});
	const few = $derived(items.slice(0, shown));
</script>

<div class="page grid gap-x-10 gap-y-8 pt-6 lg:grid-cols-[1fr_22rem]">
	<section aria-labelledby="today-title">
		<h1 id="today-title" class="text-3xl">{format().date(today)}</h1>
		<p class="mt-1 text-lg text-slate">
			{#if items.length === 0}
				{treeCount === 1 ? 'One tree' : `${treeCount} trees`} in care, and nothing asks for you today.
			{:else}
				{#if pressing > 0}<strong class="text-oxide">{pressing} now.</strong>{/if}
				{items.some((item) => item.level !== 'soon')
					? `About ${duration(minutes)} for what is now and in its window.`
					: 'Nothing has to be done today; this is coming up.'}
				<a class="chalk text-base" href={resolve('/calendar')}>Month and season</a>
			{/if}
		</p>
		<AlongOffer />
		{#if items.length > 0}
			<div
				class={[
					'z-10 mt-2 flex flex-wrap items-center gap-x-6 gap-y-2',
					chosen !== null && 'sticky top-2 rounded-sm border bg-paper p-2'
				]}
			>
				{#if chosen === null}
					<label class="flex items-center gap-2 text-sm"
						>I have <input
							class="input w-24"
							type="number"
							min="0"
							max="1440"
							step="15"
							aria-label="Minutes I have today"
							oninput={(event) => {
								const typed = event.currentTarget.valueAsNumber;
								available = Number.isFinite(typed) ? typed : null;
							}}
						/>
						minutes{fits === null ? '' : `: the first ${fits} of what is now and due`}</label
					>
					{#if items.some(isQuick)}
						<Button size="small" onclick={() => (chosen = [])}>Several at once</Button>
					{/if}
				{:else}
					<form
						method="POST"
						action="?/together"
						use:enhance={act({ done: () => (chosen = null) })}
						class="contents"
					>
						<input type="hidden" name="work" value={asOne} />
						<Button type="submit" tone="solid" disabled={together.length === 0}
							><Check size={18} /> Done: {together.length} chosen</Button
						>
					</form>
					<Button tone="quiet" onclick={() => (chosen = null)}>One by one again</Button>
				{/if}
			</div>
		{/if}
		{#each levels as { level, title } (level)}
			{@const group = few.filter((item) => item.level === level)}
			{#if group.length > 0}
				<h2 class="mt-6 mb-1 flex items-center gap-3 text-lg">
					{title}<span class="text-base font-normal text-slate"
						>{items.filter((item) => item.level === level).length}</span
					>
				</h2>
				<ol class="divide-y border-t">
					{#each group as item (keyOf(item))}
						<li class="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 py-3 sm:grid-cols-[7.5rem_1fr_auto]">
							<p
								class={[
									'font-display text-lg leading-6 font-semibold sm:row-span-2',
									level === 'now' ? 'text-oxide' : level === 'due' ? 'text-ink' : 'text-slate'
								]}
							>
								{format().inWords(item.figure)}
							</p>
							<div class="col-span-2 sm:col-span-1">
								<p class="text-lg leading-6 font-semibold">
									<a class="hover:underline" href={resolve(`/trees/[id]/${item.stage}`, { id: item.treeId })}
										>{format().inWords(item.sentence)}</a
									>
								</p>
								<p class="mt-0.5 text-sm text-slate"><Terms text={format().inWords(item.reason, today)} /></p>
								<p class="mt-1.5 flex flex-wrap items-center gap-2 text-sm">
									{#if item.group.length > 0}
										{#each item.group.slice(0, 8) as tree (tree.id)}
											<a href={resolve('/trees/[id]', { id: tree.id })}
												><TreeTag tag={tree.tag} size="small" /></a
											>
										{/each}
										{#if item.group.length > 8}<span>and {item.group.length - 8} more</span>{/if}
									{:else}
										<TreeTag tag={item.tag} size="small" />
										<a class="chalk" href={resolve('/trees/[id]', { id: item.treeId })}>{item.treeName}</a>
									{/if}
									<span class="text-slate">{item.placeName}</span>
								</p>
							</div>
							<div class="col-start-2 row-start-1 flex items-start gap-1.5 sm:col-start-3">
								{#if chosen !== null && isQuick(item)}
									{@const same = alike(item)}
									<div class="flex flex-col items-end gap-1">
										<label class="flex items-center gap-2"
											><span class="sr-only">Choose {format().inWords(item.sentence)}, {item.tag}</span>
											<input type="checkbox" class="size-7" value={keyOf(item)} bind:group={chosen} /></label
										>
										{#if same.length > 1}
											<Button
												size="small"
												onclick={() => (chosen = [...new Set([...(chosen ?? []), ...same.map(keyOf)])])}
												>All {same.length} alike here</Button
											>
										{/if}
									</div>
								{:else if item.task}
									{@const task = item.task}
									<DoneButton
										{task}
										treeId={item.treeId}
										of="{format().inWords(task.title)}, {item.tag}"
										action="?/close"
										ask={(asked) => (doing = asked)}
									/>
									<Button
										tone="quiet"
										aria-label="Skip: {format().inWords(task.title)}, {item.tag}"
										onclick={() => (skipping = { ...task, treeId: item.treeId })}>Skip</Button
									>
								{:else if item.pourL !== null}
									<form method="POST" action="?/water" use:enhance={act()}>
										<input type="hidden" name="treeId" value={item.treeId} />
										<input type="hidden" name="wateredOn" value={today} />
										<Button type="submit" aria-label="Watered: {item.tag}"
											><Droplet size={18} /> Watered</Button
										>
									</form>
								{:else}
									<Button
										href={resolve(`/trees/[id]/${item.stage}`, { id: item.treeId })}
										aria-label="Open {item.tag}">Open <ArrowRight size={18} /></Button
									>
								{/if}
							</div>
						</li>
					{/each}
				</ol>
			{/if}
		{/each}
		{#if items.length > shown}
			<Button class="mt-4" onclick={() => (shown += 60)}>Show more, {items.length - shown} are left</Button>
		{/if}
	</section>

	<aside class="flex flex-col gap-8 lg:pt-14" aria-label="Tonight and the round">
		{#if nights.length > 0}<section>
				<h2 class="text-lg">Tonight</h2>
				<p class="mb-2 text-sm text-slate">
					From a cold to a usual night of the season, with the forecast as a dot where there is one; strokes
					are the limits of trees that stand there. <a class="chalk" href={resolve('/yard/weather')}
						>Weather</a
					>
				</p>
				<TonightChart rows={nights} />
			</section>{/if}
		{#if round.length > 0}
			<section>
				<div class="flex items-baseline justify-between gap-3">
					<h2 class="text-lg">The round</h2>
					<a class="chalk text-sm" href={resolve('/round')}>Sheet to print</a>
				</div>
				<ol class="mt-1 divide-y border-t">
					{#each round as stop (stop.placeName)}
						<li class="flex items-baseline justify-between gap-3 py-2">
							<span class="font-semibold">{stop.placeName}</span>
							<span class="text-sm text-slate"
								>{stop.tags.slice(0, 5).join(', ')}{stop.tags.length > 5 ? ' …' : ''}</span
							>
							<span class="shrink-0">{duration(stop.minutes)}</span>
						</li>
					{/each}
				</ol>
			</section>
		{/if}
	</aside>
</div>

<SkipSheet bind:task={skipping} action="?/close" {refused} />
<DoneSheet bind:task={doing} action="?/close" {today} {refused} />
