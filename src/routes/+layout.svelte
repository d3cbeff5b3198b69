<script lang="ts">
	import { createFormat } from '$core/format/format';
	import { setFormat } from '$ui/format';
	import Shell from '$views/shell/Shell.svelte';
	import '../app.css';

	let { data, children } = $props();
	const format = $derived(createFormat(data.formatSettings));
	setFormat(() => format);
</script>

<Shell demo={data.demo} today={data.today}>
	{@render children()}
</Shell>
