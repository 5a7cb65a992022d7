"""Short forms in the data files, written out: {"use": name} takes a shared group, {"for": "1-8"} repeats an entry.

`use` copies a group of values.json; fields beside it win. `for` repeats an entry of a list, "{n}" in any of its
texts being the number. So a figure that many parts share is written once.
"""

from typing import Any

Shared = dict[str, dict[str, Any]]


def written_out(node: Any, shared: Shared) -> Any:
    """The node without short forms. KeyError for a group that does not exist."""
    if isinstance(node, list):
        return [entry for item in node for entry in _repeat(item, shared)]
    if not isinstance(node, dict):
        return node
    own = {key: written_out(value, shared) for key, value in node.items() if key != "use"}
    return {**written_out(shared[node["use"]], shared), **own} if "use" in node else own


def _repeat(item: Any, shared: Shared) -> list[Any]:
    if not isinstance(item, dict) or "for" not in item:
        return [written_out(item, shared)]
    first, last = (int(end) for end in item["for"].split("-"))
    rest = {key: value for key, value in item.items() if key != "for"}
    return [written_out(_number(rest, number), shared) for number in range(first, last + 1)]


def _number(node: Any, number: int) -> Any:
    if isinstance(node, dict):
        return {key: _number(value, number) for key, value in node.items()}
    if isinstance(node, list):
        return [_number(item, number) for item in node]
    return node.replace("{n}", str(number)) if isinstance(node, str) else node
