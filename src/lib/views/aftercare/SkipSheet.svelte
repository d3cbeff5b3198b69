<script lang="ts">
	import Button from '$ui/Button.svelte';
	import TextField from '$ui/TextField.svelte';
	import { counted } from '$core/text/plural';
	import type { Refused } from '$ui/field';
	import type { TaskAsked } from './task-asked';
	import TaskSheet from './TaskSheet.svelte';

	/** Asks why a task is skipped. */
	interface Props {
		/** The task to skip; null while nothing is asked. */
		task: (TaskAsked & { everyDays: number | null }) | null;
		action: string;
		refused?: Refused | null;
	}
	let { task = $bindable(), action, refused }: Props = $props();
	const usual = ['Not needed: looked, and it is well', 'Weather against it', 'Done in another way'];
	let reason = $state('');
</script>

<TaskSheet
	bind:task
	state="skipped"
	{action}
	description="A skipped task stays in the record with its reason."
	{refused}
	onkept={() => (reason = '')}
>
	{#snippet children(skipped)}
		<div class="flex flex-wrap gap-2">
			{#each usual as text (text)}
				<Button size="small" onclick={() => (reason = text)}>{text}</Button>
			{/each}
		</div>
		<TextField name="skipReason" label="Reason" value={reason} required maxlength={300} {refused} />
		{#if skipped.everyDays !== null}
			<label class="flex items-center gap-2"
				><input type="checkbox" class="size-5" name="ends" value="true" /> Do not bring it up again (otherwise
				in
				{counted(skipped.everyDays, 'day')})</label
			>
		{/if}
		<Button type="submit" tone="solid">Skip it</Button>
	{/snippet}
</TaskSheet>
