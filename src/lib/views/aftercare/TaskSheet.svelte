<script lang="ts" generics="T extends TaskAsked">
	import { enhance } from '$app/forms';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import type { Snippet } from 'svelte';
	import type { TaskAsked } from './task-asked';

	/** Asks for what is to be written down when a task is closed. */
	interface Props {
		/** The task; null while nothing is asked. */
		task: T | null;
		/** How it is closed. */
		state: 'done' | 'skipped';
		action: string;
		description: string;
		refused?: Refused | null;
		/** Once it is kept. */
		onkept: () => void;
		children: Snippet<[T]>;
	}
	let { task = $bindable(), state, action, description, refused, onkept, children }: Props = $props();
	const format = useFormat();
</script>

<Sheet
	bind:open={
		() => task !== null,
		(open) => {
			if (!open) task = null;
		}
	}
	title="{state === 'done' ? 'Done' : 'Skip'}: {format().inWords(task?.title ?? '')}"
	{description}
>
	{#if task}
		<form
			method="POST"
			{action}
			use:enhance={act({
				done: () => {
					task = null;
					onkept();
				}
			})}
			class="flex flex-col gap-4"
			novalidate
		>
			<Problem {refused} />
			<input type="hidden" name="treeId" value={task.treeId} />
			<input type="hidden" name="taskId" value={task.id} />
			<input type="hidden" name="version" value={task.version} />
			<input type="hidden" name="state" value={state} />
			{@render children(task)}
		</form>
	{/if}
</Sheet>
