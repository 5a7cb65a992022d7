"""Rig files with something wrong in them: fields dropped, retyped or renamed, keys changed, numbers at extremes."""

import copy
from functools import cache
from random import Random
from typing import Any

from ruvak.core.analyse import analyse
from ruvak.core.errors import RigFault
from ruvak.core.parts.reading import rig_from_document
from ruvak.service.demo_data import demo_rig
from tests.support.figures import unfinite
from tests.support.random_rigs import random_rig
from tests.support.wild import wild_rig

MOST_MUTATIONS = 3
EXTREMES: tuple[Any, ...] = (
    0, -1, 1, 1e-18, 1e-12, 1e-6, 1e-3, 300.0, -300.0, 1e6, 1e9, 1e12, 0.5, 2.0, 100, 1e-300, 1e-15, -1e-15, 1e15,
    -1e15, 1e16, 1e300, 5e-324, 2**63, float("inf"), float("nan"), -0.0,
)  # fmt: skip
OTHER_TYPES: tuple[Any, ...] = (
    None, True, False, "", "x", "g", "chassis", "in.T", "0", [], {}, [1], {"value": 1}, {"likely": 1, "worst": 2},
    {"likely": -1, "worst": -2}, "\u0000", "1e5", ["g"], 7,
)  # fmt: skip
Position = tuple[Any, Any]
"""A dictionary or list, and the key or index that is changed in it."""


def verdict_of(document: Any) -> str | None:
    """None where the file ends as it must: in an analysis of finite figures, or a RigFault that names a field."""
    try:
        analysis = analyse(rig_from_document(document))
    except RigFault as fault:
        nameless = [one for one in fault.faults if not one.where or not one.sentence]
        return f"a fault without a field or a sentence: {nameless}" if nameless or not fault.faults else None
    except Exception as crash:
        return f"{type(crash).__name__}: {crash}"
    wrong = unfinite(analysis.model_dump())
    return f"not finite: {wrong[:3]}" if wrong else None


def mutant(seed: int) -> tuple[Any, list[str]]:
    """A document and what was done to it, in words."""
    pick = Random(seed)
    bases = _bases()
    document = copy.deepcopy(bases[pick.randrange(len(bases))])
    return document, [_mutated(pick, document) for _ in range(pick.randint(1, MOST_MUTATIONS))]


@cache
def _bases() -> list[Any]:
    """Small rigs of every sort, with their parts and assumptions written out."""
    rigs = [demo_rig("sunday-talk"), demo_rig("video-call"), demo_rig("lantern-evening")]
    rigs += [random_rig(seed, 7) for seed in range(8)] + [wild_rig(seed, 3) for seed in range(2)]
    return [rig.model_dump(mode="json", exclude_none=True) for rig in rigs]


def _places(node: Any) -> list[Position]:
    """Every field and entry of a document."""
    found: list[Position] = []
    keys: list[Any] = list(node) if isinstance(node, dict) else list(range(len(node))) if isinstance(node, list) else []
    for key in keys:
        found.append((node, key))
        found += _places(node[key])
    return found


def _mutated(pick: Random, document: Any) -> str:
    # By top-level branch: otherwise parts, by far the longest, would get nearly every mutation.
    top = pick.choice([key for key in document if isinstance(document[key], dict | list)] or list(document))
    places = _places(document[top]) if pick.random() < 0.8 else _places(document)
    if not places:
        document[top] = pick.choice(OTHER_TYPES)
        return f"{top} retyped"
    node, key = pick.choice(places)
    old = node[key]
    match pick.randrange(6):
        case 0:
            del node[key]
            return f"{top}: {key} dropped, was {old!r}"[:200]
        case 1:
            node[key] = pick.choice(OTHER_TYPES)
        case 2:
            node[key] = pick.choice(EXTREMES)
        case 3 if isinstance(node, dict):
            fresh = pick.choice(("", "x", "0", "h3", "XLR", "50", f"{key}2", "-1", "1e3"))
            node[fresh] = node.pop(key)
            return f"{top}: {key} renamed to {fresh!r}"
        case 4:
            # A value of the same document elsewhere: names that exist, but not there.
            other, other_key = pick.choice(places)
            node[key] = copy.deepcopy(other[other_key])
        case 5 if isinstance(old, dict | list):
            node[key] = type(old)()
        case _:
            numbers = [(n, k) for n, k in places if isinstance(n[k], int | float) and not isinstance(n[k], bool)]
            if numbers:
                node, key = pick.choice(numbers)
                old = node[key]
            node[key] = pick.choice(EXTREMES)
    return f"{top}: {key} = {node[key]!r}, was {old!r}"[:200]
