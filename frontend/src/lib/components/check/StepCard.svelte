<!-- A step of the check beside the runs: what to do, and why. -->
<script lang="ts">
	import type { RoundStep } from '../../domain/check';

	let { step }: { step: RoundStep } = $props();
</script>

<p class="words">{step.words}</p>
<p class="quiet">{step.why}</p>

<style>
	.words {
		font-size: 1.1rem;
		line-height: 1.5;
	}
</style>
