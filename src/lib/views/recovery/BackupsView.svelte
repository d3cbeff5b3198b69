<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { backupEventNames, backupStanding, type Backup, type BackupEvent } from '$core/recovery/backup';
	import { backupKindNames, backupKinds, type BackupKind } from '$core/vocabulary/backup-kinds';
	import type { Tree } from '$core/take-in/tree';
	import { markOf, type Values } from '$core/values/values';
	import Button from '$ui/Button.svelte';
	import DateField from '$ui/DateField.svelte';
	import Caution from '$ui/Caution.svelte';
	import MeasureField from '$ui/MeasureField.svelte';
	import Problem from '$ui/Problem.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import Workings from '$ui/Workings.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	/** Cuttings and divisions from a tree, from the day they came off to the tree that each became. */
	interface Props {
		tree: Tree;
		backups: Backup[];
		advice: Record<string, { count: number; rate: number; from: 'yard' | 'usual' }>;
		children: { id: string; tag: string; name: string }[];
		places: { id: string; name: string }[];
		parentTree: { id: string; tag: string; name: string } | null;
		values: Values;
		today: string;
		refused?: Refused | null;
	}
	let { tree, backups, advice, children, places, parentTree, values, today, refused }: Props = $props();
	const format = useFormat();
	let kind = $state<BackupKind>('hardwood');
	let changing = $state<{ backup: Backup; what: BackupEvent } | null>(null);
	let potting = $state<Backup | null>(null);
	const worth = $derived(advice[kind]);
	const alive = $derived(backups.reduce((sum, one) => sum + backupStanding(one).alive, 0));
	const parts = [
		{ key: 'waiting', label: 'to root', fill: 'bg-duff' },
		{ key: 'rooted', label: 'rooted', fill: 'bg-lichen' },
		{ key: 'potted', label: 'potted', fill: 'bg-rain' },
		{ key: 'given', label: 'given away', fill: 'bg-edge' },
		{ key: 'lost', label: 'lost', fill: 'bg-oxide' }
	] as const;
</script>

