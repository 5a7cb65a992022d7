"""A remedy in words: its title, what goes with it and goes away, and what it does."""

from ruvak.core.analyse import RunAnalysis
from ruvak.core.judge.finding import Grade
from ruvak.core.judge.sentences import number, write_signed
from ruvak.core.parts.library import library
from ruvak.core.pieces.cures import is_isolator, is_resistive_sum
from ruvak.core.pieces.practice import is_di
from ruvak.core.pieces.route import Route
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.remedies.figures import HUM_TOLD_DB
from ruvak.core.remedies.remedy import Effect
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.trace.trace import connector_at

ARROW = "\N{RIGHTWARDS ARROW}"


def write_title(rig: Rig, run: Run, path: Route) -> tuple[str, str]:
    """What it does and by what (its boxes and adapters, else its leads), and what goes with it and goes away."""
    parts = rig.parts_by_id
    new = [item for item in path.items if item.id not in run.pieces]
    main = [item for item in new if not part_of_item(parts, item).cables] or new
    gone = [item.tag for item in rig.kit if item.id in set(run.pieces) - {item.id for item in path.items}]
    named = " and ".join(item_in_words(part_of_item(parts, item).name, item) for item in main)
    act = next(filter(None, (_act_of(part_of_item(parts, item), run) for item in main)), "")
    title = (f"{act}: {named}" if act else named) or _describe_replugging(rig, run, path)
    rest = [item_in_words(part_of_item(parts, item).name, item) for item in new if item not in main]
    detail = [f"with {' and '.join(rest)}"] if rest else []
    detail += [f"in place of {' and '.join(gone)}"] if gone and new else []
    return title, ", ".join(detail)


def _act_of(part: Part, run: Run) -> str:
    """What such a piece is put in for; empty where its name says it all."""
    if is_di(part):
        return "Put a DI in"
    if is_isolator(part):
        return f"Isolate {run.name}"
    if is_resistive_sum(part):
        return "Sum to mono"
    if opens_screen(part):
        return "Lift the screen"
    if part.kind == "box" and any(element.type == "resistor" for element in part.elements):
        return "Turn it down"
    return ""


def _describe_replugging(rig: Rig, run: Run, path: Route) -> str:
    """Nothing new: other sockets, or fewer pieces."""
    now = set(run.ends)
    gear = {device.id: device.name for device in rig.gear}
    ends = [join.b for join in path.joins if join.b.owner in gear and join.b not in now]
    labels = [f"{gear[end.owner]}, {connector_at(rig, end).label}" for end in ends]
    if labels:
        return f"Plug into {' and '.join(labels)}"[:120]
    kept = {item.id for item in path.items}
    items = {item.id: item for item in rig.kit}
    gone = [items[piece] for piece in run.pieces if piece not in kept]
    words = [item_in_words(rig.parts_by_id[item.part].name, item) for item in gone]
    return f"Take out {' and '.join(words)}"[:120] if words else "Change the plugs over"


def write_effect(effect: Effect, after: RunAnalysis) -> str:
    """What it does to the run's centre, level and hum, and the worst of what it leaves."""
    said = []
    if any(code.is_silence for code in effect.after.codes):
        return f"Silences it: what was left of the sides goes too. {after.findings[0].sentence}"
    if effect.before.centre_db is not None and effect.after.centre_db is not None:
        said.append(f"centre {write_signed(effect.before.centre_db)} {ARROW} {write_signed(effect.after.centre_db)} dB")
    if effect.before.arriving_dbu is not None and effect.after.arriving_dbu is not None:
        levels = number(effect.before.arriving_dbu), number(effect.after.arriving_dbu)
        if levels[0] != levels[1]:
            said.append(f"arrives {levels[0]} {ARROW} {levels[1]} dBu")
    before_db, after_db = effect.before.hum_below_db, effect.after.hum_below_db
    if before_db is not None and after_db is not None and before_db != after_db:
        pair = f"{_below(before_db)} {ARROW} {_below(after_db)} dB"
        said.append(f"hum {pair} under the programme")
    left = [finding.sentence for finding in after.findings if finding.grade is not Grade.CLEAR]
    shown = ["; ".join(said), *(f"Still: {sentence}" for sentence in left[:1])]
    return ". ".join(entry for entry in shown if entry)


def _below(below_db: float) -> str:
    return f"over {number(below_db)}" if below_db >= HUM_TOLD_DB else number(below_db)


def part_of_item(parts: dict[str, Part], item: KitItem) -> Part:
    """Of the rig, or of the library where the item is not in the rig yet."""
    return parts.get(item.part) or library()[item.part]


def item_in_words(name: str, item: KitItem) -> str:
    """Tag where it is owned, name, length."""
    length = f", {item.length_m:g} m" if item.length_m else ""
    return f"{item.tag if item.owned else ''} {name}{length}".strip()
