<!-- What the house has by the words that were typed: rigs, runs, devices, leads, dates, notes, findings. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { findQuery } from '../../api/house';
	import { KINDS, leadsTo, looksFor, type Match } from '../../domain/found';
	import { dayOf } from '../../domain/occasions';

	import { getDesk } from '../../state/desk.svelte';

	interface Props {
		text: string;
		/** Where the first match leads; null without one. */
		first: string | null;
		onjump: () => void;
	}
	let { text, first = $bindable(), onjump }: Props = $props();
	const desk = getDesk();
	const PAUSE_MS = 180;
	const MOST = 6;

	let asked = $state('');
	$effect(() => {
		const wanted = looksFor(text) ? text.trim() : '';
		const timer = setTimeout(() => (asked = wanted), PAUSE_MS);
		return () => clearTimeout(timer);
	});
	const found = createQuery(() => ({ ...findQuery(asked), enabled: asked !== '' && !desk.byLink }));
	const matches = $derived(asked !== '' && looksFor(text) ? (found.data ?? []).slice(0, MOST) : []);
	const where = ({ kind, rig_name, starts_at }: Match): string =>
		[kind === 'rig' ? '' : (rig_name ?? ''), starts_at ? dayOf(starts_at) : ''].filter(Boolean).join(', ');
	$effect(() => {
		first = matches[0] ? leadsTo(matches[0]) : null;
	});
</script>

{#if matches.length > 0}
	<ul aria-label="Found">
		{#each matches as match, index (`${match.kind} ${match.rig} ${match.thing} ${match.words}`)}
			<li>
				<a href="#{leadsTo(match)}" tabindex="-1" onclick={onjump}>
					<span class="kind">{KINDS[match.kind]}</span>
					<span class="words">{match.words}</span>
					<span class="quiet">{where(match)}</span>
					{#if index === 0}<kbd>Enter</kbd>{/if}
				</a>
			</li>
		{/each}
	</ul>
{/if}

<style>
	ul {
		border-bottom: 1px solid var(--line);
	}
	a {
		display: grid;
		grid-template-columns: 5rem minmax(0, 1fr) auto auto;
		gap: 0.8rem;
		align-items: baseline;
		padding: 0.35rem 1rem;
		min-height: 2rem;
		text-decoration: none;
	}
	a:hover {
		background: var(--panel);
	}
	.kind {
		color: var(--dim);
		font-size: 0.8125rem;
	}
	.words {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.quiet {
		font-size: 0.8125rem;
	}
	kbd {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.75rem;
		color: var(--dim);
	}
</style>
