"""A hash of everything in a rig that its analysis depends on, quick to find again after an edit."""

import hashlib
from typing import Any

from ruvak.core.rig.collections import REGISTRY, holder_record, own_fields
from ruvak.core.rig.rig import Rig


def content_hash(rig: Rig) -> str:
    """Equal for equal rigs. A thing remembers its own hash, so after an edit little is hashed anew."""
    whole = hashlib.sha256(rig.id.encode())
    for collection in REGISTRY:
        whole.update(f"\n{collection.name}\n".encode())
        for thing in collection.things(rig):
            whole.update(thing.content_digest)
    for kind in ("rig", "venue"):
        fields: dict[str, Any] = holder_record(rig, kind).model_dump(mode="json", include=set(own_fields(kind)))
        whole.update(repr(sorted(fields.items())).encode())
    return whole.hexdigest()[:40]
