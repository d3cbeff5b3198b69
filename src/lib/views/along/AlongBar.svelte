<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { counted } from '$core/text/plural';
	import { useFormat } from '$ui/format';
	import { device } from './device.svelte';

	/** Says on every page that the device is alone, and what waits to be sent. */
	const format = useFormat();
	const state = $derived(device.state);
	const waiting = $derived(device.waiting);
	const refused = $derived(device.refused);
</script>

{#if state?.along && page.url.pathname !== '/along'}
	<p class="no-print border-t border-oxide bg-leaf py-1.5 text-sm" role="status">
		<span class="page block">
			{#if state.aloneSince}
				<strong>No connection</strong> since {format().instant(state.aloneSince)}{waiting > 0
					? `; ${counted(waiting, 'entry', 'entries')} kept here, to be sent.`
					: '; work goes on, and is kept here.'}
			{:else if waiting > 0}
				{counted(waiting, 'entry', 'entries')} {waiting === 1 ? 'waits' : 'wait'} to be sent.
			{/if}
			{#if refused > 0}
				{counted(refused, 'entry', 'entries')} {refused === 1 ? 'wants' : 'want'} your decision.
			{/if}
			<a class="chalk font-semibold" href={resolve('/along')}>On this device</a>
		</span>
	</p>
{/if}
