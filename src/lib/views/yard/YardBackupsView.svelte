<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import Button from '$ui/Button.svelte';
	import Problem from '$ui/Problem.svelte';
	import YardArchive, { type ArchiveLooked } from './YardArchive.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';

	/** The backups of the yard: the last, its proof, and how to come back to one. */
	interface Props {
		backups: {
			madeAt: string;
			bytes: number;
			pictureBytes: number;
			trees: number;
			records: number;
			pictures: number;
			missingPictures: number;
		}[];
		/** Where they lie; null for a yard whose database is on a server of its own. */
		folder: string | null;
		byItself: boolean;
		failedAt: string | null;
		mayMake: boolean;
		/** What this yard has, so that no other is read into it; null where it is empty. */
		stands: string | null;
		looked: ArchiveLooked | null;
		/** Why an archive was not looked into or read in. */
		notRead: Refused | null;
		refused?: Refused | null | undefined;
	}
	let { backups, folder, byItself, failedAt, mayMake, stands, looked, notRead, refused }: Props = $props();
	const format = useFormat();
	const last = $derived(backups[0]);
	const MEGABYTE = 1_000_000;
	const size = (bytes: number): string =>
		bytes < MEGABYTE
			? `${format().number(Math.ceil(bytes / 1000))} kB`
			: `${format().number(bytes / MEGABYTE, 1)} MB`;
</script>

<svelte:head><title>Backups of the yard · Bruntle</title></svelte:head>

<div class="page max-w-4xl pt-6 pb-16">
	<h1 class="text-3xl">Backups of the yard</h1>
	{#if folder === null}
		<p class="mt-3 max-w-2xl text-lg">
			The database of this yard is on a server of its own, and is backed up there. Its pictures lie in the
			data folder of this computer: keep a copy of that.
		</p>
	{:else}
		<p class="mt-1 max-w-2xl text-lg">
			{#if last}
				The last is of <strong>{format().instant(last.madeAt)}</strong>: {counted(last.trees, 'tree')}, {format().number(
					last.records
				)} records, {counted(last.pictures, 'picture')}. It was opened and counted against the yard.
			{:else}
				There is none yet.
			{/if}
			{byItself
				? 'One is made each day while Bruntle runs, and before each update of the database.'
				: 'This yard is not backed up by itself.'}
		</p>
		{#if failedAt}
			<p class="mt-3 border-l-4 border-oxide py-1 pl-3 font-semibold text-oxide" role="alert">
				The backup of {format().instant(failedAt)} could not be made. Is there room on the disk?
			</p>
		{/if}
		{#if mayMake}
			<form method="POST" action="?/make" use:enhance={act()} class="mt-4">
				<Problem refused={refused ?? null} />
				<Button type="submit" tone="solid">Back it up now</Button>
			</form>
		{/if}
		{#if backups.length > 0}
			<table class="mt-6 w-full text-left">
				<caption class="sr-only">Backups, the newest first</caption>
				<thead>
					<tr class="border-b text-sm text-slate">
						<th scope="col" class="py-1.5 pr-3 font-normal">Made</th>
						<th scope="col" class="py-1.5 pr-3 text-right font-normal">Trees</th>
						<th scope="col" class="hidden py-1.5 pr-3 text-right font-normal sm:table-cell">Records</th>
						<th scope="col" class="hidden py-1.5 pr-3 text-right font-normal sm:table-cell">Pictures</th>
						<th scope="col" class="py-1.5 pr-3 text-right font-normal">Size</th>
						<th scope="col" class="py-1.5 font-normal"><span class="sr-only">Take it along</span></th>
					</tr>
				</thead>
				<tbody>
					{#each backups as backup (backup.madeAt)}
						<tr class="border-b">
							<td class="py-2 pr-3">{format().instant(backup.madeAt)}</td>
							<td class="py-2 pr-3 text-right tabular-nums">{format().number(backup.trees)}</td>
							<td class="hidden py-2 pr-3 text-right tabular-nums sm:table-cell"
								>{format().number(backup.records)}</td
							>
							<td class="hidden py-2 pr-3 text-right tabular-nums sm:table-cell"
								>{format().number(backup.pictures)}{backup.missingPictures > 0
									? ` (${backup.missingPictures} without a file)`
									: ''}</td
							>
							<td class="py-2 pr-3 text-right tabular-nums">{size(backup.bytes + backup.pictureBytes)}</td>
							<td class="py-2 text-right">
								{#if mayMake}
									<a
										class="chalk"
										href={resolve('/yard/backups/[file]', { file: `${backup.madeAt}.zip` })}
										download
										aria-label="Take the backup of {format().instant(backup.madeAt)} along">as a file</a
									>
								{/if}
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		<section aria-labelledby="back-title" class="mt-8 max-w-2xl">
			<h2 id="back-title" class="text-lg">To come back to one</h2>
			<p class="mt-1">
				A backup beside the yard burns with it: take one along as a file now and then, and keep it elsewhere.
				With Bruntle stopped, <code>./bruntle restore FILE --data FOLDER</code> puts it into a new folder,
				looks through it and counts it; with <code>--replace</code> it takes the place of the yard there, which
				is set aside and not deleted.
			</p>
			<p class="mt-2 text-sm text-slate">
				Kept are the newest of seven days, four weeks and twelve months, in <code class="break-all"
					>{folder}</code
				>.
			</p>
		</section>
	{/if}
	{#if mayMake}<YardArchive {stands} {looked} refused={notRead} />{/if}
</div>
