<script lang="ts">
	import { goto } from '$app/navigation';
	import { readAnew } from '$ui/read-anew';
	import { resolve } from '$app/paths';
	import { counted } from '$core/text/plural';
	import Button from '$ui/Button.svelte';
	import { tell } from '$ui/act';
	import ReferenceFrame from './ReferenceFrame.svelte';

	interface Props {
		calculations: { name: string; summary: string }[];
	}
	let { calculations }: Props = $props();
	let files = $state<FileList | null>(null);
	let busy = $state(false);
	let problems = $state<string[]>([]);

	/** What of its kind differs from ours, field by field; empty where nothing is to be chosen. */
	let differs = $state<string[]>([]);

	async function read(kind: 'ask' | 'ours' | 'theirs'): Promise<void> {
		const file = files?.[0];
		if (!file) return;
		problems = [];
		differs = [];
		if (file.size > 24 * 1024 * 1024) {
			problems = ['The file is larger than 24 MB; a case is smaller.'];
			return;
		}
		busy = true;
		try {
			const response = await fetch(`${resolve('/api/v1/trees')}?kind=${kind}`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: await file.text()
			});
			const answer = (await response.json()) as {
				id: string;
				name: string;
				entryId: string;
				picturesWithoutFile: number;
				title?: string;
				detail?: string;
				errors?: { field: string; message: string }[];
			};
			if (response.ok) {
				const bare = answer.picturesWithoutFile;
				tell({
					told: `${answer.name} is here${bare > 0 ? `, ${counted(bare, 'picture')} without its file: more did not fit into the case` : ''}.`,
					entryId: answer.entryId
				});
				await readAnew();
				await goto(resolve('/trees/[id]', { id: answer.id }));
			} else {
				problems = [`${answer.title ?? ''} ${answer.detail ?? ''}`];
				const errors = (answer.errors ?? []).slice(0, 8);
				if (response.status === 409 && errors.length > 0) differs = errors.map(({ message }) => message);
				else problems.push(...errors.map((error) => `${error.field} ${error.message}`));
			}
		} catch {
			problems = ['No answer from Bruntle. Is it still running? Nothing was imported.'];
		} finally {
			busy = false;
		}
	}
</script>

<ReferenceFrame
	title="Formats"
	lead="What is written here can be taken out and read back. Nothing is locked in."
>
	<section class="mt-6 max-w-2xl">
		<h2 class="text-xl">Read a case</h2>
		<p class="text-slate">
			A whole tree with all its records, as one Bruntle wrote it. It is read whole or not at all.
		</p>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void read('ask');
			}}
			class="mt-3 flex flex-wrap items-end gap-3"
		>
			<label class="flex min-w-64 flex-1 flex-col gap-1 text-sm font-semibold"
				>JSON file<input
					class="input font-normal"
					type="file"
					accept="application/json,.json"
					bind:files
					required
				/></label
			>
			<Button type="submit" tone="solid" disabled={busy}>{busy ? 'Reading …' : 'Read it'}</Button>
		</form>
		{#if problems.length > 0}
			<div class="mt-3 border-l-4 border-oxide pl-3 text-oxide" role="alert">
				{#each problems as problem (problem)}<p>{problem}</p>{/each}
			</div>
		{/if}
		{#if differs.length > 0}
			<ul class="mt-3 list-disc pl-5">
				{#each differs as line (line)}<li>{line}</li>{/each}
			</ul>
			<div class="mt-3 flex flex-wrap gap-2">
				<Button tone="solid" disabled={busy} onclick={() => void read('ours')}>The tree goes by ours</Button>
				<Button disabled={busy} onclick={() => void read('theirs')}
					>Theirs comes in as a kind of our own</Button
				>
			</div>
		{/if}
		<p class="mt-3">
			A tree’s own file is on its Take in page. The schema is at <a
				class="chalk"
				href={resolve('/api/v1/schemas/tree-case.json')}>/api/v1/schemas/tree-case.json</a
			>, everything else in
			<a class="chalk" href={resolve('/api/v1/openapi.json')}>the OpenAPI description</a>.
		</p>
	</section>
	<section class="mt-8">
		<h2 class="text-xl">Calculations</h2>
		<p class="max-w-prose text-slate">
			Each can be asked alone: POST JSON to its address. Their schemas are listed at <a
				class="chalk"
				href={resolve('/api/v1/compute')}>/api/v1/compute</a
			>.
		</p>
		<dl class="mt-3 divide-y border-y">
			{#each calculations as { name, summary } (name)}
				<div class="grid gap-x-6 py-2 sm:grid-cols-[20rem_1fr]">
					<dt class="font-semibold">/api/v1/compute/{name}</dt>
					<dd>{summary}</dd>
				</div>
			{/each}
		</dl>
	</section>
</ReferenceFrame>
