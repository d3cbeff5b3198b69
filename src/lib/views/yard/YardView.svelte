<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { climateSaid, type ClimateValues, type NightTemperature } from '$core/climate/normals';
	import type { Span } from '$core/maths/calendar';
	import { exposureNames, lightLevelNames, placeKindNames, type Place } from '$core/vocabulary/place';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Plus from '@lucide/svelte/icons/plus';
	import PlaceForm from './PlaceForm.svelte';

	interface Row {
		place: Place;
		trees: { id: string; tag: string; name: string }[];
		tonight: NightTemperature;
		season: Span | null;
	}
	interface Props {
		rows: Row[];
		/** Nobody has taken in a tree yet. */
		noTrees: boolean;
		heightWithinKm: number;
		climateValues: ClimateValues;
		today: string;
		refused?: Refused | null;
	}
	let { rows, noTrees, heightWithinKm, climateValues, today, refused }: Props = $props();
	const format = useFormat();
	let adding = $state(false);
	let editing = $state<Place | null>(null);
</script>

<div class="page pt-6">
	<div class="flex flex-wrap items-end justify-between gap-4">
		<h1 class="text-3xl">Yard</h1>
		<div class="flex flex-wrap gap-2">
			<Button href={resolve('/yard/outcomes')}>Outcomes</Button>
			<Button href={resolve('/yard/review')}>Review</Button>
			<Button href={resolve('/yard/weather')}>Weather</Button>
			<Button href={resolve('/yard/devices')}>Devices</Button>
			<Button href={resolve('/yard/stock')}>Stock</Button>
			<Button href={resolve('/yard/people')}>People</Button>
			<Button href={resolve('/yard/backups')}>Backups</Button>
			<Button href={resolve('/yard/settings')}>Units, dates and look</Button>
			<Button tone="solid" onclick={() => (adding = true)}><Plus size={18} /> Place</Button>
		</div>
	</div>
	{#if rows.length === 0}
		<div class="mt-6 max-w-2xl">
			<h2 class="mb-3 text-xl">Where do your trees stand?</h2>
			<PlaceForm {heightWithinKm} {climateValues} {refused} />
		</div>
	{/if}
	{#if rows.length > 0 && noTrees}
		<div class="mt-5 flex flex-wrap items-center gap-4 border-l-4 border-lichen py-1 pl-3">
			<p>No tree is taken in yet.</p>
			<Button tone="solid" href={resolve('/trees/new')}>Take in the first tree</Button>
		</div>
	{/if}
	<ul class="mt-4 divide-y border-t">
		{#each rows as { place, trees, tonight, season } (place.id)}
			<li class="grid gap-x-8 gap-y-2 py-5 lg:grid-cols-[18rem_1fr_auto]">
				<div>
					<h2 class="text-xl">{place.name}</h2>
					<p class="text-sm text-slate">
						{placeKindNames[place.kind]}{place.light ? `, ${lightLevelNames[place.light]}` : ''}{place.wind
							? `, ${exposureNames[place.wind]}`
							: ''}, {format().number(place.latitudeDeg, 1)}°, {format().measure(place.elevationM, 'm', 0)}
					</p>
					{#if place.note}<p class="mt-1 text-sm">{place.note}</p>{/if}
				</div>
				<div>
					<p class="text-sm">
						Tonight usually <strong class="text-rain">{format().measure(tonight.usualC, '°C')}</strong>, cold {format().measure(
							tonight.coldC,
							'°C'
						)}; hardy kinds grow {season ? format().span(season.from, season.to) : 'never here'}
						<span class="text-slate">({climateSaid(place)})</span>
					</p>
					{#if trees.length > 0}
						<ul class="mt-2 flex flex-wrap gap-x-4 gap-y-2">
							{#each trees.slice(0, 60) as tree (tree.id)}
								<li class="flex items-center gap-1.5">
									<TreeTag tag={tree.tag} size="small" /><a
										class="chalk text-sm"
										href={resolve('/trees/[id]', { id: tree.id })}>{tree.name}</a
									>
								</li>
							{/each}
						</ul>
						{#if trees.length > 60}<p class="mt-1 text-sm text-slate">and {trees.length - 60} more</p>{/if}
					{:else}<p class="mt-2 text-sm text-slate">
							No tree in care stands here. <a class="chalk" href={resolve('/trees/new')}>Take one in</a>
						</p>{/if}
				</div>
				<div class="flex items-start gap-1">
					<Button size="small" onclick={() => (editing = place)} aria-label="Change {place.name}"
						>Change</Button
					>
					{#if trees.length === 0}
						<form method="POST" action="?/remove" use:enhance={act()}>
							<input type="hidden" name="id" value={place.id} /><input
								type="hidden"
								name="version"
								value={place.version}
							/>
							<Button size="small" tone="quiet" type="submit" aria-label="Remove {place.name}">Remove</Button>
						</form>
					{/if}
				</div>
			</li>
		{/each}
	</ul>
	<p class="mt-4 text-sm text-slate">Today is {format().date(today)}.</p>
</div>

<Sheet bind:open={adding} title="A new place">
	<PlaceForm near={rows[0]?.place} {heightWithinKm} {climateValues} {refused} done={() => (adding = false)} />
</Sheet>
<Sheet
	bind:open={
		() => editing !== null,
		(open) => {
			if (!open) editing = null;
		}
	}
	title={editing?.name ?? ''}
>
	{#if editing}{#key editing.version}<PlaceForm
				{heightWithinKm}
				{climateValues}
				place={editing}
				{refused}
				done={() => (editing = null)}
			/>{/key}{/if}
</Sheet>
