<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import type { ActTold } from '$core/vocabulary/along';
	import { counted } from '$core/text/plural';
	import { differences, fieldName } from '$core/text/fields';
	import Button from '$ui/Button.svelte';
	import Differences from '$ui/Differences.svelte';
	import Problem from '$ui/Problem.svelte';
	import Sheet from '$ui/Sheet.svelte';
	import { fieldSaid } from '$ui/field-said';
	import { useFormat } from '$ui/format';
	import { readAnew } from '$ui/read-anew';
	import { device, type Hindrance } from './device.svelte';
	import { putForComparing } from '../roots/drawn-elsewhere';

	/** What this device has with it, what waits to be sent, and what the yard did not take. */
	const format = useFormat();
	let leaving = $state(false);
	const held = $derived(device.state && !device.state.locked ? device.state.along : null);
	const acts = $derived(device.state?.acts ?? []);
	const waits = $derived(acts.filter(({ refused }) => refused === null));
	const refused = $derived(acts.filter((one) => one.refused !== null));

	const hindrances: Record<Hindrance, string> = {
		insecure:
			'Here the yard cannot be taken along: a browser keeps pages for later only from an address that begins with https, or on the computer of the yard itself. Forms keep what you type, and say when it was not saved; send it again when the connection is back.',
		browser:
			'This browser keeps no pages for later, so the yard cannot be taken along with it. Forms keep what you type, and say when it was not saved.',
		certificate:
			'This device does not trust the certificate of the yard yet, and its browser keeps nothing for later from an address it does not trust.'
	};

	/** Whether fields say something else here than at the yard. */
	const differs = ({ typed, refused: by }: ActTold): boolean =>
		by?.meanwhile ? differences(new Map(typed), by.meanwhile).length > 0 : false;

	async function compareDrawing(act: ActTold): Promise<void> {
		if (act.drawing === null) return;
		const treeId = putForComparing(act.path, act.drawing);
		if (treeId === null) return;
		await device.ask({ ask: 'drop', id: act.id });
		await goto(resolve('/trees/[id]/roots', { id: treeId }));
	}

	async function leave(): Promise<void> {
		await device.leave();
		leaving = false;
		await readAnew();
	}
</script>

<svelte:head><title>On this device · Bruntle</title></svelte:head>

