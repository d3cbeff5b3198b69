<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import Button from '$ui/Button.svelte';
</script>

<svelte:head><title>{page.error?.message ?? 'Something went wrong'} · Bruntle</title></svelte:head>

<div class="page max-w-2xl py-16">
	<p class="font-display text-lg text-slate">{page.status}</p>
	<h1 class="text-3xl">{page.error?.message}</h1>
	<p class="mt-3 text-lg">{page.error?.advice ?? 'Go back, or look for it by name.'}</p>
	<div class="mt-8 flex flex-wrap gap-3">
		<Button tone="solid" href={resolve('/')}>To Today</Button>
		<Button href={resolve('/trees')}>All trees</Button>
	</div>
</div>
