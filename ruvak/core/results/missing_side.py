"""One side of a stereo destination that gets only what leaks over from the other."""

from collections.abc import Sequence

from ruvak.core.results.records import ChannelGain, InputResult, MixResult
from ruvak.core.results.sums import LOST_BELOW_LOUDER_DB
from ruvak.core.units import FLOOR_DB


def loudest_db(channels: tuple[ChannelGain, ...]) -> float:
    """Gain of the strongest, floor where there is none."""
    return max((channel.gain_db for channel in channels), default=FLOOR_DB)


def is_missing_side(inputs: Sequence[InputResult], mixes: Sequence[MixResult], input_result: InputResult) -> bool:
    """Whether another input of the same stereo mix gets the programme so much louder that this one's is a residue."""
    for mix in mixes:
        if mix.gear == input_result.gear and mix.stereo and input_result.input in mix.inputs:
            others = [other for other in inputs if other.gear == input_result.gear and other.input in mix.inputs]
            best_db = max(loudest_db(other.channels) for other in others)
            return loudest_db(input_result.channels) < best_db - LOST_BELOW_LOUDER_DB
    return False
