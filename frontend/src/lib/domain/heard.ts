/** What an input makes of the two sides, in one expression: "L − R", "L + R", "L", or a dash. */
import type { Schemas } from '../api/client';

const MINUS = '\u2212';

/** Two sources on one input are told apart by letters: "a + b". */
export function heard(channels: readonly Schemas['ChannelGain'][]): string {
	const arriving = channels.filter((channel) => channel.in_phase !== null);
	const many = new Set(channels.map((channel) => channel.source)).size > 1;
	const name = ({ source, channel }: Schemas['ChannelGain']): string =>
		many ? 'abcdefgh'.charAt(source) + (channel === '1' ? '' : channel) : channel;
	return (
		arriving
			.map((channel, index) => {
				if (index === 0) return (channel.in_phase ? '' : MINUS) + name(channel);
				return `${channel.in_phase ? '+' : MINUS} ${name(channel)}`;
			})
			.join(' ') || '—'
	);
}

export const RESIDUE_WORDS: Record<Schemas['Residue']['code'], string> = {
	channel_match: 'left and right not quite equally loud',
	source_leg_mismatch: 'source legs not quite alike',
	input_leg_mismatch: 'input legs not quite alike',
	receiver_rejection: 'what the receiver lets through'
};

export const BALANCE_WORDS: Record<Schemas['Balance']['verdict'], string> = {
	balanced: 'balanced',
	unbalanced: 'unbalanced',
	two_signals: 'two signals on one balanced input',
	open: 'open: nothing drives it',
	shorted: 'hot and cold joined'
};
