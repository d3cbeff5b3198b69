<script lang="ts">
	import { resolve } from '$app/paths';
	import Button from '$ui/Button.svelte';

	/** How a phone comes to trust this yard, what that is for, and how to get rid of it. */
	interface Props {
		/** SHA-256 of the authority, as phones show it; null while the yard is not shared. */
		fingerprint: string | null;
		addresses: string[];
	}
	let { fingerprint, addresses }: Props = $props();
</script>

<svelte:head><title>The yard’s certificate · Bruntle</title></svelte:head>

<div class="page max-w-2xl pt-8 pb-16">
	<h1 class="text-3xl">The yard’s certificate</h1>
	{#if fingerprint === null}
		<p class="mt-3 text-lg">
			This yard is not shared, and needs none. It has one once it was opened to its network with
			<code>./bruntle share</code>.
		</p>
	{:else}
		<p class="mt-3 text-slate">
			Between this yard and a phone everything is encrypted. No public authority knows a computer in a shed,
			so the yard vouches for itself: a phone that has its certificate knows it is speaking with this yard and
			nobody in between. Without it the phone warns each time.
		</p>
		<ol class="mt-5 flex list-decimal flex-col gap-4 pl-6">
			<li>
				<p class="font-semibold">Take the certificate on the phone.</p>
				<p class="mt-1">
					<Button href={resolve('/key/certificate/file')} data-sveltekit-reload tone="solid"
						>Take the certificate</Button
					>
				</p>
			</li>
			<li>
				<p class="font-semibold">Have the phone trust it.</p>
				<p class="mt-1">
					iPhone and iPad: Settings, Profile downloaded, Install; then General, About, Certificate Trust
					Settings, and switch it on. Android: Settings, Security, Encryption and credentials, Install a
					certificate, CA certificate. Compare what the phone shows as SHA-256 with this:
				</p>
				<p class="mt-1 font-mono text-sm break-all">{fingerprint}</p>
			</li>
			<li>
				<p class="font-semibold">Open the yard.</p>
				<ul class="mt-1">
					{#each addresses as address (address)}
						<!-- eslint-disable svelte/no-navigation-without-resolve -- another name of this server -->
						<li><a class="chalk" href={address}>{address}</a></li>
					{/each}
				</ul>
			</li>
		</ol>
		<h2 class="mt-8 text-lg">To get rid of it</h2>
		<p class="mt-1">
			iPhone and iPad: Settings, General, VPN and Device Management, the profile, Remove. Android: Settings,
			Security, Trusted credentials, User, the certificate, Remove. On the computer: delete the folder
			<code>share</code> beside the database; the next start makes another, and phones take that.
		</p>
		<p class="mt-3 text-slate">
			Whoever holds the key in that folder could pass for any site on a phone that trusts it. It can be read
			by the user of this computer only; give it to nobody.
		</p>
	{/if}
</div>
