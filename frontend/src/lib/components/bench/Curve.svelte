<!-- Level against frequency; a log axis, drawn by uPlot. -->
<script lang="ts">
	import uPlot from 'uplot';
	import 'uplot/dist/uPlot.min.css';
	import type { Schemas } from '../../api/client';
	import { db, hertz, number } from '../../domain/format';
	import { cornerWords } from '../../domain/response';
	import { theme } from '../../state/theme.svelte';

	const DECADES = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];
	const WORDED = [20, 100, 1000, 10_000];
	/** Every 3 dB, or every 12 where the curve falls far. */
	const steps = (low: number, high: number): number[] => {
		const step = high - low > 24 ? 12 : 3;
		return Array.from({ length: Math.floor((high - low) / step) + 1 }, (_, index) => high - step * index);
	};

	interface Props {
		response: Schemas['Response'];
		after?: Schemas['Response'] | null;
	}
	let { response, after = null }: Props = $props();

	let width = $state(320);
	let host: HTMLDivElement | undefined = $state();
	const words = $derived(
		`Response of ${response.of}: ${db(response.loss_10k_db)} lost at 10 kHz, ${db(response.loss_20k_db)} at 20 kHz` +
			cornerWords(response)
	);

	const ink = (name: string): string =>
		getComputedStyle(document.documentElement).getPropertyValue(name).trim();

	$effect(() => {
		if (!host) return;
		void theme.current;
		const lowest = Math.min(-6, ...response.level_db, ...(after?.level_db ?? []));
		const axis = { stroke: ink('--dim'), grid: { stroke: ink('--line'), width: 1 }, ticks: { show: false } };
		const series: uPlot.Series[] = [{}, { stroke: ink('--ink'), width: 2 }];
		const data: uPlot.AlignedData = [response.frequencies_hz, response.level_db];
		if (after) {
			series.push({ stroke: ink('--accent'), width: 2, dash: [6, 4] });
			data.push(after.level_db);
		}
		const plot = new uPlot(
			{
				width: Math.max(200, width),
				height: 118,
				legend: { show: false },
				cursor: { show: false },
				scales: {
					x: { distr: 3, time: false, range: [20, 20_000] },
					y: { range: [Math.floor(lowest / 3) * 3, 3] }
				},
				axes: [
					{
						...axis,
						size: 24,
						splits: () => DECADES,
						values: (_, ticks) =>
							ticks.map((tick) => (WORDED.includes(tick) ? hertz(tick).replace('.0', '') : ''))
					},
					{
						...axis,
						size: 40,
						splits: (_, __, low, high) => steps(low, high),
						values: (_, ticks) => ticks.map((tick) => number(tick, 0))
					}
				],
				series
			},
			data,
			host
		);
		return () => plot.destroy();
	});
</script>

<figure>
	<figcaption class="heading">Response, dB relative to 1 kHz</figcaption>
	<div bind:clientWidth={width} bind:this={host} role="img" aria-label={words}></div>
	<p class="quiet note">{words}.</p>
</figure>

<style>
	.note {
		font-size: 0.8rem;
	}
</style>
