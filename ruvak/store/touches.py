"""What an edit touched, as texts that PostgreSQL can compare.

"=" stands before what was set, "~" before everything that holds it: two edits meet where one set what the other set,
what holds it, or something within it.
"""

from collections.abc import Iterable

from ruvak.core.rig.edits import Touched


def _steps(touched: Touched) -> list[str]:
    """The paths from the thing down: "gear/desk", "gear/desk/settings", "gear/desk/settings/gain"."""
    names = [touched.kind, touched.id or ""]
    result = ["/".join(names)]
    for step in (touched.field, touched.key):
        if step is not None:
            names.append(step)
            result.append("/".join(names))
    return result


def texts(touched: Iterable[Touched]) -> list[str]:
    """To be kept with the edit."""
    result: dict[str, None] = {}
    for touch in touched:
        *above, own = _steps(touch)
        result |= dict.fromkeys([f"={own}", *(f"~{path}" for path in above)])
    return list(result)


def meeting(touched: Touched) -> list[str]:
    """Of the texts kept with another edit, those by which it meets this one."""
    steps = _steps(touched)
    return [*(f"={path}" for path in steps), f"~{steps[-1]}"]
