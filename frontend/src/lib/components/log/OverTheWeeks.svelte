<!-- What the log says over the weeks: what fails again, measured hum beside computed, how long each check took. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { CalendarDays } from '@lucide/svelte';
	import { checksCalendar, weeksQuery } from '../../api/log';
	import { day, signed } from '../../domain/format';
	import { dayWords, drawCurve, lineOf } from '../../domain/trends';
	import Tape from '../marks/Tape.svelte';

	let { rig }: { rig: string | null } = $props();
	const WIDTH = 220;
	const HEIGHT = 56;
	const MOST = 6;
	const weeks = createQuery(() => weeksQuery(rig));
	const found = $derived(weeks.data);
	const isEmpty = $derived(
		!found || (found.days.length === 0 && found.hum.length === 0 && found.again.length === 0)
	);
</script>

{#if found && !isEmpty}
	<details class="weeks">
		<summary
			>Over the weeks{found.again.length > 0
				? `: ${found.again.map(({ name }) => name).join(', ')} ${found.again.length === 1 ? 'fails' : 'fail'} again`
				: ''}</summary
		>
		<div class="parts">
			{#if found.again.length > 0}
				<section aria-label="Fails again">
					<h3>Fails again</h3>
					<ul>
						{#each found.again as thing (thing.name)}
							<li>
								<b>{thing.name}</b>
								{thing.days.length} days, the last {thing.days[0]}: {thing.words}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
			{#if found.hum.length > 0}
				<section aria-label="Hum over the weeks">
					<h3>Hum, measured and computed</h3>
					<ul class="curves">
						{#each found.hum.slice(0, MOST) as curve (curve.run_name)}
							{@const drawn = drawCurve(curve.points, WIDTH, HEIGHT)}
							{@const last = curve.points.at(-1)}
							<li>
								<Tape name={curve.run_name} size="small" />
								<svg
									viewBox="-6 -6 {WIDTH + 12} {HEIGHT + 12}"
									width={WIDTH + 12}
									height={HEIGHT + 12}
									role="img"
									aria-label="Hum of {curve.run_name}: {curve.points
										.map(({ value_dbu }) => `${signed(value_dbu)} dBu`)
										.join(', ')}"
								>
									<path class="computed" d={lineOf(drawn.computed)} />
									<path class="measured" d={lineOf(drawn.measured)} />
									{#each drawn.measured as { x, y, point } (point.at)}
										<circle cx={x} cy={y} r="3.5"><title>{signed(point.value_dbu)} dBu</title></circle>
									{/each}
								</svg>
								{#if last}
									<span class="figure"
										>{signed(last.value_dbu)} dBu{last.predicted_dbu === null
											? ''
											: `, computed ${signed(last.predicted_dbu)}`}</span
									>
								{/if}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
			<section aria-label="Checks">
				<h3>Checks</h3>
				<ul>
					{#each found.days.slice(0, MOST) as each (`${each.rig} ${each.began_at}`)}
						<li><b>{day(each.began_at)}</b> {each.rig_name}: {dayWords(each)}</li>
					{/each}
				</ul>
				<a class="btn preset-tonal" href={checksCalendar(rig)} download
					><CalendarDays size={16} aria-hidden="true" /> Checks as a calendar</a
				>
			</section>
		</div>
	</details>
{/if}

<style>
	summary {
		cursor: pointer;
		min-height: 2rem;
		font-weight: 600;
	}
	.parts {
		display: grid;
		gap: 1rem;
		padding: 0.6rem 0 0.4rem;
	}
	h3 {
		font-size: 1rem;
	}
	ul {
		list-style: none;
		display: grid;
		gap: 0.3rem;
		padding-bottom: 0.5rem;
	}
	.curves li {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.9rem;
		align-items: center;
	}
	path {
		fill: none;
	}
	.measured {
		stroke: var(--accent);
		stroke-width: 2;
	}
	.computed {
		stroke: var(--dim);
		stroke-width: 1.5;
		stroke-dasharray: 4 3;
	}
	circle {
		fill: var(--accent);
	}
</style>
