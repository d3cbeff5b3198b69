<script lang="ts">
	import ForOwners from '$views/people/ForOwners.svelte';
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import type { DamagedRow } from '$core/vocabulary/damaged';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { atStart } from '$core/text/mid-sentence';

	interface Props {
		damaged: DamagedRow[];
		refused?: Refused | null;
	}
	let { damaged, refused }: Props = $props();
	const format = useFormat();

	/** A path of a field as people read it. */
	const said = (field: string): string =>
		field
			.split('.')
			.map((part) =>
				part
					.replace(/(?=(Mm|Cm|M|L|Kg|C|Deg)$)/, ',')
					.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
			)
			.join(', ');
	/** A fault of the record as a whole has no field of its own. */
	const hasField = (field: string): boolean => field !== 'body';
</script>

<div class="page max-w-3xl pt-6">
	<h1 class="text-3xl">Damaged records</h1>
	{#if damaged.length === 0}
		<p class="mt-4">
			Every record of this yard can be read. <a class="chalk" href={resolve('/yard')}>To the yard</a>
		</p>
	{:else}
		<p class="mt-3">
			These stand in the database and cannot be read. Nothing else is touched by it: lists and pages go on
			without them. Put right what is wrong, or take the record out; both can be undone.
		</p>
		<ul class="mt-5 divide-y border-t">
			{#each damaged as row (`${row.record} ${row.id}`)}
				{@const mine = refused?.typed.id === row.id && refused.typed.record === row.record ? refused : null}
				<li class="py-5">
					<h2 class="text-xl">
						{atStart(row.noun)}{row.tree === '' || row.record === 'tree' ? '' : ' of'}
						<span class="text-slate">{row.tree}</span>
					</h2>
					<form method="POST" action="?/mend" use:enhance={act()} class="mt-3 flex flex-col gap-4" novalidate>
						<Problem refused={mine} />
						<input type="hidden" name="record" value={row.record} />
						<input type="hidden" name="id" value={row.id} />
						{#each row.cells as cell (cell.field)}
							{#if hasField(cell.field)}
								<TextField
									name="cell.{cell.field}"
									label={atStart(said(cell.field))}
									value={cell.stands}
									hint={format().inWords(`It ${cell.message}.`)}
									refused={mine}
								/>
							{:else}
								<p>{format().inWords(`It ${cell.message}.`)}</p>
							{/if}
						{/each}
						<ForOwners told="An owner of the yard mends it, or takes it out."
							><div class="flex flex-wrap gap-2">
								{#if row.cells.some((cell) => hasField(cell.field))}
									<Button tone="solid" type="submit">Mend it</Button>
								{/if}
								<Button type="submit" formaction="?/remove">Take it out</Button>
							</div></ForOwners
						>
					</form>
				</li>
			{/each}
		</ul>
	{/if}
</div>
