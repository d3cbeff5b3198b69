<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { act } from '$ui/act';
	import Button from '$ui/Button.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { useFormat } from '$ui/format';
	import ImagePlus from '@lucide/svelte/icons/image-plus';
	import PictureFile from '$views/recovery/PictureFile.svelte';
	import type { RootsState } from './roots-state.svelte';

	/** Which picture roots are read from. */
	let { roots }: { roots: RootsState } = $props();
	const format = useFormat();
	let open = $state(false);
	/** Day that a file says, where it has to be turned into another first. */
	let takenOn = $state('');
	const id = $derived(roots.options.tree.id);
	/** Those of the roots first, the newest first. */
	const pictures = $derived(
		[...roots.options.pictures].reverse().sort((a, b) => Number(ofRoots(b.view)) - Number(ofRoots(a.view)))
	);
	const ofRoots = (view: string): boolean => view === 'roots' || view === 'collar';
</script>

<Button
	tone="quiet"
	size="small"
	aria-label="Roots from a picture"
	title="Roots from a picture"
	onclick={() => (open = true)}><ImagePlus size={16} /></Button
>
<Sheet
	bind:open
	title="Roots from a picture"
	description="Roots from above, with the printed card laid beside the trunk; their depth from the side, with the card stood upright beside it."
>
	{#if pictures.length > 0}
		<ul class="grid grid-cols-2 gap-3 sm:grid-cols-3">
			{#each pictures as picture (picture.id)}
				<li class="rounded-sm border">
					<a
						class="block hover:underline"
						href={resolve('/trees/[id]/roots/picture/[picture]', { id, picture: picture.id })}
					>
						<img
							src={resolve('/pictures/[file]', { file: `${picture.hash}.small.jpg` })}
							alt=""
							class="h-24 w-full object-cover"
							loading="lazy"
						/>
						<span class="block px-2 py-1 text-sm"
							>{picture.view}, {format().day(picture.takenOn, roots.options.today)}</span
						>
					</a>
					{#if roots.map.segments.length > 0}
						<a
							class="chalk block min-h-11 px-2 py-1 text-sm"
							href={resolve('/trees/[id]/roots/picture/[picture]/side', { id, picture: picture.id })}
							>Depth, taken from the side</a
						>
					{/if}
				</li>
			{/each}
		</ul>
	{:else}
		<p>No picture of this tree yet.</p>
	{/if}
	<form
		method="POST"
		action="{resolve('/trees/[id]/roots', { id })}?/picture"
		enctype="multipart/form-data"
		use:enhance={act({ done: () => (takenOn = '') })}
		class="mt-4 flex flex-col gap-3"
		novalidate
	>
		<h3 class="text-lg">{pictures.length > 0 ? 'Or take one now' : 'Take one'}</h3>
		<input type="hidden" name="view" value="roots" />
		<input type="hidden" name="takenOn" value={takenOn} />
		<PictureFile today={roots.options.today} ontaken={(day) => (takenOn = day)} />
		<p class="text-sm text-slate">Of the day that stands in the picture; of today where none does.</p>
		<Button type="submit" tone="solid">Keep it and read its roots</Button>
	</form>
	<p class="mt-4 flex flex-wrap gap-x-4">
		<a class="chalk" href={resolve('/trees/[id]/recovery/pictures', { id })}>All pictures</a>
		<a class="chalk" href={resolve('/reference/card')}>Print the card</a>
	</p>
</Sheet>
