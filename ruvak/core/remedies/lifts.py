"""Opening a screen: where it may be offered at all.

Isolators are decided by solving alone. An opened screen is not: where it is all the earth a device has, where an
unbalanced programme or phantom returns by it, no figure makes it right.
"""

from ruvak.core.analyse import RunAnalysis
from ruvak.core.rig.rig import Gear, Rig, earthing_at

CAUTION = (
    "Only this lead's screen is opened. Both devices keep their own mains earth, and that is never opened: if either "
    "ever loses it, take the lift out."
)


def may_open_screen(rig: Rig, answer: RunAnalysis) -> bool:
    """Whether nothing on this run needs a screen but for screening."""
    result = answer.result
    owners = {source.gear for source in result.sources} | {receiver.gear for receiver in result.inputs}
    earthed = all(_keeps_its_earth(rig, owner) for owner in owners)
    balanced = all(receiver.balance.verdict == "balanced" for receiver in result.inputs)
    return earthed and balanced and all(supply.wanted_a is None for supply in result.phantom)


def _keeps_its_earth(rig: Rig, owner: str) -> bool:
    gear = rig.owners_by_id[owner]
    earthing = earthing_at(rig, owner)
    return isinstance(gear, Gear) and earthing is not None and earthing.type == "class-1" and not gear.earth_open
