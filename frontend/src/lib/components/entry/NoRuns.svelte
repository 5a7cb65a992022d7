<!-- A rig without runs: how one is typed, by examples that can be taken up. -->
<script lang="ts">
	import { examples } from '../../domain/rigs';
	import { getDesk } from '../../state/desk.svelte';

	let { unit }: { unit: 'm' | 'ft' } = $props();
	const desk = getDesk();
</script>

<section class="none">
	<h2>No runs yet</h2>
	<p>
		Type one in the line above (press <kbd>/</kbd>): where the sound comes from, &gt;, where it goes, how far.
		Names are yours; the words a device is known by tell what it is, and the pieces are chosen for you.
	</p>
	<ul>
		{#each examples(unit) as one (one)}
			<li><button type="button" class="figure" onclick={() => (desk.suggested = one)}>{one}</button></li>
		{/each}
	</ul>
	<p class="quiet">
		A whole input list goes in at once under <i>Input list…</i>. What you own is told at
		<a href="#/kit">Kit</a>; until then leads count as ones to get.
	</p>
</section>

<style>
	.none {
		padding: 1.9rem 2rem;
		display: grid;
		gap: 0.9rem;
		max-width: 44rem;
	}
	h2 {
		font-size: 1.3rem;
	}
	ul {
		display: grid;
		gap: 0.4rem;
		justify-items: start;
	}
	button {
		border: 1px solid var(--line-strong);
		background: var(--panel);
		padding: 0.35rem 0.7rem;
		min-height: 2rem;
		text-align: left;
	}
	kbd {
		border: 1px solid var(--line-strong);
		padding: 0 0.35rem;
	}
	a {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	@media (max-width: 720px) {
		.none {
			padding: 1rem;
		}
	}
</style>
