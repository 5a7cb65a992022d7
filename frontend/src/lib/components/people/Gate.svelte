<!-- Who is here comes first: a link is exchanged, nobody signed in sees the sign-in, everybody else the house. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { onMount, type Snippet } from 'svelte';
	import { replace, router } from 'svelte-spa-router';
	import { onSignedOut, Trouble, type Schemas } from '../../api/client';
	import { openLink, sessionQuery } from '../../api/people';
	import { addressOf, placeOf } from '../../domain/address';
	import type { Alone } from './alone';
	import { goesOnAlone, type Station } from '../../domain/stations';
	import { linkToken } from '../../domain/people';
	import { getDesk } from '../../state/desk.svelte';
	import { Signing } from '../../state/signing.svelte';
	import ChoosePassphrase from './ChoosePassphrase.svelte';
	import Door from './Door.svelte';
	import Phones from './Phones.svelte';
	import SignIn from './SignIn.svelte';

	/** `away`: what goes on without an answer from the server. */
	let { children, away }: { children: Snippet; away: Snippet<[Alone]> } = $props();
	const desk = getDesk();
	const queries = useQueryClient();
	const signing = new Signing(queries);
	const session = createQuery(() => sessionQuery());

	const carriedHere = linkToken(location.hash);
	let token = $state(carriedHere);
	const PHONES = '#/phones';
	let atPhones = $state(location.hash === PHONES);
	const at = $derived(placeOf(router.location)?.station);
	let opening = $state(carriedHere !== null);
	let opened = $state<Schemas['OpenedLink'] | null>(null);
	let refused = $state<string | null>(null);

	// A query that asks again after a failure counts as one that never asked.
	let noAnswer = $state.raw<Error | null>(null);
	/** What goes on alone stays until somebody leaves it: put anew under a finger, a tap would meet another card. */
	let alone = $state(false);
	$effect.pre(() => {
		if (session.data) noAnswer = null;
		else if (session.error) noAnswer = session.error;
		alone = goesOnAlone(at) && (alone || noAnswer !== null);
	});

	onSignedOut(() => void queries.invalidateQueries({ queryKey: sessionQuery().queryKey }));
	// Before anything is drawn: what is drawn asks who is here.
	$effect.pre(() => {
		desk.rights = session.data?.rights ?? [];
		desk.byLink = session.data?.rig != null;
		desk.person = session.data?.person_id ?? null;
	});

	// What opens a rig must not stay in the history, where the next person at this browser would find it.
	async function exchange(carried: string): Promise<void> {
		history.replaceState(history.state, '', '#/');
		await replace('/');
		opening = true;
		refused = null;
		try {
			opened = await openLink(carried);
			if (opened.gives !== 'passphrase') {
				await signing.renew();
				await replace(addressOf({ station: firstStation(opened.gives), rig: opened.rig, run: null }));
				token = null;
			}
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refused = reason.message;
		}
		opening = false;
	}
	onMount(() => {
		if (carriedHere !== null) void exchange(carriedHere);
	});

	/** Whoever scans a code on stage to record something wants the check. */
	const firstStation = (gives: Schemas['OpenedLink']['gives']): Station =>
		gives === 'record' && matchMedia('(max-width: 720px)').matches ? 'check' : 'runs';

	function follow(): void {
		atPhones = location.hash === PHONES;
		const carried = linkToken(location.hash);
		if (carried === null) return;
		token = carried;
		void exchange(carried);
	}

	function leaveLink(): void {
		token = opened = refused = null;
	}
</script>

<svelte:window onhashchange={follow} />

{#if atPhones}
	<Phones />
{:else if opening}
	<Door heading="Opening the link…" />
{:else if refused !== null}
	<Door heading="This link does not open">
		<p role="alert">{refused}</p>
		<button type="button" class="btn preset-tonal" onclick={leaveLink}>Go on without it</button>
	</Door>
{:else if token !== null && opened?.gives === 'passphrase'}
	<ChoosePassphrase name={opened.name} {token} {signing} onchosen={leaveLink} />
{:else if alone && goesOnAlone(at)}
	{@render away({
		station: at,
		isBack: session.data !== undefined,
		onask: () => void session.refetch(),
		onleave: () => (alone = false)
	})}
{:else if noAnswer}
	<Door heading="No answer from the server">
		<p>{noAnswer.message}</p>
		<button type="button" class="btn go" onclick={() => void session.refetch()}>Try again</button>
	</Door>
{:else if session.data?.role === null}
	<SignIn session={session.data} {signing} />
{:else if session.data}
	{#key session.data.person_id}{@render children()}{/key}
{/if}
