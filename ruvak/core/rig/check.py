"""What records alone cannot say: that every name in a rig points at something that is there, and fits.

Each check yields Faults that name the place and the mend; check() gathers all of them.
"""

from collections import Counter
from collections.abc import Callable, Collection, Container, Iterable, Iterator

from ruvak.core.errors import Fault, RigFault
from ruvak.core.rig.check_earth import earth_faults
from ruvak.core.rig.check_part import list_names, part_faults, setting_fault
from ruvak.core.rig.connectors import SHAPES, Form, fits, uncertain
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import ContactResistance, Gear, Join, KitItem, Rig, Run, is_two_way
from ruvak.core.rig.wiring_fault import unknown_points


def check(rig: Rig) -> Rig:
    """The rig itself when sound; otherwise RigFault with everything found."""
    faults = tuple(_duplicates(rig)) + tuple(_parts(rig))
    if not faults:
        faults = tuple(_owners(rig)) + tuple(_drawn(rig))
    if not faults:
        faults = tuple(_runs(rig)) + tuple(earth_faults(rig))
    if faults:
        raise RigFault(faults)
    return rig


def check_touched(rig: Rig, touched: Collection[tuple[str, str | None]]) -> Rig:
    """The rig itself when what an edit touched is sound, and what refers to it; else RigFault. `touched`: the kind and
    id of each thing; everything else was checked before."""
    by_kind: dict[str, set[str]] = {}
    for kind, id_ in touched:
        if id_ is not None:
            by_kind.setdefault(kind, set()).add(id_)
    parts = by_kind.get("parts", set())
    owners = by_kind.get("gear", set()) | by_kind.get("kit", set())
    runs = by_kind.get("runs", set())
    if parts:
        owners |= {device.id for device in rig.gear if device.part in parts} | {
            item.id for item in rig.kit if item.part in parts
        }
    if owners:
        runs = runs | {run.id for run in rig.runs if not owners.isdisjoint((*run.pieces, *run.owners))}
    faults = tuple(_duplicates(rig)) + tuple(_parts(rig, lambda part: part.id in parts))
    if not faults and owners:
        faults = tuple(_owners(rig, owners)) + tuple(_drawn(rig))
    if not faults:
        faults = tuple(_runs(rig, runs)) if runs else ()
        faults += tuple(earth_faults(rig)) if owners or by_kind.keys() & {"earth", "bonds"} else ()
    if faults:
        raise RigFault(faults)
    return rig


def many_ways(part: Part) -> bool:
    """Whether several runs may share it: a multicore, a wall plate, a four-channel box has more than one way in, a
    headset splitter one each way."""
    return sum(connector.side == "in" for connector in part.connectors) > 1 or is_two_way(part)


def _duplicates(rig: Rig) -> Iterator[Fault]:
    groups: dict[str, Iterable[str]] = {
        "parts": (part.id for part in rig.parts),
        "gear and kit": [gear.id for gear in rig.gear] + [item.id for item in rig.kit],
        "runs": (run.id for run in rig.runs),
        "venue.earth": (point.id for point in rig.venue.earth),
        "bonds": (bond.id for bond in rig.bonds),
    }
    for where, ids in groups.items():
        for name, count in Counter(ids).items():
            if count > 1:
                yield Fault("duplicate_id", where, f"The id '{name}' stands {count} times; give each its own.")


def _parts(rig: Rig, asked: Callable[[Part], bool] = lambda part: True) -> Iterator[Fault]:
    for index, part in enumerate(rig.parts):
        if not asked(part):
            continue
        for fault in part_faults(part):
            yield Fault(fault.code, f"parts[{index}].{fault.where}", f"In the part '{part.id}': {fault.sentence}")


