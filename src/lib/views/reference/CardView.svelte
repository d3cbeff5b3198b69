<script lang="ts">
	import { card, cardSvg } from '$core/examine/pictures/card';
	import Button from '$ui/Button.svelte';
	import { cardPapers, cardPdf, type CardPaper } from './card-pdf';
	import { useFormat } from '$ui/format';
	import { download } from '$ui/picture';
	import FileDown from '@lucide/svelte/icons/file-down';
	import ReferenceFrame from './ReferenceFrame.svelte';

	/** The card that pictures are measured by, to be printed. */
	const format = useFormat();
	const drawn = `data:image/svg+xml,${encodeURIComponent(cardSvg())}`;
	const papers = Object.entries(cardPapers) as [CardPaper, { name: string }][];
	let working = $state<CardPaper | null>(null);
	let failed = $state(false);

	async function print(paper: CardPaper): Promise<void> {
		working = paper;
		failed = false;
		try {
			download(`card-${paper}.pdf`, await cardPdf(paper, steps));
		} catch {
			failed = true;
		}
		working = null;
	}
	const steps = $derived([
		'Print it at 100 %, not fitted to the page.',
		`Lay a ruler on its scale: ${format().measure(card.rulerMm, 'mm')} must be ${format().measure(card.rulerMm, 'mm')}.`,
		'Cut it out and glue it on something stiff and flat; matt, so that it does not shine.',
		'Lay it flat in the plane of what you measure, whole in the picture, in even light. Three of its four markers do.'
	]);
</script>

<ReferenceFrame
	title="Card for pictures"
	lead="Printed once and laid beside, it tells a picture its scale and its tilt. It is found by itself when a picture is measured."
>
	<div class="mt-5 grid gap-8 lg:grid-cols-[minmax(0,34rem)_1fr]">
		<img
			src={drawn}
			alt="The card: a marker in each corner, a scale of {format().measure(
				card.rulerMm,
				'mm'
			)} and a grey patch"
			class="w-full border bg-paper"
			width={card.widthMm}
			height={card.heightMm}
		/>
		<div>
			<ol class="list-decimal space-y-2 pl-5 text-lg">
				{#each steps as step (step)}<li>{step}</li>{/each}
			</ol>
			<div class="mt-5 flex flex-wrap gap-2">
				{#each papers as [paper, { name }] (paper)}
					<Button tone="solid" disabled={working !== null} onclick={() => print(paper)}
						><FileDown size={18} aria-hidden="true" />{working === paper
							? 'Making it …'
							: `PDF, ${name}`}</Button
					>
				{/each}
			</div>
			<p class="mt-2 text-oxide" role="status">
				{failed ? 'The PDF could not be made: load the page again and try once more.' : ''}
			</p>
		</div>
	</div>
</ReferenceFrame>
