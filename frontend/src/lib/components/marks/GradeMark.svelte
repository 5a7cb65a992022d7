<script lang="ts">
	import { GRADE_WORDS, type Grade } from '../../domain/grades';

	interface Props {
		grade: Grade;
		/** Instead of the grade's word, or nothing beside the shape. */
		words?: string;
		size?: number;
	}
	let { grade, words = GRADE_WORDS[grade], size = 16 }: Props = $props();
</script>

<span class="grade-mark {grade}">
	<svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
		{#if grade === 'stop'}
			<path d="M5 1h6l4 4v6l-4 4H5l-4-4V5z" />
		{:else if grade === 'fix'}
			<path d="M8 1.5 15 14.5H1z" />
		{:else if grade === 'watch'}
			<path d="M1 9a7 7 0 0 1 14 0zM1 11h14v2.5H1z" />
		{:else}
			<path d="M2 8.5 6.2 13 14 3.5" fill="none" stroke="currentColor" stroke-width="3" />
		{/if}
	</svg>
	{#if words}<span>{words}</span>{/if}
</span>

<style>
	.grade-mark {
		display: inline-flex;
		align-items: center;
		gap: 0.4em;
		font-family: 'Saira Variable', sans-serif;
		font-stretch: 85%;
		font-weight: 650;
		white-space: nowrap;
	}
	svg {
		fill: currentColor;
		flex: none;
	}
	.stop {
		color: var(--stop);
	}
	.fix {
		color: var(--fix);
	}
	.watch {
		color: var(--watch);
	}
	.clear {
		color: var(--clear);
	}
</style>
