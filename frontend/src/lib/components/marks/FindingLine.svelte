<!-- A grade with the sentence it stands for, on one line. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import GradeMark from './GradeMark.svelte';

	let { finding }: { finding: Schemas['Finding'] } = $props();
</script>

<p class="finding"><GradeMark grade={finding.grade} /> <span>{finding.sentence}</span></p>

<style>
	.finding {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
		font-size: 0.875rem;
	}
</style>
