<script lang="ts">
	import { rootClasses, rootFlawNames, rootFlaws } from '$core/roots/map/root-map';
	import Button from '$ui/Button.svelte';
	import Caution from '$ui/Caution.svelte';
	import Mark from '$ui/Mark.svelte';
	import TreeTag from '$ui/TreeTag.svelte';
	import Glyph from '$views/roots/Glyph.svelte';
	import { classGlyphs, flawGlyphs } from '$views/roots/glyphs';
	import ReferenceFrame from './ReferenceFrame.svelte';

	const palette = [
		['paper', 'ground'],
		['leaf', 'raised zone: ledger, layers'],
		['duff', 'selection, growing season'],
		['line', 'hairlines'],
		['edge', 'outlines of fields and keys'],
		['ink', 'text, what is done'],
		['slate', 'second voice'],
		['oxide', 'cut, urgent, today'],
		['ochre', 'hold, trace further, caution'],
		['lichen', 'living, recovery, keep'],
		['rain', 'water, cold, focus'],
		['sapwood', 'living root'],
		['bark', 'its outline, the trunk']
	] as const;
	const spaces = [4, 8, 12, 20, 32, 48];
</script>

<ReferenceFrame
	title="Look"
	lead="Chalk marks on dark bark, moist soil, pale living root. One family, so that later work stays in it."
