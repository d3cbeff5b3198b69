<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import type { FieldProblem } from '$core/vocabulary/fields';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import Progress from '$ui/Progress.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import { tick } from 'svelte';
	import { sendInPieces } from './send-in-pieces';

	/** The whole yard as open files: taken along, and read into a yard that is empty. */
	export interface ArchiveLooked {
		/** Name under which it was sent. */
		sending: string;
		about: {
			madeAt: string;
			trees: number;
			waterings: number;
			readings: number;
			weatherDays: number;
			pictures: number;
			picturesWithoutFile: number;
			leftOut: number;
		};
		people: number;
		problems: readonly FieldProblem[];
		more: number;
		stands: string | null;
	}
	interface Props {
		/** What this yard has, so that no other is read into it; null where it is empty. */
		stands: string | null;
		looked: ArchiveLooked | null;
		refused: Refused | null;
	}
	let { stands, looked, refused }: Props = $props();
	const format = useFormat();
	let sending = $state('');
	/** Share of the file that is sent; null while none is. */
	let sent = $state<number | null>(null);
	let fault = $state<Refused | null>(null);
	let form = $state<HTMLFormElement>();

	async function send(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		fault = null;
		sent = 0;
		const result = await sendInPieces(file, (share) => (sent = share));
		sent = null;
		input.value = '';
		if ('refused' in result) fault = result.refused;
		else {
			sending = result.sending;
			await tick();
			form?.requestSubmit();
		}
	}
	const inIt = $derived(
		looked
			? [
					counted(looked.about.trees, 'tree'),
					counted(looked.about.waterings, 'watering'),
					counted(looked.about.pictures, 'picture'),
					`${counted(looked.about.weatherDays, 'day')} of weather`,
					counted(looked.about.readings, 'reading'),
					counted(looked.people, 'person', 'people')
				].join(', ')
			: ''
	);
	const fits = $derived(looked !== null && looked.problems.length === 0 && looked.stands === null);
</script>

<section aria-labelledby="open-title" class="mt-10 max-w-2xl border-t pt-6">
	<h2 id="open-title" class="text-xl">The whole yard as open files</h2>
	<p class="mt-1">
		One ZIP archive that other programs read too: a file for each tree, tables for weather, readings,
		waterings and stock, and the pictures. It holds no passphrases, keys or tokens, and not how to take back
		what was done; for coming back after a loss a backup is the thing.
	</p>
	<p class="mt-3">
		<a class="chalk" href={resolve('/yard/archive')} download>Take the whole yard as open files</a>
	</p>
	<h3 id="in-title" class="mt-6 font-semibold">Read such an archive in</h3>
	{#if stands !== null}
		<p class="mt-1">
			This yard has {stands} already, and a whole yard is read into an empty one: start Bruntle on a new folder
			with
			<code>./bruntle start --data FOLDER</code> and read it in there. A single tree of an archive is read in
			under <a class="chalk" href={resolve('/reference/formats')}>Formats</a>, in the reference.
		</p>
	{:else}
		<p class="mt-1">Nothing is kept before you have seen what is in it.</p>
		<label class="mt-2 block">
			<span class="block text-sm text-slate">Archive of a whole yard (ZIP)</span>
			<input
				type="file"
				accept=".zip,application/zip"
				class="input mt-1"
				disabled={sent !== null}
				onchange={(event) => void send(event.currentTarget)}
			/>
		</label>
		{#if sent !== null}<Progress label="Sending the archive" value={sent} max={1} class="mt-2" />{/if}
		<form method="POST" action="?/look" use:enhance={act({ keep: true })} bind:this={form}>
			<input type="hidden" name="sending" value={sending} />
		</form>
		<Problem refused={fault ?? refused} />
		{#if looked}
			<div class="mt-4" role="status">
				<p>Of {format().instant(looked.about.madeAt)}: {inIt}.</p>
				{#if looked.about.picturesWithoutFile > 0}
					<p class="mt-1">
						{counted(looked.about.picturesWithoutFile, 'picture')}
						{looked.about.picturesWithoutFile === 1
							? 'had no file any more and is'
							: 'had no files any more and are'} known by what was written of {looked.about
							.picturesWithoutFile === 1
							? 'it'
							: 'them'} alone.
					</p>
				{/if}
				{#if looked.about.leftOut > 0}
					<p class="mt-1">
						{counted(looked.about.leftOut, 'record')} could not be read when it was made and {looked.about
							.leftOut === 1
							? 'is'
							: 'are'} not in it.
					</p>
				{/if}
				{#if looked.people > 0}
					<p class="mt-1">
						People come without a passphrase: each takes up an invitation under their own name. Devices want a
						new token: add them anew.
					</p>
				{/if}
			</div>
			{#if looked.problems.length > 0}
				<div class="mt-3 border-l-4 border-oxide py-1 pl-3" role="alert">
					<p class="font-semibold text-oxide">Something in it does not fit, and nothing of it is read in.</p>
					<ul class="mt-1 text-sm">
						{#each looked.problems as { field, message } (field + message)}
							<li class="break-words">{field} {message}</li>
						{/each}
						{#if looked.more > 0}<li>and {format().number(looked.more)} more</li>{/if}
					</ul>
				</div>
			{:else if fits}
				<form method="POST" action="?/take" use:enhance={act()} class="mt-3">
					<input type="hidden" name="sending" value={looked.sending} />
					<Button type="submit" tone="solid">Read the whole yard in</Button>
				</form>
				<p class="mt-1 text-sm text-slate">
					It cannot be taken back; another empty folder begins anew. All of it is read in, or nothing.
				</p>
			{/if}
		{/if}
	{/if}
</section>
