"""What an edit touched, as texts that PostgreSQL can compare.

"=" stands before what was set, "~" before everything that holds it: two edits meet where one set what the other set,
what holds it, or something within it.
"""

from collections.abc import Iterable

from ruvak.core.rig.edits import Touched


def _steps(touched: Touched) -> list[str]:
    """The paths from the thing down: "gear/desk", "gear/desk/settings", "gear/desk/settings/gain"."""
    names = [touched.kind, touched.id or ""]
    found = ["/".join(names)]
    for step in (touched.field, touched.key):
        if step is not None:
            names.append(step)
            found.append("/".join(names))
    return found


def texts(touched: Iterable[Touched]) -> list[str]:
    """To be kept with the edit."""
    found: dict[str, None] = {}
    for one in touched:
        *above, own = _steps(one)
        found |= dict.fromkeys([f"={own}", *(f"~{path}" for path in above)])
    return list(found)


def meeting(touched: Touched) -> list[str]:
    """Of the texts kept with another edit, those by which it meets this one."""
    steps = _steps(touched)
    return [*(f"={path}" for path in steps), f"~{steps[-1]}"]
