<!-- The rig's venue as the house's first or next revision, with what it is or what was changed. -->
<script lang="ts">
	interface Props {
		/** The number it would have; null where the house does not know the venue yet. */
		revision: number | null;
		busy: boolean;
		onsave: (words: string) => Promise<boolean>;
	}
	let { revision, busy, onsave }: Props = $props();

	let words = $state('');

	async function save(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await onsave(words.trim())) words = '';
	}
</script>

<form class="in-a-row" onsubmit={(event) => void save(event)} aria-label="Save the venue for the house">
	<label class="field">
		<span>{revision === null ? 'What it is' : 'What was changed'}</span>
		<input
			required
			maxlength="120"
			pattern=".*\S.*"
			title="a few words"
			placeholder={revision === null ? 'as found on the first visit' : 'outlet 5 measured'}
			bind:value={words}
		/>
	</label>
	<button type="submit" class="btn preset-tonal" disabled={busy}
		>{revision === null ? 'Save for the house' : `Save as revision ${revision}`}</button
	>
</form>
