/** A lead on the tester: what was read so far, what that says, and which explanation it turned out to be. */
import { askTester, readBench, saveTest, type Tested } from '../api/lead-tests';
import { toggled, type LeadOnBench, type Reading } from '../domain/lead-bench';
import { newId } from '../domain/ids';
import { nowAsText } from '../domain/format';
import { Asking } from './asking.svelte';

type Place = 'near' | 'middle' | 'far';

export class LeadBench {
	text = $state('');
	readings = $state.raw<Reading[]>([]);
	bench = $state.raw<LeadOnBench | null>(null);
	chosen = $state<number | null>(null);
	saved = $state(false);
	readonly asking = new Asking();
	#movedAt: Place | null = null;
	#asked = 0;

	constructor(private readonly of: Tested) {}

	/** What the readings say; an answer that comes later than a newer one is left out. */
	async look(): Promise<void> {
		const asked = (this.#asked += 1);
		const body = { text: this.text, readings: this.readings, moved_at: this.#movedAt };
		const answered = await this.asking.ask(() => readBench(this.of, body));
		if (asked === this.#asked) this.#take(answered?.result ?? null);
	}

	async type(text: string): Promise<void> {
		this.text = text;
		this.saved = false;
		await this.look();
	}

	async tap(a: string, b: string): Promise<void> {
		this.readings = toggled(this.readings, a, b);
		this.saved = false;
		await this.look();
	}

	async ask(movedAt: Place | null): Promise<void> {
		const answered = await this.asking.ask(() => askTester(this.of, movedAt, this.readings));
		if (!answered) return;
		this.readings = answered.result.test.readings;
		if (this.readings.some(({ state }) => state === 'flickers')) this.#movedAt ??= movedAt;
		this.text = '';
		this.saved = false;
		this.#take(answered.result);
	}

	async save(words: string, number: number | null): Promise<boolean> {
		const { text, readings, chosen } = this;
		const test = {
			id: newId(),
			at: nowAsText(),
			text,
			readings,
			moved_at: this.#movedAt,
			chosen,
			number,
			words
		};
		const answered = await this.asking.ask(() => saveTest(this.of, test));
		if (!answered) return false;
		this.clear();
		this.bench = answered.result;
		this.saved = true;
		return true;
	}

	clear(): void {
		this.text = '';
		this.readings = [];
		this.chosen = null;
		this.#movedAt = null;
	}

	/** What was tapped stays as it is; what is typed is shown beside it, and neither is doubled. */
	#take(bench: LeadOnBench | null): void {
		if (bench === null) return;
		this.bench = bench;
		if (this.chosen !== null && this.chosen >= bench.diagnosis.explanations.length) this.chosen = null;
	}
}
