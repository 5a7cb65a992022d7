/** Which card of a check is on screen, and what keeps it there. */

/** A card that came by itself takes no tap so long: the finger may be on its way to the card before, or tap twice. */
const STEADY_AFTER_MS = 300;

export class CheckPlace {
	item = $state<string | null>(null);
	/** Whether the card has been there long enough to be answered. */
	steady = $state(true);
	/** Whether something is being said of what is wrong: then the card stays. */
	writing = $state(false);
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** `first`: what the address names. */
	constructor(first: string | null) {
		this.item = first;
	}

	/** Because this one is answered, or somebody else is at another now. */
	moveTo(item: string): void {
		if (item === this.item) return;
		this.item = item;
		this.rest();
	}

	/** Whether a tap counts now; after one that does, none counts for a moment. */
	takesTap(): boolean {
		if (!this.steady) return false;
		this.rest();
		return true;
	}

	private rest(): void {
		this.steady = false;
		clearTimeout(this.timer);
		this.timer = setTimeout(() => (this.steady = true), STEADY_AFTER_MS);
	}
}