def _owners(rig: Rig, only: Container[str] | None = None) -> Iterator[Fault]:
    for i, gear in enumerate(rig.gear):
        if only is not None and gear.id not in only:
            continue
        part = rig.parts_by_id.get(gear.part)
        if part is None or part.kind != "gear":
            yield Fault(
                "unknown_part", f"gear[{i}].part", f"There is no gear part '{gear.part}' here or in the library."
            )
            continue
        settings = {setting.id: setting for setting in part.settings}
        for name, value in gear.settings.items():
            where = f"gear[{i}].settings.{name}"
            if name not in settings:
                have = ", ".join(settings) or "none"
                yield Fault("unknown_setting", where, f"'{gear.name}' has no setting '{name}'; it has {have}.")
            elif sentence := setting_fault(settings[name], value):
                yield Fault("bad_setting", where, sentence)
        yield from _contacts(part, gear.name, gear.contacts, f"gear[{i}].contacts")
        yield from _sends(part, gear, i)
        if gear.host is not None and (gear.host == gear.id or not isinstance(rig.owners_by_id.get(gear.host), Gear)):
            sentence = f"There is no other gear '{gear.host}' that '{gear.name}' could belong to."
            yield Fault("unknown_host", f"gear[{i}].host", sentence)
        inputs = {receiver.id for receiver in part.inputs}
        for name in gear.faders_db:
            if name not in inputs:
                sentence = f"'{gear.name}' has no input '{name}'; it has {list_names(inputs)}."
                yield Fault("unknown_input", f"gear[{i}].faders_db", sentence)
    for i, item in enumerate(rig.kit):
        if only is not None and item.id not in only:
            continue
        part = rig.parts_by_id.get(item.part)
        if part is None or part.kind == "gear":
            yield Fault(
                "unknown_part", f"kit[{i}].part", f"There is no lead or box '{item.part}' here or in the library."
            )
        elif bool(part.cables) != (item.length_m is not None):
            sentence = (
                "has cable in it and wants length_m." if part.cables else "has no cable in it; leave length_m out."
            )
            yield Fault("length", f"kit[{i}].length_m", f"'{item.tag}' {sentence}")
        else:
            yield from _contacts(part, item.tag, item.contacts, f"kit[{i}].contacts")
            yield from _tested(part, item, f"kit[{i}].faults")


def _drawn(rig: Rig) -> Iterator[Fault]:
    """A thing of the cupboard is in a rig once."""
    known: dict[tuple[str, int], str] = {}
    things: list[tuple[str, Gear | KitItem]] = [(f"gear[{i}]", device) for i, device in enumerate(rig.gear)]
    things += [(f"kit[{i}]", item) for i, item in enumerate(rig.kit)]
    for where, thing in things:
        if thing.drawn is None:
            continue
        key = thing.drawn.item, thing.drawn.number
        if key in known:
            sentence = f"'{thing.id}' and '{known[key]}' are the same thing of the cupboard; it is there once."
            yield Fault("drawn_twice", f"{where}.drawn", sentence)
        known[key] = thing.id


def _contacts(part: Part, called: str, stated: Iterable[ContactResistance], where: str) -> Iterator[Fault]:
    """Contacts that somebody measured: each must be there."""
    have = {str(contact) for contact in contacts_in(part)}
    for number, known in enumerate(stated):
        if known.at not in have:
            sentence = f"'{called}' has no contact '{known.at}'; it has {list_names(have)}."
            yield Fault("unknown_contact", f"{where}[{number}].at", sentence)


def _tested(part: Part, item: KitItem, where: str) -> Iterator[Fault]:
    """Faults that a test showed: each is between two points of the part."""
    for number, fault in enumerate(item.faults):
        for point in unknown_points(part, (fault,)):
            yield Fault("unknown_contact", f"{where}[{number}]", f"'{item.tag}' has no contact '{point}'.")


def _sends(part: Part, gear: Gear, index: int) -> Iterator[Fault]:
    """Inputs fed to outputs: both must be there."""
    inputs, outputs = {receiver.id for receiver in part.inputs}, {output.id for output in part.outputs}
    for number, send in enumerate(gear.sends):
        for field, name, have in (("input", send.input, inputs), ("output", send.output, outputs)):
            if name not in have:
                sentence = f"'{gear.name}' has no {field} '{name}'; it has {list_names(have)}."
                yield Fault(f"unknown_{field}", f"gear[{index}].sends[{number}].{field}", sentence)


