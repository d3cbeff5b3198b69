<script lang="ts">
	import type { Snippet } from 'svelte';
	import Meanwhile from './Meanwhile.svelte';
	import { problemOf, type Refused } from './field';
	import { useFormat } from './format';
	import { saidLabel } from './refused';

	interface Props {
		name: string;
		label: string;
		hint?: string;
		optional?: boolean;
		refused?: Refused | null;
		class?: string;
		/** A value of the field in words, as it was kept elsewhere. */
		said?: (kept: string) => string;
		/** Puts a value that was kept elsewhere into the field. */
		take?: (kept: string) => void;
		control: Snippet<[{ id: string; describedBy: string | undefined; invalid: boolean }]>;
	}
	let {
		name,
		label,
		hint,
		optional = false,
		refused,
		class: extra = '',
		said,
		take,
		control
	}: Props = $props();

	const format = useFormat();
	const uid = $props.id();
	const problem = $derived(problemOf(refused, name));
	const describedBy = $derived(
		[hint && `${uid}-hint`, problem && `${uid}-problem`].filter(Boolean).join(' ') || undefined
	);
</script>

<div class={['flex flex-col gap-1', extra]} data-field={name} data-label={label}>
	<label for="{uid}-control" class="text-sm font-semibold">
		{label}{#if optional}<span class="font-normal text-slate">&nbsp;(optional)</span>{/if}
	</label>
	{@render control({ id: `${uid}-control`, describedBy, invalid: problem !== null })}
	<Meanwhile {name} {refused} {said} {take} />
	{#if hint}<p id="{uid}-hint" class="text-xs text-slate">{hint}</p>{/if}
	{#if problem}<p id="{uid}-problem" class="text-sm font-semibold text-oxide" role="alert">
			{saidLabel(label)}
			{format().inWords(problem)}.
		</p>{/if}
</div>
