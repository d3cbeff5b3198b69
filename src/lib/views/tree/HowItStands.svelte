<script lang="ts">
	import { resolve } from '$app/paths';
	import { knowingNames } from '$core/tree/fact';
	import type { Shown, StandingGroup } from '$core/tree/lines';
	import { useFormat } from '$ui/format';

	/** How a tree stands: every fact once, with its day, how it is known and where it is written. */
	interface Props {
		treeId: string;
		groups: readonly StandingGroup[];
		today: string;
	}
	let { treeId, groups, today }: Props = $props();
	const format = useFormat();
	const one = (kind: 'mm' | 'kg' | 'share', value: number): string =>
		kind === 'share'
			? format().percent(value)
			: kind === 'mm' && value >= 1000
				? format().measure(value / 1000, 'm')
				: format().measure(value, kind);
	const text = (shown: Shown): string =>
		shown.kind === 'words'
			? shown.value
			: shown.kind === 'day'
				? format().day(shown.value, today)
				: one(shown.kind, shown.value);
	const range = (shown: Shown): string =>
		(shown.kind === 'mm' || shown.kind === 'kg' || shown.kind === 'share') &&
		shown.low !== undefined &&
		shown.high !== undefined &&
		shown.high - shown.low > 0.005
			? `${one(shown.kind, shown.low)} to ${one(shown.kind, shown.high)}`
			: '';
</script>

<div class="page py-5">
	<h2 class="text-2xl">How it stands</h2>
	<p class="mt-1 max-w-prose text-slate">
		What every page of this tree reads, each with its day and how it is known. What is not known counts as not
		known.
	</p>
	<div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-2">
		{#each groups as group (group.title)}
			<section aria-label={group.title}>
				<h3 class="border-b-2 border-ink pb-1 text-lg">{group.title}</h3>
				<dl class="divide-y divide-line">
					{#each group.lines as line (line.label)}
						<div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)] items-baseline gap-x-4 py-1.5">
							<dt>{line.label}</dt>
							<dd>
								{#if line.shown}
									<a class="chalk font-semibold" href={resolve(`/trees/[id]/${line.page}`, { id: treeId })}
										>{text(line.shown)}</a
									>{#if range(line.shown)}<span class="text-slate">, {range(line.shown)}</span>{/if}
									<span class="block text-sm text-slate">
										{knowingNames[line.known]}{#if line.by}, {line.by}{/if}{#if line.on && line.shown.kind !== 'day'},
											{format().day(line.on, today)}{/if}
									</span>
									{#each line.against as other, i (i)}
										<span class="block text-sm font-semibold text-oxide">
											But {text(other.shown)}{other.by.startsWith('as ') ? '' : ' by the'}
											<a class="chalk" href={resolve(`/trees/[id]/${other.page}`, { id: treeId })}
												>{other.by}</a
											>
											{other.by.startsWith('as ') ? 'on' : 'of'}
											{format().day(other.on, today)}: which is right?
										</span>
									{/each}
								{:else}
									<a class="chalk" href={resolve(`/trees/[id]/${line.page}`, { id: treeId })}>not known</a>
								{/if}
							</dd>
						</div>
					{/each}
				</dl>
			</section>
		{/each}
	</div>
</div>
