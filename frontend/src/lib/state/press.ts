/** How far a mouse may slip while it presses; whoever goes farther means to call the press off. */
const SLIP_PX = 6;

const PRESSED = 'button, a, label, summary, input[type=checkbox], input[type=radio]';
/** What does something of its own with a mouse that goes down on it: it opens, moves or selects. */
const OWN_PRESS = 'input:not([type=checkbox], [type=radio]), select, textarea, [role=slider]';

/**
 * Keeps a mouse press with what it began on, though a computed figure arrives meanwhile and moves the list: without
 * this the button is released over something else and the press is lost. A finger's press is kept by the browser.
 */
export function keepPress(event: PointerEvent): void {
	if (event.pointerType !== 'mouse' || event.button !== 0 || !(event.target instanceof Element)) return;
	const pressed = event.target.closest(PRESSED);
	if (!pressed || event.target.closest(OWN_PRESS)) return;
	const { pointerId, clientX, clientY } = event;
	pressed.setPointerCapture(pointerId);
	const released = new AbortController();
	const move = (now: PointerEvent): void => {
		if (Math.hypot(now.clientX - clientX, now.clientY - clientY) <= SLIP_PX) return;
		released.abort();
		if (pressed.hasPointerCapture(pointerId)) pressed.releasePointerCapture(pointerId);
	};
	window.addEventListener('pointermove', move, { signal: released.signal });
	for (const ending of ['pointerup', 'pointercancel'])
		window.addEventListener(ending, () => released.abort(), { signal: released.signal });
}