{#snippet whose(act: ActTold)}
	{#if act.tree}<a class="chalk font-semibold" href={resolve('/trees/[id]', { id: act.tree.id })}
			>{act.tree.tag}{act.tree.name ? `, ${act.tree.name}` : ''}</a
		>{:else}The yard{/if}: {format().inWords(act.what)}
{/snippet}

<div class="page max-w-3xl pt-6 pb-16">
	<h1 class="text-3xl">On this device</h1>

	{#if !device.known}
		<p class="mt-2 text-lg">Looking what is here.</p>
	{:else if held}
		<p class="mt-1 text-lg">
			{#if held.trees === held.ofTrees}The whole yard is with you: {counted(held.trees, 'tree')}.
			{:else}{counted(held.trees, 'tree')} of {format().number(held.ofTrees)} are with you, those whose work comes
				first. The others want the connection.{/if}
			Copied {format().instant(held.takenAt)}.
		</p>
		<p class="mt-2 max-w-prose">
			{#if device.state?.aloneSince}
				There is no connection to the computer of the yard. Work on the trees goes on: looks, measurements,
				roots, cuts, lifting, water, pictures, tasks. It is kept on this device and sent by itself when the
				connection is back. New people, devices, settings and working values wait until then.
			{:else}
				The connection is there. When it goes, everything you do at the trees goes on here and is sent later,
				by itself.
			{/if}
		</p>
	{:else if device.state?.locked}
		<p class="mt-1 text-lg">
			You were signed out, so the copy of the yard was removed from this device.
			{#if acts.length > 0}What was done and not sent is kept until whoever did it signs in here again.{/if}
		</p>
	{:else}
		<p class="mt-1 max-w-prose text-lg">
			Take the yard along, and it works where there is no network: at the hole, in the far field, with the
			laptop closed. What you do there is kept on this device and sent when the connection is back.
		</p>
		<ul class="mt-3 list-disc pl-5">
			<li>With you: the trees with all that is known of them, small pictures, kinds and reference.</li>
			<li>Without a network: looks, measurements, roots, cuts, lifting, water, pictures and tasks.</li>
			<li>Anybody who opens this device can read it. Remove it before you lend the device.</li>
		</ul>
	{/if}

	{#if device.hindrance}
		<p class="mt-4 max-w-prose border-l-3 border-oxide pl-3">
			{hindrances[device.hindrance]}
			{#if device.hindrance === 'certificate'}<a
					class="chalk font-semibold"
					href={resolve('/key/certificate')}>Take the certificate</a
				> in three steps, then come back.{/if}
		</p>
	{/if}
	{#if device.fault}
		<div class="mt-4"><Problem refused={{ ...device.fault, problems: [], typed: {} }} /></div>
	{/if}

	<div class="mt-5 flex flex-wrap gap-3">
		{#if !held && device.known && device.hindrance !== 'insecure' && device.hindrance !== 'browser'}
			<Button
				tone="solid"
				size="large"
				disabled={device.busy !== null}
				onclick={() => void device.takeAlong()}
				>{device.busy === 'take' ? 'Taking it along' : 'Take the yard along'}</Button
			>
		{/if}
		{#if held}
			{#if device.state?.aloneSince || waits.length > 0}
				<Button tone="solid" disabled={device.busy !== null} onclick={() => void device.ask({ ask: 'send' })}
					>{device.busy === 'send' ? 'Looking for the yard' : 'Send now'}</Button
				>
			{:else}
				<Button disabled={device.busy !== null} onclick={() => void device.ask({ ask: 'take' })}
					>{device.busy === 'take' ? 'Copying' : 'Copy again now'}</Button
				>
			{/if}
			<Button tone="quiet" onclick={() => (leaving = true)}>Remove from this device</Button>
		{/if}
	</div>

	{#if refused.length > 0}
		<section class="mt-8" aria-labelledby="not-taken">
			<h2 id="not-taken" class="text-xl">For you to decide</h2>
			<p class="mt-1 max-w-prose">
				The yard did not take these as they are. They stay here until you decide; nothing of them is lost.
			</p>
			<ul class="mt-3 divide-y border-y">
				{#each refused as act (act.id)}
					<li class="py-3">
						<p>{@render whose(act)} <span class="text-slate">{format().instant(act.at)}</span></p>
						<p class="mt-1">
							<strong>{format().inWords(act.refused?.message ?? '')}</strong>
							{format().inWords(act.refused?.advice ?? '')}
						</p>
						{#if differs(act)}
							<Differences entered={act.typed} stands={act.refused?.meanwhile ?? {}} />
						{:else if act.typed.length > 0}
							<p class="mt-1 text-sm">
								You entered: {act.typed
									.filter(([, value]) => value !== '')
									.map(([field, value]) => `${fieldName(field)} ${fieldSaid(format(), field, value)}`)
									.join('; ')}
							</p>
						{/if}
						<div class="mt-2 flex flex-wrap gap-2">
							{#if act.drawing !== null}
								<Button onclick={() => void compareDrawing(act)}>Compare in Roots</Button>
							{:else}
								<Button
									disabled={device.busy !== null}
									onclick={() => void device.ask({ ask: 'again', id: act.id })}
									>{act.refused?.meanwhile ? 'Keep mine' : 'Send again'}</Button
								>
							{/if}
							<Button
								tone="quiet"
								disabled={device.busy !== null}
								onclick={() => void device.ask({ ask: 'drop', id: act.id })}
								>{act.refused?.meanwhile ? 'Keep what the yard has' : 'Leave it out'}</Button
							>
						</div>
					</li>
				{/each}
			</ul>
		</section>
	{/if}

	{#if waits.length > 0}
		<section class="mt-8" aria-labelledby="to-send">
			<h2 id="to-send" class="text-xl">To be sent</h2>
			<ul class="mt-2 divide-y border-y">
				{#each waits as act (act.id)}
					<li class="flex flex-wrap gap-x-4 py-2">
						<span>{@render whose(act)}</span>
						<span class="ml-auto text-slate"
							>{format().instant(act.at)}{act.mine ? '' : ', by somebody else'}</span
						>
					</li>
				{/each}
			</ul>
		</section>
	{:else if held && refused.length === 0}
		<p class="mt-8 text-slate">Nothing waits to be sent.</p>
	{/if}
</div>

<Sheet bind:open={leaving} title="Remove the yard from this device">
	<p>
		{#if acts.length > 0}
			<strong>{counted(acts.length, 'entry', 'entries')} would be lost</strong>: done here and not in the yard
			yet. Send {acts.length === 1 ? 'it' : 'them'} first.
		{:else}
			The copy goes. The yard itself stays as it is, and you can take it along again.
		{/if}
	</p>
	<div class="mt-4 flex flex-wrap gap-3">
		<Button tone="solid" onclick={() => void leave()}
			>{acts.length > 0 ? 'Remove it, and lose them' : 'Remove'}</Button
		>
		<Button tone="quiet" onclick={() => (leaving = false)}>Keep it</Button>
	</div>
</Sheet>
