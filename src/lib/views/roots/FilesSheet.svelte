<script lang="ts">
	import { counted } from '$core/text/plural';
	import { readRootsCsv, writeRootsCsv, type RootsCsv } from '$core/roots/io/roots-csv';
	import Button from '$ui/Button.svelte';
	import { useFormat } from '$ui/format';
	import Choice from '$ui/Choice.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { download, pngOf, standaloneSvg } from '$ui/picture';
	import type { RootsState } from './roots-state.svelte';

	/** The map out and in: roots as CSV, the drawing as SVG and PNG. */
	interface Props {
		open: boolean;
		roots: RootsState;
		/** Where the drawing is. */
		drawing: () => SVGSVGElement | null;
	}
	let { open = $bindable(), roots, drawing }: Props = $props();
	const format = useFormat();
	let read = $state.raw<RootsCsv | null>(null);
	let way = $state<'add' | 'replace'>('add');
	let problem = $state('');
	const name = $derived(`${roots.options.tree.tag} roots ${roots.map.mappedOn}`);

	async function take(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		read = readRootsCsv(await file.text(), roots.map, roots.options.values);
		input.value = '';
	}
	async function picture(kind: 'svg' | 'png'): Promise<void> {
		problem = '';
		const svg = drawing();
		if (!svg) return;
		const text = standaloneSvg(svg);
		const { width, height } = svg.viewBox.baseVal;
		try {
			download(
				`${name}.${kind}`,
				kind === 'svg'
					? new Blob([text], { type: 'image/svg+xml' })
					: await pngOf(text, width, height, getComputedStyle(document.documentElement).backgroundColor)
			);
		} catch {
			problem = 'This browser could not make the picture. Take the SVG, or print the cut card.';
		}
	}
	function put(): void {
		if (!read) return;
		problem = roots.bring(read.segments, way);
		if (problem) return;
		read = null;
		open = false;
	}
</script>

<Sheet bind:open title="Files of this map">
	{#if problem}<p class="mb-2 font-semibold text-oxide" role="alert">{problem}</p>{/if}
	<h3 class="text-base">Out</h3>
	<div class="mt-1 flex flex-wrap gap-2">
		<Button
			disabled={roots.map.segments.length === 0}
			onclick={() => download(`${name}.csv`, new Blob([writeRootsCsv(roots.map)], { type: 'text/csv' }))}
			>Roots as CSV</Button
		>
		<Button onclick={() => void picture('svg')}>Drawing as SVG</Button>
		<Button onclick={() => void picture('png')}>Drawing as PNG</Button>
	</div>
	<h3 class="mt-5 text-base">In</h3>
	<label class="mt-1 flex flex-col gap-1">
		<span class="text-sm font-semibold">Roots from a CSV file</span>
		<input
			type="file"
			accept=".csv,.tsv,.txt,text/csv,text/plain"
			class="input"
			onchange={(event) => void take(event.currentTarget)}
		/>
		<span class="text-xs text-slate"
			>A row a root: clock or azimuth_deg, and diameter_mm; take the file above as a pattern.</span
		>
	</label>
	{#if read}
		<div class="mt-3" role="status">
			{#if read.refusal}
				<p class="font-semibold text-oxide">{read.refusal}</p>
			{:else if read.problems.length > 0}
				<p class="font-semibold text-oxide">Nothing was taken. Mend these lines:</p>
				<ul class="text-sm">
					{#each read.problems as entry (entry.line + entry.why)}<li>
							Line {entry.line}: {format().inWords(entry.why)}.
						</li>{/each}
				</ul>
			{:else}
				<p class="font-semibold">{counted(read.segments.length, 'root')} read.</p>
				{#if roots.map.segments.length > 0}
					<div class="mt-2">
						<Choice
							label="Those on the map"
							bind:value={way}
							options={[
								{ value: 'add', label: 'stay; add to them' },
								{ value: 'replace', label: 'go; put these in their place' }
							]}
						/>
					</div>
				{/if}
				<Button tone="solid" class="mt-3" onclick={put}>Put them on the map</Button>
			{/if}
		</div>
	{/if}
</Sheet>
