<!-- Computers at which whoever is on duty picks their name: trusted from there, ended from anywhere. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { computersQuery, sessionQuery, stopTrusting, trustComputer } from '../../api/people';
	import { day } from '../../domain/format';
	import { Asking } from '../../state/asking.svelte';
	import Part from './Part.svelte';

	const queries = useQueryClient();
	const computers = createQuery(() => computersQuery());
	const session = createQuery(() => sessionQuery());
	const asking = new Asking();
	let name = $state('');

	async function renew(): Promise<void> {
		await queries.invalidateQueries({ queryKey: computersQuery().queryKey });
		await queries.invalidateQueries({ queryKey: sessionQuery().queryKey });
	}

	async function trust(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await asking.ask(() => trustComputer(name.trim()))) name = '';
		await renew();
	}

	async function stop(id: string): Promise<void> {
		await asking.ask(() => stopTrusting(id));
		await renew();
	}
</script>

<Part
	heading="Trusted computers"
	words="At the booth's computer whoever is on duty picks their name, without a passphrase. Owners type theirs there too."
	refused={asking.refused}
>
	<ul class="lines">
		{#each computers.data ?? [] as computer (computer.id)}
			<li>
				<b>{computer.name}</b>
				<span class="quiet">trusted by {computer.trusted_by}, {day(computer.made_at)}</span>
				<button type="button" class="in-text" onclick={() => void stop(computer.id)}
					>Stop trusting<span class="sr-only"> {computer.name}</span></button
				>
			</li>
		{/each}
	</ul>
	{#if session.data?.here}
		<p>You are at <b>{session.data.here.name}</b>, a trusted computer.</p>
	{:else}
		<form class="in-a-row" onsubmit={(event) => void trust(event)} aria-label="Trust this computer">
			<label class="field">
				<span>This computer is called</span>
				<input
					required
					maxlength="120"
					pattern=".*\S.*"
					title="a name"
					placeholder="Booth"
					bind:value={name}
				/>
			</label>
			<button type="submit" class="btn preset-tonal" disabled={asking.busy}>Trust this computer</button>
		</form>
	{/if}
</Part>
