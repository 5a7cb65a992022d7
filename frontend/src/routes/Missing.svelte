<script lang="ts">
	const home = '#/';
</script>

<section class="missing">
	<h2>There is nothing at this address</h2>
	<p><a href={home}>Go to the runs</a></p>
</section>

<style>
	.missing {
		padding: 2rem;
	}
</style>
