"""What differs between two rigs, part by part."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fenwick.rig.format.describe import describe
from fenwick.rig.format.model import Rig


@dataclass(frozen=True)
class Difference:
    """One key that differs; None where it is unset, or where a rig has no such part."""

    part: str  #: id of the part it belongs to; vacuum, site, dust or line for the rest
    title: str
    quantity: str | None
    values: tuple[Any, Any]
    absent: tuple[bool, bool]  #: whether the part itself is missing


def differences(left: Rig, right: Rig) -> list[Difference]:
    """Every value that differs, parts matched by their ids; names and ids aside."""
    ours, theirs = _parts(left), _parts(right)
    found = []
    for part in dict.fromkeys([*ours, *theirs]):
        a, b = ours.get(part), theirs.get(part)
        if a is None or b is None:
            found.append(Difference(part, "part", None, (None, None), (a is None, b is None)))
            continue
        for key in dict.fromkeys([*a, *b]):
            values = tuple(one[key].value if key in one else None for one in (a, b))
            if values[0] != values[1]:
                fact = a.get(key) or b[key]
                found.append(Difference(part, fact.title, fact.quantity, (values[0], values[1]), (False, False)))
    return found


@dataclass(frozen=True)
class _Fact:
    """One value of a part."""

    value: Any
    title: str
    quantity: str | None


SKIPPED = ("id", "name", "kind", "elements", "branches")  #: keys that say what a part is, or hold parts of their own


def _parts(rig: Rig) -> dict[str, dict[str, _Fact]]:
    """Leaves of every part, by the key below the part."""
    document = rig.model_dump(mode="json")
    places = [(top, top, document[top]) for top in ("site", "vacuum", "dust") if document[top] is not None]
    for way, branch in rig.line.walk():
        inner = branch.model_dump(mode="json")
        places.append((branch.id, f"line.{way}", inner))
        places += [(e["id"], f"line.{way}.elements[{i}]", e) for i, e in enumerate(inner["elements"])]
    places += [(e["id"], f"line.elements[{i}]", e) for i, e in enumerate(document["line"]["elements"])]
    parts = {part: dict(_leaves(value, path, len(path), document)) for part, path, value in places}
    if rig.dust is not None:
        parts["dust"]["kind"] = _Fact(rig.dust.kind, "Dust", None)
    return parts


def _leaves(value: Any, path: str, root: int, document: Any) -> Iterator[tuple[str, _Fact]]:
    if isinstance(value, dict):
        for key, inner in value.items():
            if key not in SKIPPED:
                yield from _leaves(inner, f"{path}.{key}", root, document)
    elif isinstance(value, list):
        for i, inner in enumerate(value):
            yield from _leaves(inner, f"{path}[{i}]", root, document)
    else:
        facts = describe(Rig, path, document)
        title, quantity = (facts.title, facts.quantity) if facts else (path[root:], None)
        yield path[root:], _Fact(value, title, quantity)
