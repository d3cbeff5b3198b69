<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Lift } from '$core/replant/lifting/lift';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import { act } from '$ui/act';
	import { keepTyped } from '$ui/keep-typed';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { untrack } from 'svelte';
	import LiftLogFields from './LiftLogFields.svelte';
	import { readLog, type LiftState } from './lift-state.svelte';

	/** The log of a lift that was done, put right in its place. */
	interface Props {
		/** The lift whose log is corrected. */
		of: Lift;
		lift: LiftState;
		/** It is done with. */
		done: () => void;
		refused?: Refused | null;
	}
	let { of, lift, done, refused }: Props = $props();
	const format = useFormat();
	const begun = untrack(() => of);
	let log = $state(untrack(() => structuredClone($state.snapshot(of.log))));
	const draft = $derived.by(() => {
		const { id: _id, version: _version, ...planned } = begun;
		return { ...planned, log };
	});
</script>

{#if log}
	<form
		method="POST"
		action="?/keep"
		use:enhance={act({ keep: true, done })}
		{@attach keepTyped(`lift.${begun.id}.log`)}
		aria-labelledby="correction-title"
		class="mt-4 flex max-w-3xl flex-col gap-3"
		novalidate
	>
		<h3 id="correction-title" class="text-lg">
			The log of {format().date(begun.log?.liftedOn ?? log.liftedOn)}, corrected
		</h3>
		<Problem {refused} />
		<LiftLogFields bind:log past kept={lift.keptBy(log)} {refused} />
		<input type="hidden" name="lift" value={JSON.stringify(draft)} />
		<input
			type="hidden"
			name="log"
			data-typed
			value={JSON.stringify(log)}
			oninput={(event) => {
				const left = readLog(event.currentTarget.value);
				if (left && log) Object.assign(log, left);
			}}
		/>
		<input type="hidden" name="id" value={begun.id} />
		<input type="hidden" name="version" value={begun.version} />
		<div class="flex flex-wrap gap-3">
			<Button type="submit" tone="solid" size="large">Keep the correction</Button>
			<Button size="large" tone="quiet" onclick={done}>Leave it as it is</Button>
		</div>
	</form>
{/if}
