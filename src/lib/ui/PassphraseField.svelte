<script lang="ts">
	import Field from './Field.svelte';
	import type { Refused } from './field';

	/** A passphrase: hidden while it is typed, shown on wish; it never comes back from the server. */
	interface Props {
		name: string;
		label: string;
		hint?: string;
		/** Tells password keepers whether it is a new one. */
		fresh: boolean;
		refused?: Refused | null | undefined;
	}
	let { name, label, hint, fresh, refused }: Props = $props();
	let shown = $state(false);
</script>

<Field {name} {label} {...hint ? { hint } : {}} refused={refused ?? null}>
	{#snippet control({ id, describedBy, invalid })}
		<div class="flex gap-2">
			<input
				{id}
				{name}
				type={shown ? 'text' : 'password'}
				class="input min-w-0 flex-1"
				autocomplete={fresh ? 'new-password' : 'current-password'}
				autocapitalize="none"
				spellcheck="false"
				maxlength="128"
				aria-describedby={describedBy}
				aria-invalid={invalid}
			/>
			<button
				type="button"
				class="rounded-md border border-edge px-3 text-sm hover:border-ink"
				aria-pressed={shown}
				onclick={() => (shown = !shown)}
				>Show<span class="sr-only">&nbsp;the {label.toLowerCase()}</span></button
			>
		</div>
	{/snippet}
</Field>
