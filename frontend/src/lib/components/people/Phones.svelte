<!-- For a phone that comes for the first time: the house's own certificate, step by step, and why it cannot be reached. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import Door from './Door.svelte';

	const AUTHORITY = '/house-authority.crt';
	const secure = location.protocol === 'https:';
	let offered = $state<boolean | null>(null);

	onMount(async () => {
		offered = (await fetch(AUTHORITY, { method: 'HEAD' }).catch(() => null))?.ok ?? false;
	});
</script>

<Door heading="Phones and tablets">
	{#if offered === false}
		<p>
			{secure
				? 'This server has a certificate from outside: nothing needs to be installed. Sign in, or open the link you were given.'
				: 'This server is for this computer alone. Started with script/demo --lan it serves phones too, by HTTPS.'}
		</p>
	{:else if offered}
		<p>
			This server made its certificate itself, so a phone asks whether to trust it. For a look, going on is
			enough. For good, and to work while the network is down, install the house’s own authority:
		</p>
		<p><a class="btn go" href={AUTHORITY} download>Get the house’s authority</a></p>
		<h2>A phone or tablet whose settings are called “Settings, General”</h2>
		<ol>
			<li>Get the authority and allow the profile to be downloaded.</li>
			<li>Settings, General, VPN and device management: install the profile.</li>
			<li>Settings, General, About, Certificate trust settings: switch it on.</li>
		</ol>
		<h2>Other phones and tablets</h2>
		<ol>
			<li>Get the authority.</li>
			<li>Settings, Security, Encryption and credentials, Install a certificate, CA certificate.</li>
			<li>Choose the downloaded file, and say that you want it.</li>
		</ol>
		<p class="quiet">
			Only install it on a phone of this house, and only from this address: whoever holds its key could
			pretend to be any server to that phone. It can be removed in the same place.
		</p>
	{/if}
	<h2>When the phone cannot reach the server at all</h2>
	<ul>
		<li>Is it in the same network as this server, and not on mobile data?</li>
		<li>
			Guest networks keep devices apart: if another computer in the same guest network cannot reach it either,
			though the address is right, ask for the house’s own network.
		</li>
		<li>If computers can reach it and the phone cannot, compare the address letter by letter, with https.</li>
	</ul>
	<p><a href="#/">Go on to the sign-in</a></p>
</Door>

<style>
	h2 {
		font-size: 1rem;
	}
	ol,
	ul {
		padding-left: 1.2rem;
		display: grid;
		gap: 0.3rem;
	}
	ol {
		list-style: decimal;
	}
	ul {
		list-style: disc;
	}
	a:not(.btn) {
		text-decoration: underline;
	}
</style>
