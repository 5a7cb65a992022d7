<!-- A passphrase being chosen: it can be seen while it is typed, which is safer than typing it twice. -->
<script lang="ts">
	let { value = $bindable('') }: { value: string } = $props();

	const SHORTEST = 12;
	const id = $props.id();
	let shown = $state(false);
	const missing = $derived(SHORTEST - [...value].length);
</script>

<div class="new">
	<label class="field" for={id}>
		<span>New passphrase</span>
		<input
			{id}
			required
			type={shown ? 'text' : 'password'}
			minlength={SHORTEST}
			maxlength="128"
			autocomplete="new-password"
			aria-describedby="{id}-how"
			bind:value
		/>
	</label>
	<label class="show"><input type="checkbox" bind:checked={shown} /> Show it</label>
	<p id="{id}-how" class="quiet">
		{value !== '' && missing > 0
			? `${missing} more ${missing === 1 ? 'letter' : 'letters'}.`
			: 'Four or five words that do not belong together.'}
	</p>
</div>

<style>
	.new {
		display: grid;
		gap: 0.4rem;
		width: 100%;
	}
	.field input {
		width: 100%;
	}
	.show {
		display: inline-flex;
		gap: 0.5rem;
		align-items: center;
		font-size: 0.875rem;
		min-height: 1.5rem;
	}
	p {
		font-size: 0.8125rem;
	}
</style>
