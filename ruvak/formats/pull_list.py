"""The pull list as CSV."""

from ruvak.core.pull.pull_list import PullList
from ruvak.formats.cells import table_of

HEADINGS = ("rig", "number", "run", "kind", "need_m", "leads", "store", "to_get_m")


def pull_to_csv(pulled: PullList) -> str:
    """A row for each stretch of a run."""
    return table_of(
        HEADINGS,
        (
            (
                line.rig_name,
                str(line.number),
                line.name,
                line.part,
                f"{line.need_m:g}",
                " + ".join(f"{lead.tag} ({lead.length_m:g} m)" for lead in line.leads),
                "; ".join(dict.fromkeys(lead.store for lead in line.leads)),
                f"{line.get_m:g}" if line.get_m is not None else "",
            )
            for line in pulled.lines
        ),
    )
