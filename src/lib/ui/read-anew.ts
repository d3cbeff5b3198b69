import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Reads the page anew after something was written. A page that somebody is on the way to comes first: reading anew would drop
 * that click, and the page they wanted is read after the write anyway.
 */
export async function readAnew(): Promise<void> {
	let waited: Promise<void> | null = null;
	while (navigating.complete && navigating.complete !== waited) {
		waited = navigating.complete;
		// One that the next one breaks off is no fault.
		await waited.catch(() => undefined);
	}
	await invalidateAll();
}
