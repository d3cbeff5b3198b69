<script lang="ts">
	import { afterNavigate } from '$app/navigation';
	import { readAnew } from '$ui/read-anew';
	import { pageFormat } from '$core/text/bound';
	import { setFormat } from '$ui/format';
	import { device } from '$views/along/device.svelte';
	import Shell from '$views/shell/Shell.svelte';
	import '../app.css';

	const READ_ANEW_MS = 10 * 60_000;
	let { data, children } = $props();
	const format = $derived(pageFormat(data.formatSettings));
	setFormat(() => format);

	// Said once a page stands and answers to touch: what waits for it, waits for this.
	afterNavigate(() => {
		document.documentElement.dataset.answers = '';
	});
	// On a device that has the yard with it, pages are of the copy, or of the yard again.
	$effect(() => device.listen(() => void readAnew()));
	// A page that lay open while the day turned is read anew when somebody comes back to it.
	let readAt = Date.now();
	$effect(() => {
		const comeBack = (): void => {
			if (document.visibilityState !== 'visible' || Date.now() - readAt < READ_ANEW_MS) return;
			readAt = Date.now();
			void readAnew();
		};
		// Where it lay open in sight, as at a bench overnight, nothing tells of it but the first touch.
		const signs = ['visibilitychange', 'pointerdown', 'keydown'];
		for (const sign of signs) document.addEventListener(sign, comeBack, { passive: true });
		return () => {
			for (const sign of signs) document.removeEventListener(sign, comeBack);
		};
	});
</script>

<Shell
	who={data.who}
	demo={data.demo}
	today={data.today}
	damaged={data.damaged}
	lastAt={data.lastAt}
	practice={data.practice}
>
	{@render children()}
</Shell>
