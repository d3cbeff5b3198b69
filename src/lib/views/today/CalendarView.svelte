<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { CalendarEvent } from '$core/aftercare/tasks/calendar-events';
	import { addDays } from '$core/maths/calendar';
	import Button from '$ui/Button.svelte';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';

	/** A month of work by day, and the season ahead by month. What waits for a tree is shown pale. */
	interface Props {
		events: CalendarEvent[];
		/** YYYY-MM */
		month: string;
		feed: string | null;
		/** Whether one may give the address out. */
		mayGive: boolean;
		today: string;
	}
	let { events, month, feed, mayGive, today }: Props = $props();
	const format = useFormat();
	const shift = (by: number): string => {
		const [year, number] = month.split('-').map(Number);
		const at = new Date(Date.UTC(year ?? 2026, (number ?? 1) - 1 + by, 1));
		return at.toISOString().slice(0, 7);
	};
	const page = resolve('/calendar');
	/** Whole weeks, Monday first. */
	const days = $derived.by(() => {
		const first = `${month}-01`;
		const weekday = (new Date(`${first}T00:00:00Z`).getUTCDay() + 6) % 7;
		const from = addDays(first, -weekday);
		const last = addDays(`${shift(1)}-01`, -1);
		const count = Math.ceil((weekday + Number(last.slice(8))) / 7) * 7;
		return Array.from({ length: count }, (_, i) => addDays(from, i));
	});
	const on = (day: string): CalendarEvent[] => events.filter((event) => event.fromOn === day);
	const season = $derived(
		Array.from({ length: 6 }, (_, i) => {
			const key = shift(i);
			const begin = events.filter((event) => event.fromOn.startsWith(key));
			return { key, begin, held: begin.filter((event) => event.tentative).length };
		})
	);
	const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
</script>

<svelte:head><title>Month and season · Bruntle</title></svelte:head>

<div class="page pt-6 pb-16">
	<div class="flex flex-wrap items-baseline justify-between gap-3">
		<h1 class="text-3xl">{format().monthYear(`${month}-01`)}</h1>
		<div class="flex gap-2">
			<Button href="{page}?month={shift(-1)}" aria-label="Month before"><ChevronLeft size={18} /></Button>
			<Button href="{page}?month={shift(1)}" aria-label="Next month"><ChevronRight size={18} /></Button>
		</div>
	</div>
	<div class="relative mt-3 overflow-x-auto">
		<table class="w-full min-w-[46rem] table-fixed border-collapse text-sm">
			<thead
				><tr
					>{#each weekdays as weekday (weekday)}<th class="border-b py-1 text-left font-normal text-slate"
							>{weekday}</th
						>{/each}</tr
				></thead
			>
			<tbody>
				{#each { length: days.length / 7 } as _, week (week)}
					<tr>
						{#each days.slice(week * 7, week * 7 + 7) as day (day)}
							<td
								class={[
									'h-24 border-b p-1 align-top',
									day.startsWith(month) ? '' : 'text-slate',
									day === today && 'bg-duff'
								]}
							>
								<span class={['font-semibold', day === today && 'text-oxide']}>{Number(day.slice(8))}</span>
								<ul>
									{#each on(day).slice(0, 4) as event (event.uid)}
										<li
											class={['truncate', event.tentative && 'text-slate italic']}
											title={format().inWords(event.text)}
										>
											{format().inWords(event.title)}
										</li>
									{/each}
									{#if on(day).length > 4}<li class="text-slate">and {on(day).length - 4} more</li>{/if}
								</ul>
							</td>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	<p class="mt-1 text-sm text-slate">
		Each piece of work stands on the day its window opens; what waits for the tree is in italics and moves
		with it.
	</p>
	<section aria-labelledby="season-title" class="mt-8">
		<h2 id="season-title" class="text-lg">The season ahead</h2>
		<ul class="mt-1 grid gap-x-8 sm:grid-cols-2 lg:grid-cols-3">
			{#each season as { key, begin, held } (key)}
				<li class="min-w-0 border-b py-2">
					<strong>{format().monthYear(`${key}-01`)}</strong>: {begin.length}
					{begin.length === 1 ? 'piece' : 'pieces'} of work{held > 0 ? `, ${held} waiting for the tree` : ''}
					<ul class="text-sm text-slate">
						{#each begin.slice(0, 3) as event (event.uid)}<li class="truncate">
								{format().inWords(event.title)}
							</li>{/each}
						{#if begin.length > 3}<li>and {begin.length - 3} more</li>{/if}
					</ul>
				</li>
			{/each}
		</ul>
	</section>
	{#if mayGive}<section aria-labelledby="feed-title" class="mt-8 max-w-3xl">
			<h2 id="feed-title" class="text-lg">In your own calendar</h2>
			{#if feed}
				<p class="mt-1">Subscribe to this address; events keep their identity when they move.</p>
				<p class="mt-1"><code class="break-all">{feed}</code></p>
			{:else}
				<p class="mt-1">
					No address is given out. Whoever knows it can read the work of the yard, and nothing else.
				</p>
			{/if}
			<div class="mt-2 flex gap-2">
				<form method="POST" action="?/renew" use:enhance={act()}>
					<Button type="submit">{feed ? 'Replace the address' : 'Make an address'}</Button>
				</form>
				{#if feed}
					<form method="POST" action="?/revoke" use:enhance={act()}>
						<Button type="submit" tone="quiet">Revoke it</Button>
					</form>
				{/if}
			</div>
		</section>{/if}
</div>
