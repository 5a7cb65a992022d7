<!-- A figure that tells, when tapped, how it came about: formula, inputs, source. -->
<script lang="ts">
	import { Popover, Portal } from '@skeletonlabs/skeleton-svelte';
	import { createQuery } from '@tanstack/svelte-query';
	import { formulasQuery } from '../../api/queries';
	import { givens, typeset, type Scope } from '../../domain/formulas';

	interface Props {
		/** Its own path, as "levels.headroom_db". */
		of: string;
		scope: Scope;
		/** As it is shown. */
		text: string;
	}
	let { of, scope, text }: Props = $props();

	const query = createQuery(formulasQuery);
	const formula = $derived(query.data?.find((one) => one.figure === of));
	const inputs = $derived(formula ? givens(formula, scope) : null);
</script>

{#if formula && inputs}
	<Popover>
		<Popover.Trigger class="figure how" aria-label="{formula.name}: {text}. How it came about">
			{text}
		</Popover.Trigger>
		<Portal>
			<Popover.Positioner class="how-place">
				<Popover.Content class="how-box">
					<Popover.Title class="heading">{formula.name} {text}</Popover.Title>
					<p class="figure formula">{typeset(formula.expression)}</p>
					<dl>
						{#each inputs as one (one.symbol)}
							<dt class="figure">{one.symbol}</dt>
							<dd>{one.words}: <span class="figure">{one.value}</span></dd>
						{/each}
					</dl>
					<Popover.Description class="quiet">Source: {formula.source}</Popover.Description>
				</Popover.Content>
			</Popover.Positioner>
		</Portal>
	</Popover>
{:else}
	<span class="figure">{text}</span>
{/if}

<style>
	:global(.how) {
		color: inherit;
		border-bottom: 1px dotted var(--line-strong);
		white-space: nowrap;
	}
	:global(.how-place) {
		z-index: 40;
	}
	:global(.how-box) {
		background: var(--raised);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		box-shadow: var(--shadow);
		padding: 0.9rem 1.1rem;
		max-width: min(22rem, 92vw);
		font-size: 0.875rem;
		display: grid;
		gap: 0.5rem;
	}
	.formula {
		overflow-wrap: anywhere;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.2rem 0.8rem;
	}
	dt {
		color: var(--dim);
	}
</style>