<div class="page grid gap-x-10 gap-y-6 pt-5 pb-20 lg:grid-cols-[minmax(0,1fr)_24rem]">
	<div>
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h2 class="text-xl">Cuttings and divisions</h2>
			<a class="chalk" href={resolve('/trees/[id]/recovery', { id: tree.id })}>Back to Recovery</a>
		</div>
		{#if parentTree}
			<p class="mt-1">
				This one was struck from
				<a class="chalk" href={resolve('/trees/[id]', { id: parentTree.id })}
					>{parentTree.tag} {parentTree.name}</a
				>.
			</p>
		{/if}
		<p class="mt-1 text-lg">
			{#if backups.length === 0}
				No backup yet. What comes off is fresh only today.
			{:else}
				<strong>{alive}</strong> alive in {backups.length}
				{backups.length === 1 ? 'batch' : 'batches'}.
			{/if}
		</p>
		<ul class="mt-3 divide-y border-y">
			{#each [...backups].reverse() as backup (backup.id)}
				{@const standing = backupStanding(backup)}
				<li class="py-3">
					<p class="text-lg font-semibold">
						{backup.count}
						{backupKindNames[backup.kind]}<span class="text-base font-normal text-slate"
							>, {format().day(backup.takenOn, today)}</span
						>
					</p>
					<p class="text-sm text-slate">
						{[
							`from ${backup.source}`,
							backup.lengthMm === null ? '' : format().measure(backup.lengthMm, 'mm'),
							backup.treatment,
							backup.note
						]
							.filter(Boolean)
							.join('; ')}
					</p>
					<div class="mt-2 flex h-5 overflow-hidden rounded-sm" aria-hidden="true">
						{#each parts as part (part.key)}
							{#if standing[part.key] > 0}<span
									class={['border-r border-paper', part.fill]}
									style="width: {(standing[part.key] / backup.count) * 100}%"
								></span>{/if}
						{/each}
					</div>
					<p class="mt-1 text-sm">
						{parts
							.filter((part) => standing[part.key] > 0)
							.map((part) => `${standing[part.key]} ${part.label}`)
							.join(', ')}
					</p>
					{#if standing.waiting + standing.rooted > 0}
						<div class="mt-2 flex flex-wrap gap-2">
							{#if standing.waiting > 0}<Button
									size="small"
									aria-label="Some have roots: {backupKindNames[backup.kind]} of {backup.takenOn}"
									onclick={() => (changing = { backup, what: 'struck' })}>Have roots</Button
								>{/if}
							<Button
								size="small"
								aria-label="Pot on as a tree: {backupKindNames[backup.kind]} of {backup.takenOn}"
								onclick={() => (potting = backup)}>Pot on as a tree</Button
							>
							<Button
								size="small"
								tone="quiet"
								aria-label="Some are lost: {backupKindNames[backup.kind]} of {backup.takenOn}"
								onclick={() => (changing = { backup, what: 'lost' })}>Lost</Button
							>
							<Button
								size="small"
								tone="quiet"
								aria-label="Some are given away: {backupKindNames[backup.kind]} of {backup.takenOn}"
								onclick={() => (changing = { backup, what: 'given' })}>Given away</Button
							>
						</div>
					{/if}
					{#if backup.events.length > 0}
						<ul class="mt-2 text-sm text-slate">
							{#each backup.events as event, i (i)}
								<li>{format().day(event.on, today)}: {event.count} {backupEventNames[event.what]}</li>
							{/each}
						</ul>
					{/if}
				</li>
			{/each}
		</ul>
		{#if children.length > 0}
			<h3 class="mt-6 text-base">Trees it became</h3>
			<ul class="mt-1 flex flex-wrap gap-3">
				{#each children as child (child.id)}
					<li class="flex items-center gap-2">
						<TreeTag tag={child.tag} size="small" />
						<a class="chalk" href={resolve('/trees/[id]', { id: child.id })}>{child.name}</a>
					</li>
				{/each}
			</ul>
		{/if}
	</div>

	<section aria-labelledby="take-title" class="raised h-fit">
		<h2 id="take-title" class="text-lg">Take some</h2>
		<form method="POST" action="?/take" use:enhance={act()} class="mt-2 flex flex-col gap-3" novalidate>
			<Problem {refused} />
			<SelectField
				name="kind"
				label="As"
				bind:value={kind}
				options={backupKinds.map((value) => ({ value, label: backupKindNames[value] }))}
				{refused}
			/>
			{#if worth}
				<p class="text-sm">
					<Workings
						label="Worth keeping"
						formula="1 − (1 − rate)ⁿ ≥ {format().percent(values['backup.certainty'])}"
						lines={[
							{
								label: worth.from === 'yard' ? 'of this yard’s own, lower edge' : 'usual rate',
								value: format().percent(worth.rate),
								...(worth.from === 'usual' ? { mark: markOf(`backup.rate.${kind}`) } : {})
							},
							{
								label: 'certainty wanted',
								value: format().percent(values['backup.certainty']),
								mark: markOf('backup.certainty')
							}
						]}
						changes="Ten of your own whose fate is known replace the usual rate."
						><strong>{worth.count} or more</strong></Workings
					> make it {format().percent(values['backup.certainty'])} sure that one comes through.
				</p>
			{/if}
			<TextField
				name="count"
				label="How many"
				inputmode="numeric"
				value={String(worth?.count ?? 6)}
				{refused}
			/>
			<TextField
				name="source"
				label="From where on the tree"
				hint="Top, side shoots, base, root cut off"
				{refused}
			/>
			<MeasureField
				name="lengthMm"
				label="Length"
				unit="mm"
				optional
				hint={kind === 'hardwood' ? 'A hand’s length; the lower leaves stripped' : undefined}
				{refused}
			/>
			<TextField
				name="treatment"
				label="What was done to them"
				hint="Evidence for most is weak"
				optional
				{refused}
			/>
			<DateField name="takenOn" label="On" value={today} max={today} {refused} />
			<TextField name="note" label="Note" optional {refused} />
			<Caution
				>Clean blade, label at once. From a sick tree take only what is sound, and keep it apart.</Caution
			>
			<Button type="submit" tone="solid">Keep them</Button>
		</form>
	</section>
</div>

<Sheet
	bind:open={
		() => changing !== null,
		(open) => {
			if (!open) changing = null;
		}
	}
	title="How many {changing ? backupEventNames[changing.what] : ''}?"
>
	{#if changing}
		{@const { backup, what } = changing}
		<form
			method="POST"
			action="?/change"
			use:enhance={act({ done: () => (changing = null) })}
			class="flex flex-col gap-3"
			novalidate
		>
			<Problem {refused} />
			<input type="hidden" name="backupId" value={backup.id} />
			<input type="hidden" name="version" value={backup.version} />
			<input type="hidden" name="what" value={what} />
			<TextField name="count" label="How many" inputmode="numeric" value="1" {refused} />
			<DateField name="on" label="On" value={today} max={today} {refused} />
			<Button type="submit" tone="solid">Keep it</Button>
		</form>
	{/if}
</Sheet>
<Sheet
	bind:open={
		() => potting !== null,
		(open) => {
			if (!open) potting = null;
		}
	}
	title="Pot on as a tree of the yard"
	description="One, or several as a lot; its parent is kept with it."
>
	{#if potting}
		<form
			method="POST"
			action="?/pot"
			use:enhance={act({ done: () => (potting = null) })}
			class="flex flex-col gap-3"
			novalidate
		>
			<Problem {refused} />
			<input type="hidden" name="backupId" value={potting.id} />
			<input type="hidden" name="version" value={potting.version} />
			<TextField name="tag" label="Tag" {refused} />
			<TextField name="name" label="Name" value="{tree.name}, struck" maxlength={80} {refused} />
			<TextField name="count" label="How many" inputmode="numeric" value="1" {refused} />
			<MeasureField name="trunkDiameterMm" label="Stem" unit="mm" value={6} {refused} />
			<SelectField
				name="placeId"
				label="Place"
				value={tree.placeId}
				options={places.map((place) => ({ value: place.id, label: place.name }))}
				{refused}
			/>
			<DateField name="on" label="On" value={today} max={today} {refused} />
			<Button type="submit" tone="solid">Take it in</Button>
		</form>
	{/if}
</Sheet>
