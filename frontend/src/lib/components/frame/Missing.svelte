<!-- An address that names nothing: no such view, or a rig that was deleted, renamed elsewhere or never here. -->
<script lang="ts">
	let { rig = null }: { rig?: string | null } = $props();
</script>

<section class="missing">
	{#if rig === null}
		<h2>There is nothing at this address</h2>
		<p><a href="#/">Go to the runs</a></p>
	{:else}
		<h2>There is no rig “{rig}” here</h2>
		<p>It may have been deleted, or the address is of another computer’s rig.</p>
		<p><a href="#/rigs">See the rigs there are</a></p>
	{/if}
</section>

<style>
	.missing {
		padding: 2rem;
		display: grid;
		gap: 0.5rem;
	}
	a {
		text-decoration: underline;
	}
</style>
