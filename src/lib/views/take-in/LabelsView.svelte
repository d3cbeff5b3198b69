<script lang="ts">
	import { resolve } from '$app/paths';
	import Button from '$ui/Button.svelte';
	import SelectField from '$ui/SelectField.svelte';
	import { useFormat } from '$ui/format';
	import NarrowDown from '$ui/NarrowDown.svelte';
	import {
		labelSheetNames,
		labelSheets,
		perSheet,
		placeOnSheet,
		qrPath,
		type LabelSheet,
		type LabelSheetName
	} from './label-sheets';
	import { fits } from './narrow';
	import Printer from '@lucide/svelte/icons/printer';

	/** Labels of trees in care, true to size, to print and cut: what has to be read at the pot without a screen. */
	interface Props {
		rows: {
			id: string;
			tag: string;
			name: string;
			kindName: string;
			placeName: string;
			plantCount: number;
			takenInOn: string;
		}[];
		/** Address that the codes lead to, without a stroke at its end. */
		base: string;
		/** Whether that is reached from this computer only. */
		alone: boolean;
	}
	let { rows, base, alone }: Props = $props();
	const format = useFormat();
	let words = $state('');
	let size = $state<LabelSheetName>('card-24');
	const sheet: LabelSheet = $derived(labelSheets[size]);
	const MOST = 240;
	const found = $derived(rows.filter((row) => fits(row, words)));
	const shown = $derived(found.slice(0, MOST));
	const pages = $derived(
		Array.from({ length: Math.ceil(shown.length / perSheet(sheet)) }, (_, page) =>
			shown.slice(page * perSheet(sheet), (page + 1) * perSheet(sheet))
		)
	);
	/** The low ones hold two lines. */
	const low = $derived(sheet.heightMm < 30);
</script>

<svelte:head
	><title>Labels · Bruntle</title>
	<!-- The labels lie where the paper has them: no margin of the printer's own. -->
	<svelte:element this={"style"}>{`@page { size: ${sheet.paper}; margin: 0 }`}</svelte:element></svelte:head
>

<div class="page pt-6 pb-16">
	<div class="no-print">
		<div class="flex flex-wrap items-baseline justify-between gap-3">
			<h1 class="text-3xl">Labels</h1>
			<a class="chalk" href={resolve('/trees')}>Back to the trees</a>
		</div>
		<div class="mt-4 flex flex-wrap items-end gap-4">
			<NarrowDown bind:words of="tag, name, kind, place" />
			<SelectField
				name="sheet"
				label="On"
				bind:value={() => size, (next) => (size = next as LabelSheetName)}
				options={labelSheetNames.map((value) => {
					const { label, widthMm, heightMm } = labelSheets[value];
					return {
						value,
						label: `${label}: ${format().measure(widthMm, 'mm', 1)} × ${format().measure(heightMm, 'mm', 1)}`
					};
				})}
			/>
			<Button tone="solid" disabled={shown.length === 0} onclick={() => window.print()}
				><Printer size={18} /> Print {shown.length === 1 ? 'one label' : `${shown.length} labels`}</Button
			>
		</div>
		<p class="mt-2 text-sm text-slate" role="status">
			{found.length > MOST
				? `The first ${MOST} of ${found.length}: narrow it down for the others.`
				: 'Print at full size, without “fit to page”. Pencil lasts longer than ink outdoors.'}
		</p>
		<p class="mt-1 text-sm text-slate">
			{#if alone}
				Scanned, a label would open its tree at {base}, which this computer alone can do. Share the yard
				first, so that phones can: <a class="chalk" href={resolve('/yard/people')}>People</a>.
			{:else}
				Scanned with the camera of a phone, a label opens what comes next for its tree, at {base}.
			{/if}
		</p>
	</div>
	{#each pages as page, i (i)}
		<!-- Wider than a phone, it is moved by keys too. -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div
			class="sheet-frame relative mt-4 overflow-x-auto"
			role="group"
			aria-label="Sheet {i + 1}"
			tabindex="0"
		>
			<ul
				class="label-sheet relative overflow-hidden border"
				aria-label="Labels{pages.length > 1 ? `, sheet ${i + 1}` : ''}"
				style="width: {sheet.paperWidthMm}mm; height: {sheet.paperHeightMm}mm"
			>
				{#each page as row, k (row.id)}
					{@const { leftMm, topMm } = placeOnSheet(sheet, k)}
					{@const code = qrPath(`${base}/trees/${row.id}`)}
					<li
						class="absolute flex items-center gap-2 overflow-hidden border border-dashed border-edge px-2 py-1 leading-tight"
						style="left: {leftMm}mm; top: {topMm}mm; width: {sheet.widthMm}mm; height: {sheet.heightMm}mm"
					>
						<svg
							viewBox="-2 -2 {code.side + 4} {code.side + 4}"
							class="h-full max-h-[22mm] shrink-0"
							role="img"
							aria-label="QR code that opens {row.tag}"
							shape-rendering="crispEdges"><path d={code.path} fill="black" /></svg
						>
						<span class="flex min-w-0 flex-1 flex-col">
							<span class="flex items-baseline justify-between gap-2"
								><strong class="font-display text-2xl">{row.tag}</strong>{#if low}<span
										class="truncate text-sm">{row.kindName}</span
									>{/if}</span
							>
							<span class="truncate font-semibold">{row.name}</span>
							{#if !low}
								<span class="truncate text-sm"
									>{row.kindName}{row.plantCount > 1 ? `, lot of ${row.plantCount}` : ''}</span
								>
								<span class="truncate text-sm">{row.placeName}</span>
								<span class="truncate text-sm">Since {format().day(row.takenInOn)}</span>
								<span class="truncate text-sm">Planted:</span>
							{/if}
						</span>
					</li>
				{/each}
			</ul>
		</div>
	{:else}
		<p class="mt-4 text-slate">No tree in care fits that.</p>
	{/each}
</div>

<style>
	/* Paper is white and its print black, in whatever light the screen shows it: a code is read by that. */
	.label-sheet {
		background: white;
		color: black;
	}
	@media print {
		.page {
			padding: 0;
			max-width: none;
		}
		.sheet-frame {
			overflow: visible;
			margin: 0;
		}
		.label-sheet {
			break-after: page;
			margin: 0;
			border: 0;
		}
	}
</style>
