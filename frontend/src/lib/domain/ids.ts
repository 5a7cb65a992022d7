/** A name of its own for something a client makes; 128 random bits, also where a page has no secure context. */
export function newId(): string {
	const bytes = crypto.getRandomValues(new Uint8Array(16));
	return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
