"""Which right each address of the API asks for. One that is not listed is open to nobody."""

from flask import request

from ruvak.service.access import NotAllowed, Right
from ruvak.web.who import signed_in

OPEN = frozenset(
    {
        "health.read_health",
        "health.read_readiness",
        "health.openapi",
        "session.read_session",
        "session.sign_in",
        "session.pick_name",
        "session.sign_out",
        "links.open_link",
        "links.choose_passphrase",
    }
)
"""To anybody, signed in or not."""

RIGHTS: dict[str, Right] = {
    **dict.fromkeys(
        (
            "analyses.list_remedies",
            "analyses.read_connections",
            "analyses.read_destinations",
            "analyses.read_drawing",
            "analyses.read_overview",
            "analyses.read_run",
            "analyses.read_runs",
            "edits.list_history",
            "edits.show_edit",
            "entry.list_choices",
            "entry.list_contacts",
            "entry.list_formulas",
            "kit.export_kit",
            "kit.list_parts",
            "kit.read_part",
            "me.change_passphrase",
            "me.end_sign_in",
            "me.list_sign_ins",
            "me.offer_codes",
            "me.rename",
            "me.stop_codes",
            "me.use_codes",
            "rigs.export_netlists",
            "rigs.export_rig",
            "rigs.list_rigs",
            "rigs.open_rig",
            "rigs.read_version",
            "venues.read_newer_venue",
            "venues.read_standing",
        ),
        Right.READ,
    ),
    **dict.fromkeys(
        (
            "edits.edit_rig",
            "edits.preview_edit",
            "edits.redo_edit",
            "edits.undo_edit",
            "entry.rewire_run",
        ),
        Right.RECORD,
    ),
    **dict.fromkeys(
        (
            "edits.keep_as_built",
            "edits.restore_plan",
            "entry.read_screen_current",
            "entry.read_input_list",
            "entry.read_lines",
            "kit.read_kit_lines",
            "kit.read_kit_list",
            "links.list_links",
            "links.make_link",
            "links.revoke_link",
            "rigs.copy_rig",
            "rigs.delete_rig",
            "rigs.import_rig",
            "venues.belong_to_venue",
            "venues.export_venue",
            "venues.list_venues",
            "venues.read_venue_lines",
            "venues.save_venue",
        ),
        Right.PLAN,
    ),
    **dict.fromkeys(
        (
            "people.add_person",
            "people.change_person",
            "people.end_sign_in_of",
            "people.list_computers",
            "people.list_people",
            "people.list_sign_ins_of",
            "people.remove_person",
            "people.renew_passphrase",
            "people.stop_trusting",
            "people.trust_computer",
        ),
        Right.PEOPLE,
    ),
}


def admit() -> None:
    """Before every request of the API. Raises SignedOut or NotAllowed."""
    endpoint = request.endpoint or ""
    if endpoint in OPEN:
        return
    who, right = signed_in(), RIGHTS.get(endpoint)
    if right is None:
        raise NotAllowed("Nobody may use this address.")
    who.require(right, (request.view_args or {}).get("rig_id"))
