<script lang="ts">
	import { enhance } from '$app/forms';
	import { resolve } from '$app/paths';
	import {
		roleNames,
		roles,
		roleSentences,
		sharedPageNames,
		type InvitationTold,
		type LinkTold,
		type PersonTold,
		type Role,
		type Who
	} from '$core/vocabulary/people';
	import Button from '$ui/Button.svelte';
	import Choice from '$ui/Choice.svelte';
	import PassphraseField from '$ui/PassphraseField.svelte';
	import Problem from '$ui/Problem.svelte';
	import { act } from '$ui/act';
	import type { Refused } from '$ui/field';
	import { useFormat } from '$ui/format';
	import NewPersonForm from './NewPersonForm.svelte';

	/** Who works in this yard, on which devices, and what others may read. */
	interface Props {
		who: Who;
		owned: boolean;
		people: PersonTold[];
		invitations: InvitationTold[];
		links: LinkTold[];
		/** Whether a key is asked for at the computer itself. */
		keyHere: boolean;
		/** Addresses in the network; null while the yard is not shared. */
		shared: string[] | null;
		/** Told once, after somebody was invited. */
		invited?: { link: string; qr: string } | null | undefined;
		refused?: Refused | null | undefined;
	}
	let { who, owned, people, invitations, links, keyHere, shared, invited, refused }: Props = $props();
	const format = useFormat();
	let role = $state<Role>('helper');
	const owner = $derived(who.role === 'owner');
	const waiting = $derived(people.filter(({ waits }) => waits));
	const owners = $derived(people.filter((one) => one.role === 'owner' && !one.waits).length);
	const me = $derived(people.find((person) => person.id === who.id));
</script>

<svelte:head><title>People · Bruntle</title></svelte:head>

