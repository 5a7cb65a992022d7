/** Scrolls a list so that an item is seen: whole where it fits, else from its top. */
function scrollToSee(item: HTMLElement, list: HTMLElement): void {
	const [its, own] = [item.getBoundingClientRect(), list.getBoundingClientRect()];
	const [above, below] = [its.top - own.top, its.bottom - own.bottom];
	if (above < 0) list.scrollTop += above;
	else if (below > 0) list.scrollTop += Math.min(above, below);
}

/** While an opened item and those above it still get their sizes; in milliseconds after it was asked for. */
const SETTLING_MS = [0, 60, 160, 400, 900, 1600, 2500];

/** Where an item lies in its list and how long both are: what scrolling by itself does not change. */
function placeOf(item: HTMLElement, list: HTMLElement): string {
	const top = item.getBoundingClientRect().top - list.getBoundingClientRect().top + list.scrollTop;
	return `${Math.round(top)} ${item.offsetHeight} ${list.scrollHeight} ${list.clientHeight}`;
}

/**
 * The same, again whenever sizes have changed until they have settled; whoever scrolls meanwhile has the say.
 * `approach`: scrolls to where the item will be, while it is not in the document.
 */
export async function keepInSight(
	item: () => HTMLElement | null | undefined,
	list: HTMLElement,
	approach: () => void
): Promise<void> {
	const stop = new AbortController();
	for (const event of ['wheel', 'pointerdown', 'touchmove'])
		window.addEventListener(event, () => stop.abort(), { signal: stop.signal, passive: true });
	// An arrow key at the end of the list asks for nothing new.
	const byKey = (event: KeyboardEvent): void => {
		if (['PageUp', 'PageDown', 'Home', 'End'].includes(event.key)) stop.abort();
	};
	window.addEventListener('keydown', byKey, { signal: stop.signal });
	let before = 0;
	let place = '';
	for (const after of SETTLING_MS) {
		await new Promise((resume) => setTimeout(resume, after - before));
		before = after;
		const found = item();
		if (stop.signal.aborted) break;
		if (!found) approach();
		else if (place !== placeOf(found, list)) {
			scrollToSee(found, list);
			place = placeOf(found, list);
		}
	}
	stop.abort();
}
