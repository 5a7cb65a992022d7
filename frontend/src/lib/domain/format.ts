/** Numbers as people read them: a tenth at most, true minus sign, units always. */
const MINUS = '\u2212';

/** A number as people type it, with a decimal comma or a true minus sign; NaN where it is none. */
export const typedNumber = (text: string): number =>
	Number(text.trim().replace(',', '.').replace(MINUS, '-'));

/** One decimal below 100, none above; never "-0.0". */
export function number(value: number, digits = 1): string {
	const places = Math.abs(value) >= 100 ? 0 : digits;
	const text = Math.abs(value).toFixed(places);
	return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

export const signed = (value: number): string =>
	value > 0 && number(value) !== '0.0' ? `+${number(value)}` : number(value);

export const db = (value: number): string => `${number(value)} dB`;
export const signedDb = (value: number): string => `${signed(value)} dB`;
/** Levels carry their sign, as people say them: plus four. */
export const dbu = (value: number): string => `${signed(value)} dBu`;

export function ohm(value: number): string {
	if (value >= 1e6) return `${number(value / 1e6)} MΩ`;
	return value >= 1000 ? `${number(value / 1000)} kΩ` : `${number(value)} Ω`;
}

/** With the prefix that a meter would show: "2.1 mA", "83.0 V", "0.4 µA". */
function metered(value: number, unit: string): string {
	if (value >= 1) return `${number(value)} ${unit}`;
	return value >= 1e-3 ? `${number(value * 1e3)} m${unit}` : `${number(value * 1e6)} µ${unit}`;
}
export const ampere = (value: number): string => metered(value, 'A');
export const volt = (value: number): string => metered(value, 'V');

export const watt = (value: number): string => `${number(value)} W`;

export function hertz(value: number): string {
	return value >= 1000 ? `${number(value / 1000)} kHz` : `${number(value, 0)} Hz`;
}

const METRES_PER_FOOT = 0.3048;
export type LengthUnit = 'm' | 'ft';

export const fromMetres = (metres: number, unit: LengthUnit): number =>
	unit === 'ft' ? metres / METRES_PER_FOOT : metres;

export const toMetres = (length: number, unit: LengthUnit): number =>
	unit === 'ft' ? length * METRES_PER_FOOT : length;

/** Without trailing zeros: "15 m", "7.5 m", "49.2 ft". */
export function length(metres: number, unit: LengthUnit): string {
	return `${Number(fromMetres(metres, unit).toFixed(1))} ${unit}`;
}

export function clock(moment: string): string {
	return new Date(moment).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
}

/** This moment, as it is sent. */
export const nowAsText = (): string => new Date().toISOString();

/** A moment's day, as people here write it. */
export function day(moment: string): string {
	return new Date(moment).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
}
