<script lang="ts">
	import { kindSaid } from '$core/vocabulary/kind-names';
	import { findBy, findNear } from '$core/text/search';
	import { atStart } from '$core/text/mid-sentence';
	import { groupNames, groups, liftingWindowNames, type Kind } from '$core/vocabulary/kind';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import Plus from '@lucide/svelte/icons/plus';
	import KindForm from './KindForm.svelte';
	import NarrowDown from '$ui/NarrowDown.svelte';
	import ReferenceFrame from './ReferenceFrame.svelte';

	interface Props {
		kinds: Kind[];
		refused?: Refused | null;
	}
	let { kinds, refused }: Props = $props();
	const format = useFormat();
	let words = $state('');
	let adding = $state(false);
	let editing = $state<Kind | null>(null);
	const said = (kind: Kind): string => kindSaid(kind, groupNames[kind.group]);
	const called = $derived(findBy(words, kinds, said));
	const shown = $derived(called.length > 0 ? called : findNear(words, kinds, said));
</script>

<ReferenceFrame
	title="Kinds"
	lead="{kinds.length} kinds that rescuers meet. Every number is recalled from memory, for plants with their roots in a pot: change what you know better."
>
	<div class="mt-4 flex flex-wrap items-end gap-3">
		<NarrowDown bind:words />
		<Button tone="solid" onclick={() => (adding = true)}><Plus size={18} /> Kind</Button>
	</div>
	{#if called.length === 0}
		<p class="mt-4 text-lg">No kind is called “{words.trim()}”{shown.length > 0 ? '. Near it:' : '.'}</p>
	{/if}
	{#each groups as group (group)}
		{@const inGroup = shown.filter((kind) => kind.group === group)}
		{#if inGroup.length > 0}
			<h2 class="mt-6 text-lg">{atStart(groupNames[group])}</h2>
			<div class="relative overflow-x-auto">
				<table class="mt-1 w-full min-w-[44rem] border-t text-sm">
					<thead>
						<tr class="border-b text-left text-slate">
							<th class="w-52 py-1 pr-4 font-normal">kind</th><th
								class="w-24 py-1 pr-4 text-right font-normal">coldest</th
							><th class="w-32 py-1 pr-4 text-right font-normal">dries before water</th><th
								class="w-48 py-1 pr-4 font-normal">root work</th
							><th class="py-1 pr-4 font-normal">caution</th><th class="w-24 py-1"
								><span class="sr-only">change</span></th
							>
						</tr>
					</thead>
					<tbody class="divide-y">
						{#each inGroup as kind (kind.id)}
							<tr>
								<td class="py-1.5 pr-4"
									><strong>{kind.commonName}</strong>
									<span class="text-slate italic">{kind.genus}</span>{#if kind.origin === 'own'}<span
											class="text-ochre"
										>
											yours</span
										>{/if}</td
								>
								<td class="py-1.5 pr-4 text-right">{format().measure(kind.coldestC, '°C')}</td>
								<td class="py-1.5 pr-4 text-right">{format().percent(kind.wetnessTrigger)}</td>
								<td class="py-1.5 pr-4">{liftingWindowNames[kind.liftingWindow]}</td>
								<td class="py-1.5 pr-4">{kind.sap === 'none' ? '' : `${kind.sap}. `}{kind.caution}</td>
								<td class="py-1.5 text-right"
									><Button
										size="small"
										tone="quiet"
										aria-label="Change {kind.commonName}"
										onclick={() => (editing = kind)}>Change</Button
									></td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		{/if}
	{/each}
</ReferenceFrame>

<Sheet bind:open={adding} title="A kind of your own"
	><KindForm {refused} done={() => (adding = false)} /></Sheet
>
<Sheet
	bind:open={
		() => editing !== null,
		(open) => {
			if (!open) editing = null;
		}
	}
	title={editing?.commonName ?? ''}
>
	{#if editing}<KindForm kind={editing} {refused} done={() => (editing = null)} />{/if}
</Sheet>
