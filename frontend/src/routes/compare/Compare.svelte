<!-- Two rigs beside each other: runs, devices, settings, and the findings that came and went. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { router } from 'svelte-spa-router';
	import { compareQuery, occasionsQuery } from '../../lib/api/house';
	import { rigQuery, rigsQuery } from '../../lib/api/queries';
	import FindingLine from '../../lib/components/marks/FindingLine.svelte';
	import Tape from '../../lib/components/marks/Tape.svelte';
	import Strip from '../../lib/components/strip/Strip.svelte';
	import { addressOf, placeOf } from '../../lib/domain/address';
	import { dayOf } from '../../lib/domain/occasions';
	import { getDesk } from '../../lib/state/desk.svelte';
	import { drawnRun } from '../../lib/domain/drawn-run';

	const desk = getDesk();
	const [before, after] = placeOf(router.location)?.pair ?? ['', ''];
	const comparison = createQuery(() => compareQuery(before, after));
	const rig = createQuery(() => rigQuery(after));
	const unit = $derived(rig.data?.rig.length_unit ?? 'm');
	const rigs = createQuery(() => rigsQuery());
	const occasions = createQuery(() => ({ ...occasionsQuery(), enabled: !desk.byLink }));
	let opened = $state<string | null | undefined>(undefined);

	/** The day of a rig's occasion, which tells two of one name apart. */
	function dated(id: string): string {
		const date = rigs.data?.find((entry) => entry.id === id)?.date;
		const occasion = occasions.data?.find((entry) => entry.id === date);
		return occasion ? `, ${dayOf(occasion.starts_at)}` : '';
	}

	const counted = (count: number, single: string, several: string): string =>
		`${count} ${count === 1 ? single : several}`;
	const WHAT = { added: 'new', removed: 'gone', changed: 'changed' } as const;
</script>

<svelte:head><title>Compare · Ruvak</title></svelte:head>

<section class="view">
	{#if comparison.isError}
		<p>The two rigs could not be compared. {comparison.error.message}</p>
	{:else if !comparison.data}
		<p class="quiet">Solving both rigs…</p>
	{:else}
		{@const data = comparison.data}
		{@const came = data.runs.flatMap((run) => run.came)}
		{@const went = data.runs.flatMap((run) => run.went)}
		<header>
			<h2>
				<a href="#{addressOf({ station: 'runs', rig: before, run: null })}">{data.before}{dated(before)}</a>
				<span class="quiet">and now</span>
				<a href="#{addressOf({ station: 'runs', rig: after, run: null })}">{data.after}{dated(after)}</a>
			</h2>
			<p class="sum">
				{#if data.runs.length + data.gear.length === 0}
					Nothing differs: {counted(data.same_runs, 'run is', 'runs are')} the same.
				{:else}
					{counted(data.runs.length + data.more_runs, 'run differs', 'runs differ')}, {data.same_runs} the same;
					{counted(data.gear.length, 'device differs', 'devices differ')}; {counted(
						came.length,
						'finding',
						'findings'
					)} came, {went.length} went.
				{/if}
			</p>
		</header>
		{#if data.runs.length > 0}
			<section aria-label="Runs">
				<h3 class="heading">Runs</h3>
				<ul>
					{#each data.runs as run, index (`${run.before_id} ${run.after_id}`)}
						{@const key = `${run.before_id} ${run.after_id}`}
						{@const isOpen = opened === key || (opened === undefined && run === data.runs[0])}
						<li>
							<button
								type="button"
								class="line"
								aria-expanded={isOpen}
								onclick={() => (opened = isOpen ? null : key)}
							>
								<span class="figure">{run.number}</span>
								<Tape name={run.change.name} size="small" />
								<span class="words">{run.words.join('; ') || 'plugged the same'}</span>
							</button>
							<div class="findings">
								{#each run.went as finding (finding.sentence)}
									<p><b class="went">went</b> <FindingLine {finding} /></p>
								{/each}
								{#each run.came as finding (finding.sentence)}
									<p><b class="came">came</b> <FindingLine {finding} /></p>
								{/each}
							</div>
							{#if isOpen}
								<div class="pair">
									{#each [{ title: data.before, then: run.change.before }, { title: data.after, then: run.change.after }] as side, place (place)}
										<div class="side">
											<h4>
												{place === 0 ? 'Before' : 'Now'}: {side.title}{dated(place === 0 ? before : after)}
											</h4>
											{#if side.then}
												<Strip
													run={drawnRun(`compared-${place}-${index}`, side.then.drawing, side.then.finding)}
													{unit}
												/>
											{:else}<p class="quiet">Not there.</p>{/if}
										</div>
									{/each}
								</div>
							{/if}
						</li>
					{/each}
				</ul>
				{#if data.more_runs > 0}<p class="quiet">And {data.more_runs} more runs.</p>{/if}
			</section>
		{/if}
		{#if data.gear.length > 0}
			<section aria-label="Devices">
				<h3 class="heading">Devices</h3>
				<ul>
					{#each data.gear as device (`${device.what} ${device.name}`)}
						<li class="device">
							<Tape name={device.name} size="small" />
							<b>{WHAT[device.what]}</b>
							<span>{device.words.join('; ')}</span>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
	{/if}
</section>

<style>
	h2 a {
		text-decoration: underline;
		text-underline-offset: 4px;
	}
	h4 {
		font-size: 0.8125rem;
		color: var(--dim);
	}
	li {
		border-bottom: 1px solid var(--line);
		padding: 0.3rem 0;
	}
	.line {
		display: grid;
		grid-template-columns: 2.2rem auto minmax(0, 1fr);
		gap: 0.8rem;
		align-items: center;
		width: 100%;
		min-height: 2rem;
		text-align: left;
	}
	.line .figure {
		text-align: right;
	}
	.line:hover {
		background: var(--panel);
	}
	.findings {
		padding-left: 3rem;
		font-size: 0.875rem;
	}
	.findings p {
		display: flex;
		gap: 0.7rem;
		align-items: baseline;
	}
	.went {
		color: var(--clear);
	}
	.came {
		color: var(--fix);
	}
	.pair {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
		gap: 0.8rem 1.5rem;
		padding: 0.6rem 0;
		min-width: 0;
	}
	.side {
		min-width: 0;
		border-top: 1px solid var(--line-strong);
		padding-top: 0.4rem;
	}
	.device {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1rem;
		align-items: baseline;
		font-size: 0.875rem;
	}
	@media (max-width: 720px) {
		.findings {
			padding-left: 0;
		}
	}
</style>