def _runs(rig: Rig, only: Container[str] | None = None) -> Iterator[Fault]:
    """Faults of all runs, or of `only` some, which are looked at last so that theirs are the ones that meet another."""
    order = list(enumerate(rig.runs))
    if only is not None:
        order.sort(key=lambda entry: entry[1].id in only)
    tags = {item.id: item.tag for item in rig.kit}
    piece_user: dict[str, str] = {}
    end_user: dict[Endpoint, str] = {}
    two_way = {part.id for part in rig.parts if is_two_way(part)}
    in_common = {item.id for item in rig.kit if item.part in two_way}
    joined: dict[frozenset[Endpoint], str] = {}
    for i, run in order:
        if only is not None and run.id not in only:
            piece_user.update(dict.fromkeys(run.pieces, run.name))
            end_user.update(dict.fromkeys(run.ends, run.name))
            joined.update((ends, run.id) for ends in _joins_at(run, in_common))
            continue
        for j, piece in enumerate(run.pieces):
            where = f"runs[{i}].pieces[{j}]"
            if piece not in tags:
                yield Fault("unknown_piece", where, f"There is no kit item '{piece}'.")
            elif piece in run.pieces[:j] or (piece in piece_user and not many_ways(rig.part_of(piece))):
                user = piece_user.get(piece, run.name)
                sentence = f"'{tags[piece]}' is already in the run '{user}'; one lead cannot be in two places."
                yield Fault("lead_used_twice", where, sentence)
            else:
                piece_user[piece] = run.name
        for j, join in enumerate(run.joins):
            # By one plug of a two-way piece go what is sent and what comes back.
            is_common = bool(in_common & {end.owner for end in join.ends})
            if is_common and joined.setdefault(frozenset(join.ends), run.id) != run.id:
                continue
            yield from _join(rig, run, join, f"runs[{i}].joins[{j}]", end_user)


def _joins_at(run: Run, pieces: set[str]) -> Iterator[frozenset[Endpoint]]:
    """The ends of its joins with one of these pieces."""
    for join in run.joins if pieces else ():
        if join.a.owner in pieces or join.b.owner in pieces:
            yield frozenset(join.ends)


def _join(rig: Rig, run: Run, join: Join, where: str, end_user: dict[Endpoint, str]) -> Iterator[Fault]:
    forms: list[Form] = []
    for field, end in (("a", join.a), ("b", join.b)):
        owner = rig.owners_by_id.get(end.owner)
        if owner is None or owner.part not in rig.parts_by_id:
            yield Fault("unknown_owner", f"{where}.{field}", f"There is no gear or kit item '{end.owner}'.")
            continue
        part = rig.parts_by_id[owner.part]
        connector = next((c for c in part.connectors if c.id == end.connector), None)
        if connector is None:
            have = ", ".join(c.id for c in part.connectors)
            sentence = f"'{end.owner}' has no '{end.connector}'; it has {have}."
            yield Fault("unknown_connector", f"{where}.{field}", sentence)
            continue
        if part.kind != "gear" and end.owner not in run.pieces:
            yield Fault("not_a_piece", f"{where}.{field}", f"'{end.owner}' is not among this run's pieces.")
        if end in end_user:
            sentence = f"Something is already plugged into '{end}' in the run '{end_user[end]}'."
            yield Fault("socket_taken", f"{where}.{field}", sentence)
        end_user[end] = run.name
        forms.append(connector.form)
    if len(forms) != 2:
        return
    if not fits(forms[0], forms[1]):
        words = (SHAPES[forms[0]].words, SHAPES[forms[1]].words)
        yield Fault("does_not_fit", where, f"{words[0]} does not go into {words[1]}; an adapter belongs between.")
    elif join.sleeve is not None and not uncertain(forms[0], forms[1]):
        sentence = "There is nothing uncertain about what these two join; leave sleeve out."
        yield Fault("sleeve", f"{where}.sleeve", sentence)
