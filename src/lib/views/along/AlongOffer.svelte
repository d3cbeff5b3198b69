<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import type { Who } from '$core/vocabulary/people';
	import { device } from './device.svelte';

	/** Offers, on a device that came in from the network, to take the yard along; once refused there, no more. */
	const REFUSED = 'bruntle-not-along';
	let refused = $derived(typeof localStorage === 'undefined' || localStorage.getItem(REFUSED) !== null);
	const who = $derived((page.data as { who?: Who | null }).who ?? null);
	const offers = $derived(
		who !== null &&
			who.id !== null &&
			!refused &&
			device.known &&
			device.hindrance === null &&
			!device.state?.along
	);

	function refuse(): void {
		localStorage.setItem(REFUSED, 'refused');
		refused = true;
	}
</script>

{#if offers}
	<p class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 border-l-3 border-edge pl-3">
		<span
			>No network at the trees? <a class="chalk font-semibold" href={resolve('/along')}>Take the yard along</a
			></span
		>
		<button type="button" class="min-h-9 text-sm text-slate hover:text-ink" onclick={refuse}
			>Not on this device</button
		>
	</p>
{/if}
