<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { triageDecisionNames, purposeNames, type Triage } from '$core/examine/triage/triage';
	import { act } from '$ui/act';
	import { useFormat } from '$ui/format';

	/** The decisions before the work so far, newest first. */
	interface Props {
		triages: readonly Triage[];
		others: { id: string; tag: string }[];
		today: string;
	}
	let { triages, others, today }: Props = $props();
	const format = useFormat();
</script>

{#if triages.length > 0}
	<h2 class="mt-8 text-lg">Decided before</h2>
	<ul class="divide-y border-y">
		{#each triages.toReversed() as triage (triage.id)}
			{@const second = others.find((other) => other.id === triage.secondTreeId)}
			<li class="flex items-start justify-between gap-3 py-2">
				<span
					><strong>{triageDecisionNames[triage.decision]}</strong>, to {purposeNames[triage.purpose]},
					{format().day(triage.decidedOn, today)}; it was {triage.vitality}.
					{#if triage.backups > 0}{triage.backups} cuttings first.{/if}
					{#if second}Else <a class="chalk" href={resolve('/trees/[id]/examine', { id: second.id })}
							>{second.tag}</a
						>.{/if}
					{#if triage.note}<span class="block text-sm text-slate">{triage.note}</span>{/if}</span
				>
				<form method="POST" action="?/remove" use:enhance={act({ keep: true })}>
					<input type="hidden" name="id" value={triage.id} /><input
						type="hidden"
						name="version"
						value={triage.version}
					/>
					<button
						class="chalk min-h-9 px-1 text-sm whitespace-nowrap text-slate"
						aria-label="Take out the decision of {format().day(triage.decidedOn)}">Take out</button
					>
				</form>
			</li>
		{/each}
	</ul>
{/if}
