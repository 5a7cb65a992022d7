"""Which right each address of the API asks for.

One that is not listed, and whose blueprint says nothing of what only reads, is open to nobody.
"""

from flask import current_app, request
from flask_openapi3 import APIBlueprint

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
            "me.export_own",
            "me.list_sign_ins",
            "me.offer_codes",
            "me.rename",
            "me.stop_codes",
            "me.use_codes",
            "rigs.export_netlists",
            "rigs.export_rig",
            "rigs.compare_rigs",
            "rigs.list_rigs",
            "rigs.open_rig",
            "rigs.read_version",
            "pull.export_pull_list",
            "pull.read_pull_list",
            "work.cancel_work",
            "work.read_work",
            "venues.read_newer_venue",
            "venues.read_standing",
        ),
        Right.READ,
    ),
    **dict.fromkeys(
        (
            "edits.edit_rig",
            "edits.preview_edit",
            "log.add_entries",
            "photos.add_photo",
            "edits.redo_edit",
            "edits.undo_edit",
            "entry.rewire_run",
            "cupboard.note_condition",
            "lead_tests.ask_tester_about_item",
            "lead_tests.ask_tester_about_piece",
            "lead_tests.note_item",
            "lead_tests.note_piece",
            "lead_tests.read_item",
            "lead_tests.read_piece",
            "occasions.add_note",
            "occasions.settle_note",
        ),
        Right.RECORD,
    ),
    **dict.fromkeys(
        (
            "edits.keep_as_built",
            "edits.restore_plan",
            "cupboard.add_items",
            "cupboard.add_list",
            "cupboard.adopt_kit",
            "cupboard.change_item",
            "cupboard.draw_item",
            "cupboard.import_cupboard",
            "cupboard.put_back",
            "cupboard.read_cupboard_lines",
            "cupboard.remove_item",
            "entry.read_screen_current",
            "entry.read_input_list",
            "entry.read_lines",
            "kit.read_kit_lines",
            "kit.read_kit_list",
            "links.list_links",
            "links.make_link",
            "links.revoke_link",
            "occasions.add_occasion",
            "occasions.change_occasion",
            "occasions.make_again",
            "occasions.open_doors",
            "occasions.put_rig",
            "occasions.remove_occasion",
            "occasions.take_rig_out",
            "pull.take_leads",
            "rigs.copy_rig",
            "rigs.delete_rig",
            "rigs.import_rig",
            "rigs.shelve_rig",
            "venues.belong_to_venue",
            "venues.export_venue",
            "venues.import_venue",
            "venues.list_venues",
            "venues.read_venue_lines",
            "venues.save_venue",
        ),
        Right.PLAN,
    ),
    **dict.fromkeys(
        (
            "house.cancel_work",
            "house.export_house",
            "house.import_house",
            "house.read_work",
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


BESIDE_A_RIG = frozenset(
    {
        "entry.list_contacts",
        "entry.list_formulas",
        "kit.list_parts",
        "kit.read_part",
        "me.list_sign_ins",
        "me.offer_codes",
        "rigs.list_rigs",
    }
)
"""What a link to one rig opens besides: the library, its own sign-in, and the list with that rig alone."""
SAFE = frozenset({"GET", "HEAD", "OPTIONS"})
"""Methods that change nothing (RFC 9110, section 9.2.1)."""


class GuardedBlueprint(APIBlueprint):
    """A blueprint that says what right those of its addresses need that only read and are not listed here."""

    reads_need: Right | None = None
    describes = False
    """Whether its addresses are described for the OpenAPI document while they are imported. That takes seconds, and a
    server that starts has the document as a file."""


def right_for(endpoint: str, method: str) -> Right | None:
    """The right that an address asks for; None for what nobody may use. What changes something must be listed."""
    listed = RIGHTS.get(endpoint)
    if listed is not None or method not in SAFE:
        return listed
    owner = current_app.blueprints.get(endpoint.partition(".")[0])
    return owner.reads_need if isinstance(owner, GuardedBlueprint) else None


def admit() -> None:
    """Before every request of the API. Raises SignedOut or NotAllowed."""
    endpoint = request.endpoint or ""
    if endpoint in OPEN:
        return
    who, right = signed_in(), right_for(endpoint, request.method)
    if right is None:
        raise NotAllowed("Nobody may use this address.")
    rig = (request.view_args or {}).get("rig_id")
    if who.rig is not None and rig is None and endpoint not in BESIDE_A_RIG:
        raise NotAllowed("This link opens one rig, and nothing else of the house.")
    who.require(right, rig)
