import { beforeNavigate, goto } from '$app/navigation';
import type { RootsState } from './roots-state.svelte';

/**
 * What is drawn is kept before another page of the tree is read, so that it shows what was drawn; a step that cannot be kept stays in this
 * browser. To be called while a component is made.
 */
export function keepBeforeLeaving(roots: RootsState): void {
	let leaving = false;
	beforeNavigate((navigation) => {
		if (leaving || navigation.willUnload || roots.isKept) return;
		const { to, type } = navigation;
		navigation.cancel();
		void roots.flush().finally(() => {
			leaving = true;
			if (type === 'popstate') history.go(navigation.delta);
			// eslint-disable-next-line svelte/no-navigation-without-resolve -- the address the person chose
			else if (to) void goto(to.url);
		});
	});
}
