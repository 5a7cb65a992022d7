<!-- How a rig stands in four counts, beside its name. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { rigQuery } from '../../api/queries';
	import { GRADES } from '../../domain/grades';
	import GradeMark from '../marks/GradeMark.svelte';

	let { rigId }: { rigId: string } = $props();
	const rig = createQuery(() => rigQuery(rigId));
	const verdict = $derived(rig.data?.analysis.verdict);
</script>

<span class="verdict" aria-live="polite">
	{#if verdict}
		{#each GRADES.filter((grade) => verdict[grade] > 0) as grade (grade)}
			<GradeMark {grade} words={`${verdict[grade]} ${grade}`} />
		{/each}
	{:else if !rig.isError}<span class="quiet">solving…</span>{/if}
</span>

<style>
	.verdict {
		display: inline-flex;
		gap: 0.9rem;
	}
</style>
