<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { resultAsked } from '$core/aftercare/tasks/result';
	import Button from '$ui/Button.svelte';
	import { act } from '$ui/act';
	import type { TaskDone } from './task-asked';
	import ArrowRight from '@lucide/svelte/icons/arrow-right';
	import Check from '@lucide/svelte/icons/check';

	/** Closes a task with one touch, asks for its result, or leads to where that is written down. */
	interface Props {
		task: TaskDone;
		treeId: string;
		/** What it is called for those who cannot see it in its place. */
		of: string;
		action: string;
		ask: (task: TaskDone & { treeId: string }) => void;
	}
	let { task, treeId, of, action, ask }: Props = $props();
	const asked = $derived(resultAsked(task));
</script>

{#if asked === 'growth'}
	<Button href={resolve('/trees/[id]/recovery', { id: treeId })} aria-label="Take the look: {of}"
		>Take the look <ArrowRight size={18} /></Button
	>
{:else if asked === 'soil'}
	<Button href={resolve('/trees/[id]/examine/soil', { id: treeId })} aria-label="Measure it: {of}"
		>Measure it <ArrowRight size={18} /></Button
	>
{:else if asked === 'backup'}
	<Button href={resolve('/trees/[id]/recovery/backups', { id: treeId })} aria-label="Write them down: {of}"
		>Write them down <ArrowRight size={18} /></Button
	>
{:else if asked === 'crown'}
	<Button href={resolve('/trees/[id]/book?kind=crown-cut', { id: treeId })} aria-label="Write it down: {of}"
		>Write it down <ArrowRight size={18} /></Button
	>
{:else if asked === 'place' && !task.lapsed}
	<Button href={resolve('/trees/[id]/take-in', { id: treeId })} aria-label="Choose its place: {of}"
		>Choose its place <ArrowRight size={18} /></Button
	>
{:else if asked === 'planting' && !task.lapsed}
	<Button href={resolve('/trees/[id]/replant', { id: treeId })} aria-label="Open Replant: {of}"
		>Open Replant <ArrowRight size={18} /></Button
	>
{:else if asked || task.lapsed}
	<Button aria-label="Done: {of}" onclick={() => ask({ ...task, treeId })}><Check size={18} /> Done</Button>
{:else}
	<form method="POST" {action} use:enhance={act()}>
		<input type="hidden" name="treeId" value={treeId} />
		<input type="hidden" name="taskId" value={task.id} />
		<input type="hidden" name="version" value={task.version} />
		<input type="hidden" name="state" value="done" />
		<Button type="submit" aria-label="Done: {of}"><Check size={18} /> Done</Button>
	</form>
{/if}