>
	<section class="mt-6">
		<h2 class="text-xl">Palette</h2>
		<p class="max-w-prose text-slate">
			Few colours, one meaning each; shape and pattern say the same thing again. No gradients, no shadows but
			under floating layers.
		</p>
		<ul class="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-7">
			{#each palette as [name, use] (name)}
				<li>
					<span class="block h-14 rounded-md border border-edge" style="background: var(--{name})"
					></span><strong>{name}</strong><span class="block text-sm text-slate">{use}</span>
				</li>
			{/each}
		</ul>
	</section>
	<section class="mt-8 grid gap-8 lg:grid-cols-2">
		<div>
			<h2 class="text-xl">Type</h2>
			<p class="mt-2 font-display text-4xl font-bold">31 % of living root</p>
			<p class="text-sm text-slate">Bricolage Grotesque: names, stages, large numbers</p>
			<p class="mt-3 max-w-prose">
				Everything that is read is set in Atkinson Hyperlegible Next, with tabular figures: 104 mm, 18 April
				2026, 0.825. Sentences, not labels in capitals. Captions never under 13 px, body 15.5 px, bench mode
				28 px and more.
			</p>
		</div>
		<div>
			<h2 class="text-xl">Space and edges</h2>
			<div class="mt-3 flex items-end gap-4">
				{#each spaces as px (px)}<span class="text-center text-sm"
						><span class="mx-auto block bg-bark" style="width: {px}px; height: {px}px"></span>{px}</span
					>{/each}
			</div>
			<p class="mt-3 text-slate">
				Hairlines and space divide, not boxes in boxes. Corners 6 px. Touch targets 44 px and more.
			</p>
			<div class="mt-3 flex flex-wrap items-center gap-3">
				<Mark size={40} /><TreeTag tag="H-03" /><Button tone="solid">First choice</Button><Button
					>Other</Button
				><Button tone="quiet">Quiet</Button>
			</div>
			<div class="mt-3"><Caution>Ochre, a bar and the word.</Caution></div>
		</div>
	</section>
	<section class="mt-8">
		<h2 class="text-xl">Roots as drawn</h2>
		<svg
			viewBox="0 0 760 96"
			class="mt-2 w-full max-w-4xl"
			role="img"
			aria-label="How living, doubtful, dead, untraced, cut and kept roots are drawn"
		>
			<defs
				><pattern
					id="look-doubt"
					width="6"
					height="6"
					patternUnits="userSpaceOnUse"
					patternTransform="rotate(45)"
					><rect width="6" height="6" class="fill-sapwood" /><path
						d="M0 0v6"
						class="stroke-bark"
						stroke-width="2.4"
					/></pattern
				></defs
			>
			{#each ['living', 'doubtful', 'dead', 'trace further', 'cut now', 'cut later', 'keep'] as name, i (name)}
				<g transform="translate({10 + i * 107} 30)">
					<path
						d="M0-9Q45-12 84-4V4Q45 10 0 9Z"
						fill={name === 'doubtful' ? 'url(#look-doubt)' : undefined}
						class={[
							name === 'dead'
								? 'fill-paper stroke-slate'
								: name === 'doubtful'
									? 'stroke-bark'
									: 'fill-sapwood stroke-bark'
						]}
						stroke-width="1.7"
						stroke-dasharray={name === 'dead' ? '2 4' : undefined}
					/>
					{#if name === 'trace further'}<circle
							cx="84"
							r="12"
							class="fill-paper stroke-ochre"
							stroke-width="2.2"
							stroke-dasharray="4 3"
						/><text x="84" y="5" text-anchor="middle" font-size="14" font-weight="700" class="fill-ochre"
							>?</text
						>{/if}
					{#if name.startsWith('cut')}<path d="M34-18L44 18" class="stroke-paper" stroke-width="9" /><path
							d="M34-18L44 18"
							class="stroke-oxide"
							stroke-width="5"
							stroke-linecap={name === 'cut now' ? 'round' : 'butt'}
							stroke-dasharray={name === 'cut now' ? undefined : '4 3'}
						/>{/if}
					{#if name === 'keep'}<path
							d="M35 5c0-8 14-8 14 0M49-4c0 8-14 8-14 0"
							fill="none"
							class="stroke-lichen"
							stroke-width="2.6"
							stroke-linecap="round"
						/>{/if}
					<text x="42" y="52" text-anchor="middle" font-size="14" class="fill-ink">{name}</text>
				</g>
			{/each}
		</svg>
		<h3 class="mt-4 text-base">Classes and flaws</h3>
		<ul class="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-3 lg:grid-cols-4">
			{#each rootClasses as name (name)}<li class="flex items-center gap-3">
					<Glyph path={classGlyphs[name]} size={28} />{name}
				</li>{/each}
			{#each rootFlaws as flaw (flaw)}<li class="flex items-center gap-3">
					<Glyph path={flawGlyphs[flaw]} size={28} />{rootFlawNames[flaw]}
				</li>{/each}
		</ul>
	</section>
	<section class="mt-8">
		<h2 class="text-xl">Line of care</h2>
		<svg
			viewBox="-16 0 776 60"
			class="mt-2 w-full max-w-4xl"
			role="img"
			aria-label="Marks on the line of care"
		>
			{#each ['taken in, examined', 'look', 'potted', 'due', 'root stage, done', 'root stage, planned', 'verdict'] as name, i (name)}
				<g transform="translate({48 + i * 109} 18)">
					{#if i === 0}<circle r="6" class="fill-ink" />{:else if i === 1}<circle
							r="3"
							class="fill-ink"
						/>{:else if i === 2}<path
							d="M-6-5h12l-2 11h-8z"
							class="fill-paper stroke-ink"
							stroke-width="2"
						/>{:else if i === 3}<circle
							r="4"
							class="fill-paper stroke-ink"
							stroke-width="1.5"
						/>{:else if i === 4}<path
							d="M-5-12L6 12"
							class="stroke-oxide"
							stroke-width="5"
							stroke-linecap="round"
						/>{:else if i === 5}<path
							d="M-5-12L6 12"
							class="stroke-oxide"
							stroke-width="5"
							stroke-dasharray="5 4"
						/>{:else}<path
							d="M0-11L9 0L0 11L-9 0Z"
							class="fill-paper stroke-lichen"
							stroke-width="2.5"
						/>{/if}
					<text y="34" text-anchor="middle" font-size="13" class="fill-ink">{name}</text>
				</g>
			{/each}
		</svg>
	</section>
</ReferenceFrame>
