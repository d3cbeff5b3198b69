<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { resolve } from '$app/paths';
	import { stageNames, stages } from '$core/vocabulary/words';
	import type { Hands, Theme } from '$core/text/look';
	import Search from '@lucide/svelte/icons/search';
	import { Command, Dialog } from 'bits-ui';

	interface Props {
		open: boolean;
		onshortcuts: () => void;
		ontheme: (theme: Theme) => void;
		onhands: (hands: Hands) => void;
	}
	let { open = $bindable(), onshortcuts, ontheme, onhands }: Props = $props();

	let trees = $state.raw<{ id: string; tag: string; name: string; state: string }[]>([]);
	$effect(() => {
		if (!open) return;
		void fetch('/api/v1/trees')
			.then((response) => (response.ok ? response.json() : { trees: [] }))
			.then((found: { trees: typeof trees }) => (trees = found.trees))
			.catch(() => (trees = []));
	});

	const treeId = $derived(page.params.id && page.url.pathname.startsWith('/trees/') ? page.params.id : null);
	const pages = [
		{ label: 'Today', href: resolve('/') },
		{ label: 'All trees', href: resolve('/trees') },
		{ label: 'Take in a tree', href: resolve('/trees/new') },
		{ label: 'Yard: places', href: resolve('/yard') },
		{ label: 'Units, dates and look', href: resolve('/yard/settings') },
		{ label: 'Kinds', href: resolve('/reference/kinds') },
		{ label: 'People, keys and sharing', href: resolve('/yard/people') },
		{ label: 'Backups of the yard', href: resolve('/yard/backups') },
		{ label: 'Trees from a spreadsheet', href: resolve('/trees/read') },
		{ label: 'On this device: take the yard along', href: resolve('/along') },
		{ label: 'Outcomes and losses', href: resolve('/yard/outcomes') },
		{ label: 'Review of the yard', href: resolve('/yard/review') },
		{ label: 'Damaged records', href: resolve('/yard/damaged') },
		{ label: 'Weather', href: resolve('/yard/weather') },
		{ label: 'Devices', href: resolve('/yard/devices') },
		{ label: 'Month and season', href: resolve('/calendar') },
		{ label: 'Round sheet', href: resolve('/round') },
		{ label: 'Stock: pots, mix, supplies', href: resolve('/yard/stock') },
		{ label: 'Mix components', href: resolve('/reference/components') },
		{ label: 'Values with their marks', href: resolve('/reference/values') },
		{ label: 'Glossary', href: resolve('/reference/glossary') },
		{ label: 'Cautions', href: resolve('/reference/cautions') },
		{ label: 'Card for pictures, to print', href: resolve('/reference/card') },
		{ label: 'Look of Bruntle', href: resolve('/reference/look') },
		{ label: 'Calculations and open formats', href: resolve('/reference/formats') }
	];
	function go(href: string): void {
		open = false;
		// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved where the list is made
		void goto(href);
	}
	function run(action: () => void): void {
		open = false;
		action();
	}
	const item =
		'data-selected:bg-duff flex min-h-11 cursor-pointer items-center gap-3 rounded-sm px-3 py-1.5 outline-none';
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-[#120d09]/55" />
		<Dialog.Content
			class="fixed top-[8dvh] left-1/2 z-50 w-[min(38rem,calc(100vw-24px))] -translate-x-1/2 overflow-hidden rounded-md border bg-leaf shadow-xl outline-none"
		>
			<Dialog.Title class="sr-only">Find</Dialog.Title>
			<Dialog.Description class="sr-only"
				>Type to find a tree, a page or an action, then press Enter.</Dialog.Description
			>
			<Command.Root class="flex max-h-[70dvh] flex-col" loop>
				<div class="flex items-center gap-3 border-b px-4">
					<Search size={18} class="text-slate" aria-hidden="true" />
					<Command.Input
						class="h-14 w-full bg-transparent text-lg outline-none"
						placeholder="A tree, a page, something to do"
						aria-label="Find"
					/>
				</div>
				<Command.List class="overflow-y-auto p-2" tabindex={0}>
					<Command.Viewport>
						<Command.Empty class="p-4 text-slate">Nothing of that name here.</Command.Empty>
						{#if treeId}
							<Command.Group>
								<Command.GroupHeading class="px-3 pt-2 pb-1 text-sm font-semibold text-slate"
									>This tree</Command.GroupHeading
								>
								<Command.GroupItems>
									{#each stages as stage, index (stage)}
										<Command.Item
											class={item}
											value="stage {stageNames[stage]}"
											onSelect={() =>
												go(resolve(('/trees/[id]/' + stage) as '/trees/[id]/roots', { id: treeId }))}
										>
											{stageNames[stage]}<kbd class="ml-auto text-sm text-slate">{index + 1}</kbd>
										</Command.Item>
									{/each}
								</Command.GroupItems>
							</Command.Group>
						{/if}
						{#if trees.length > 0}
							<Command.Group>
								<Command.GroupHeading class="px-3 pt-2 pb-1 text-sm font-semibold text-slate"
									>Trees</Command.GroupHeading
								>
								<Command.GroupItems>
									{#each trees.slice(0, 400) as tree (tree.id)}
										<Command.Item
											class={item}
											value="{tree.tag} {tree.name}"
											onSelect={() => go(resolve('/trees/[id]', { id: tree.id }))}
										>
											<span class="w-14 font-display font-semibold">{tree.tag}</span>{tree.name}
										</Command.Item>
									{/each}
								</Command.GroupItems>
							</Command.Group>
						{/if}
						<Command.Group>
							<Command.GroupHeading class="px-3 pt-2 pb-1 text-sm font-semibold text-slate"
								>Go to, and do</Command.GroupHeading
							>
							<Command.GroupItems>
								{#each pages as { label, href } (href)}
									<Command.Item class={item} value={label} onSelect={() => go(href)}>{label}</Command.Item>
								{/each}
								<Command.Item class={item} value="Light look" onSelect={() => run(() => ontheme('light'))}
									>Light look</Command.Item
								>
								<Command.Item class={item} value="Dark look" onSelect={() => run(() => ontheme('dark'))}
									>Dark look</Command.Item
								>
								<Command.Item
									class={item}
									value="Glare look, for bright sun"
									onSelect={() => run(() => ontheme('glare'))}>Glare look, for bright sun</Command.Item
								>
								<Command.Item
									class={item}
									value="Wet hands or gloves: larger keys"
									onSelect={() => run(() => onhands('dirty'))}>Wet hands or gloves: larger keys</Command.Item
								>
								<Command.Item class={item} value="Clean hands" onSelect={() => run(() => onhands('clean'))}
									>Clean hands</Command.Item
								>
								<Command.Item class={item} value="Shortcuts" onSelect={() => run(onshortcuts)}>
									Shortcuts<kbd class="ml-auto text-sm text-slate">?</kbd>
								</Command.Item>
							</Command.GroupItems>
						</Command.Group>
					</Command.Viewport>
				</Command.List>
			</Command.Root>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