{#snippet hidden(id: string)}
	<input type="hidden" name="id" value={id} />
{/snippet}

<div class="page max-w-4xl pt-6 pb-16">
	<h1 class="text-3xl">People</h1>
	<p class="mt-1 max-w-3xl text-slate">
		Who works in this yard, and on which devices. Beside each entry of a journal stands who made it.
	</p>

	{#if !owned}
		<section aria-labelledby="own-title" class="mt-6 border-l-4 border-ochre py-1 pl-4">
			<h2 id="own-title" class="text-lg">Make yourself the owner</h2>
			<p class="mt-1 mb-4 max-w-2xl">
				Nobody owns this yard yet: whoever sits at this computer does everything, and nobody reaches it from
				elsewhere. With an owner it can be opened to phones and helpers in the same network.
			</p>
			{#if waiting.length > 0}
				<p class="mb-4 max-w-2xl">
					{waiting.map(({ name, role }) => `${name} (${roleNames[role]})`).join(', ')} came with an archive, without
					a passphrase: an owner takes their place under the same name here, a helper by an invitation.
				</p>
			{/if}
			<NewPersonForm action="?/makeOwner" button="Own this yard" {refused} />
		</section>
	{:else}
		<div class="mt-4"><Problem refused={refused ?? null} /></div>
		<ul class="mt-2 divide-y border-y">
			{#each people as person (person.id)}
				<li class="py-3">
					<div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
						<strong class="text-lg">{person.name}</strong>
						<span class="text-slate"
							>{roleNames[person.role]}, since {format().date(person.madeAt.slice(0, 10))}{person.id ===
							who.id
								? ': you, on this device'
								: ''}</span
						>
						{#if owner && (person.role !== 'owner' || person.waits || owners > 1)}
							<span class="ml-auto flex gap-2">
								<form method="POST" action="?/role" use:enhance={act()}>
									{@render hidden(person.id)}<input
										type="hidden"
										name="role"
										value={person.role === 'owner' ? 'helper' : 'owner'}
									/>
									<Button
										size="small"
										type="submit"
										aria-label="Make {person.name} {person.role === 'owner' ? 'a helper' : 'an owner'}"
										>Make {person.role === 'owner' ? 'a helper' : 'an owner'}</Button
									>
								</form>
								<form method="POST" action="?/remove" use:enhance={act()}>
									{@render hidden(person.id)}
									<Button size="small" tone="quiet" type="submit" aria-label="Take {person.name} out"
										>Take out</Button
									>
								</form>
							</span>
						{/if}
					</div>
					{#if person.waits}
						<p class="mt-1 text-sm">
							Came with an archive and has no passphrase here: invite {person.role === 'owner'
								? 'an owner'
								: 'a helper'}, and {person.name} takes the invitation up under this name.
						</p>
					{/if}
					<ul class="mt-1">
						{#each person.sessions as { id, device, lastAt } (id)}
							<li class="flex flex-wrap items-center gap-x-3 text-sm">
								<span>{device}, last used {format().instant(lastAt)}</span>
								<form method="POST" action="?/signOut" use:enhance={act()}>
									{@render hidden(id)}
									<Button
										size="small"
										tone="quiet"
										type="submit"
										aria-label="Sign {device} of {person.name} out">Sign out</Button
									>
								</form>
							</li>
						{:else}
							<li class="text-sm text-slate">Signed in on no device.</li>
						{/each}
					</ul>
				</li>
			{/each}
		</ul>

		{#if owner}
			<section aria-labelledby="invite-title" class="mt-8">
				<h2 id="invite-title" class="text-lg">Invite somebody</h2>
				{#if invited}
					<div class="mt-2 flex flex-wrap items-start gap-5 border-l-4 border-ochre py-1 pl-4" role="status">
						<img src={invited.qr} alt="QR code of the invitation" class="w-44" />
						<div class="min-w-0 flex-1 basis-64">
							<p class="font-semibold">For one person, for one day:</p>
							<p class="mt-1 font-mono text-sm break-all">{invited.link}</p>
							<p class="mt-1 text-sm text-slate">
								Have them scan it with the camera of their phone, or send the link by a way that nobody else
								reads. It is told this once.
							</p>
						</div>
					</div>
				{/if}
				<form method="POST" action="?/invite" use:enhance={act()} class="mt-3 flex flex-col gap-3">
					<Choice
						label="As"
						name="role"
						bind:value={role}
						options={roles.map((value) => ({ value, label: roleNames[value] }))}
					/>
					<p class="text-sm text-slate">{roleSentences[role]}</p>
					<div><Button type="submit" tone="solid">Make an invitation</Button></div>
				</form>
				{#if invitations.length > 0}
					<h3 class="mt-4 font-semibold">Not taken up yet</h3>
					<ul class="mt-1 divide-y border-y">
						{#each invitations as { id, role: invitedAs, untilAt } (id)}
							<li class="flex flex-wrap items-center gap-3 py-1.5 text-sm">
								<span>{roleNames[invitedAs]}, until {format().instant(untilAt)}</span>
								<form method="POST" action="?/uninvite" use:enhance={act()}>
									{@render hidden(id)}<Button size="small" tone="quiet" type="submit">Take back</Button>
								</form>
							</li>
						{/each}
					</ul>
				{/if}
			</section>

			<section aria-labelledby="links-title" class="mt-8">
				<h2 id="links-title" class="text-lg">Links to read by</h2>
				<p class="mt-1 text-sm text-slate">
					Made on the letter or the report of a tree: who has one reads that page as it stands, and nothing
					else.
				</p>
				<ul class="mt-2 divide-y border-y">
					{#each links as { id, treeId, tag, page, untilOn } (id)}
						<li class="flex flex-wrap items-center gap-3 py-1.5">
							<span
								><a class="chalk" href={resolve('/trees/[id]/recovery', { id: treeId })}>{tag}</a>, {sharedPageNames[
									page
								]}, until {format().date(untilOn)}</span
							>
							<form method="POST" action="?/unlink" use:enhance={act()}>
								{@render hidden(id)}<Button
									size="small"
									tone="quiet"
									type="submit"
									aria-label="Take the link to {tag} back">Take back</Button
								>
							</form>
						</li>
					{:else}
						<li class="py-2 text-slate">None.</li>
					{/each}
				</ul>
			</section>
		{/if}

		{#if me}
			<section aria-labelledby="pass-title" class="mt-8">
				<h2 id="pass-title" class="text-lg">Your passphrase</h2>
				<form
					method="POST"
					action="?/passphrase"
					use:enhance={act()}
					class="mt-2 flex max-w-lg flex-col gap-3"
					novalidate
				>
					<PassphraseField name="before" label="The one you have" fresh={false} {refused} />
					<PassphraseField name="passphrase" label="A new one" fresh {refused} />
					<div><Button type="submit">Change it</Button></div>
				</form>
			</section>
		{/if}
	{/if}

	{#if owner}
		<section aria-labelledby="reach-title" class="mt-8">
			<h2 id="reach-title" class="text-lg">From where it is reached</h2>
			{#if shared}
				<p class="mt-1">In this network, each with a key:</p>
				<ul class="mt-1 font-mono text-sm">
					{#each shared as address (address)}<li>{address}</li>{/each}
				</ul>
				<p class="mt-1">
					A phone that warns of the address does not know the yard yet:
					<a class="chalk" href={resolve('/key/certificate')}>its certificate, in three steps</a>.
				</p>
			{:else}
				<p class="mt-1 max-w-2xl">
					From this computer only. <code>./bruntle share</code> instead of <code>./bruntle start</code> opens it
					to phones and helpers in the same network, encrypted and with a key for each.
				</p>
			{/if}
			{#if owned}
				<form
					method="POST"
					action="?/keyHere"
					use:enhance={act()}
					class="mt-4 flex flex-wrap items-center gap-3"
				>
					<input type="hidden" name="asked" value={keyHere ? 'no' : 'yes'} />
					<p class="max-w-xl">
						{keyHere
							? 'At the computer itself a key is asked for as well.'
							: 'At the computer itself no key is asked for: whoever uses it, and every program on it, does everything an owner does.'}
					</p>
					<Button size="small" type="submit"
						>{keyHere ? 'Ask for none there' : 'Ask for one there too'}</Button
					>
				</form>
			{/if}
		</section>
	{/if}
</div>
