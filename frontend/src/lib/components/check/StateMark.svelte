<!-- Where a run's check stands, told by shape and not by colour alone. -->
<script lang="ts">
	import { Check, CircleDashed, RotateCw, SkipForward, X } from '@lucide/svelte';
	import type { State } from '../../domain/check';

	let { state, size = 18 }: { state: State; size?: number } = $props();
	const SIGNS = {
		open: CircleDashed,
		good: Check,
		wrong: X,
		skipped: SkipForward,
		changed: RotateCw
	} as const;
	const Sign = $derived(SIGNS[state]);
</script>

<span class={state}><Sign {size} aria-hidden="true" /></span>

<style>
	span {
		display: inline-flex;
		color: var(--dim);
	}
	.good {
		color: var(--clear);
	}
	.wrong {
		color: var(--stop);
	}
	.changed {
		color: var(--fix);
	}
</style>
