<script lang="ts">
	import { enhance } from '$app/forms';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import TextField from '$ui/TextField.svelte';
	import { act } from '$ui/act';

	/** Asks why a task is skipped. */
	interface Props {
		/** The task to skip; null while nothing is asked. */
		task: { id: string; version: number; title: string; treeId: string; everyDays: number | null } | null;
		action: string;
	}
	let { task = $bindable(), action }: Props = $props();
	const usual = ['Not needed: looked, and it is well', 'Weather against it', 'Done in another way'];
	let reason = $state('');
</script>

<Sheet
	bind:open={
		() => task !== null,
		(open) => {
			if (!open) task = null;
		}
	}
	title="Skip: {task?.title ?? ''}"
	description="A skipped task stays in the record with its reason."
>
	{#if task}
		<form
			method="POST"
			{action}
			use:enhance={act({
				done: () => {
					task = null;
					reason = '';
				}
			})}
			class="flex flex-col gap-4"
		>
			<input type="hidden" name="treeId" value={task.treeId} />
			<input type="hidden" name="taskId" value={task.id} />
			<input type="hidden" name="version" value={task.version} />
			<input type="hidden" name="state" value="skipped" />
			<div class="flex flex-wrap gap-2">
				{#each usual as text (text)}
					<Button size="small" onclick={() => (reason = text)}>{text}</Button>
				{/each}
			</div>
			<TextField name="skipReason" label="Why" value={reason} required maxlength={300} />
			{#if task.everyDays !== null}
				<label class="flex items-center gap-2"
					><input type="checkbox" class="size-5" name="ends" value="true" /> Do not bring it up again
					(otherwise in
					{task.everyDays} days)</label
				>
			{/if}
			<Button type="submit" tone="solid">Skip it</Button>
		</form>
	{/if}
</Sheet>
