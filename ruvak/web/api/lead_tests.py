"""Testing leads: readings typed or taken from a tester, what they say, and noting that."""

from flask import Response

from ruvak.service.access import Right
from ruvak.service.lead_tests import LeadOnBench, NewLeadTest, ReadingsBody
from ruvak.service.tester import TesterState
from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import blueprint
from ruvak.web.house_schemas import ItemPath
from ruvak.web.log_schemas import AskTesterBody, KitPath
from ruvak.web.who import person

api = blueprint("lead_tests", "Testing leads", "502", reads_need=Right.READ)


@api.get("/tester", responses={"200": TesterState})
def read_tester() -> Response:
    """Which tester readings are taken from. 502 where it does not answer."""
    return answer(use_cases().tester.describe())


@api.post("/cupboard/items/<item_id>/readings", responses={"200": LeadOnBench})
def read_item(path: ItemPath, body: ReadingsBody) -> Response:
    """A thing of the cupboard, and what readings say of it; nothing is saved."""
    return answer(use_cases().lead_tests.read_item(path.item_id, body))


@api.post("/cupboard/items/<item_id>/readings/tester", responses={"200": LeadOnBench})
def ask_tester_about_item(path: ItemPath, body: AskTesterBody) -> Response:
    """The same with readings of the tester. 502 where it does not answer."""
    return answer(use_cases().lead_tests.ask_about_item(path.item_id, body.moved_at, body.readings))


@api.post("/cupboard/items/<item_id>/tests", responses={"200": LeadOnBench})
def note_item(path: ItemPath, body: NewLeadTest) -> Response:
    """Notes a test: in the log, and how the thing is; rigs that have it follow. Sent twice, it is noted once."""
    return answer(use_cases().lead_tests.note_item(path.item_id, body, person()))


@api.post("/rigs/<rig_id>/kit/<kit_id>/readings", responses={"200": LeadOnBench})
def read_piece(path: KitPath, body: ReadingsBody) -> Response:
    """A rig's piece, and what readings say of it; nothing is saved."""
    return answer(use_cases().lead_tests.read_piece(path.rig_id, path.kit_id, body))


@api.post("/rigs/<rig_id>/kit/<kit_id>/readings/tester", responses={"200": LeadOnBench})
def ask_tester_about_piece(path: KitPath, body: AskTesterBody) -> Response:
    """The same with readings of the tester. 502 where it does not answer."""
    return answer(use_cases().lead_tests.ask_about_piece(path.rig_id, path.kit_id, body.moved_at, body.readings))


@api.post("/rigs/<rig_id>/kit/<kit_id>/tests", responses={"200": LeadOnBench})
def note_piece(path: KitPath, body: NewLeadTest) -> Response:
    """Notes a test of a rig's piece; one that is drawn from the cupboard is the house's."""
    return answer(use_cases().lead_tests.note_piece(path.rig_id, path.kit_id, body, person()))
