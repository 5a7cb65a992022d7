/** What a laid-out strip consists of, in pixels. */
import type { Schemas } from '../api/client';

export type Drawing = Schemas['RunDrawing'];
export type Piece = Schemas['DrawnPiece'];
export type Connector = Schemas['DrawnConnector'];

export interface Spot {
	x: number;
	y: number;
}

export interface ContactMark extends Spot {
	id: string;
	name: string;
	look: Look;
	open: boolean;
}

/** How a conductor is drawn, by what it carries from the source or brings to the destination. */
export type Look = 'left' | 'right' | 'hot' | 'cold' | 'screen' | 'idle';

/** The theme's colour of each. */
export const INK: Record<Look, string> = {
	left: 'var(--wire-left)',
	hot: 'var(--wire-left)',
	right: 'var(--wire-right)',
	cold: 'var(--wire-cold)',
	screen: 'var(--wire-screen)',
	idle: 'var(--wire-screen)'
};

export interface Line {
	path: string;
	look: Look;
	kind: 'metal' | 'lead-in';
	owner: string;
}

export interface Capsule {
	x: number;
	y: number;
	width: number;
	height: number;
	label: string;
}

export interface Component {
	type: Schemas['DrawnElement']['type'];
	at: Spot;
	/** Degrees, so that a component lies along its line. */
	turn: number;
	label: string;
	owner: string;
}

export interface PieceBox {
	owner: string;
	name: string;
	kind: Piece['kind'];
	installed: boolean;
	lengthM: number | null;
	left: number;
	right: number;
	top: number;
	bottom: number;
	/** Outlines of the screens around their cores. */
	braids: { x: number; y: number; width: number; height: number }[];
}

export interface EndBox {
	id: string;
	owner: string;
	name: string;
	side: 'source' | 'destination';
	/** Where its name stands. */
	top: number;
	connectors: { end: string; label: string; x: number; top: number }[];
}

/** A receiver: a triangle at its hot contact, reaching over its cold one where it has one. */
export interface Ear {
	gear: string;
	input: string;
	hot: Spot;
	cold: Spot | null;
}

/** What a conductor carries, written on it where it leaves and where it arrives. */
export interface Letter extends Spot {
	words: string;
	look: Look;
}

export interface StripLayout {
	width: number;
	height: number;
	contacts: ContactMark[];
	lines: Line[];
	capsules: Capsule[];
	components: Component[];
	pieces: PieceBox[];
	ends: EndBox[];
	ears: Ear[];
	letters: Letter[];
}

export interface StripSpace {
	width: number;
	/** Room above the first lane for tapes and labels. */
	top: number;
	/** Room beside the end contacts for what stands there. */
	left: number;
	right: number;
	/** Between the lanes of pieces beside each other, where it is not the strip's own. */
	laneGap?: number;
}

/** From where to where a piece reaches across the strip. */
export interface Span {
	left: number;
	right: number;
}
