"""What differs between two rigs, part by part."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from fenwick.rig.format.describe import describe
from fenwick.rig.format.model import Rig


@dataclass(frozen=True)
class Difference:
    """One key that differs; None where it is unset, or where a rig has no such part."""

    part: str  #: id of the part it belongs to; vacuum, site, dust or line for the rest
    key: str  #: below the part, rows of a list without their number; empty where the part itself is missing
    title: str
    quantity: str | None
    values: tuple[Any, Any]
    absent: tuple[bool, bool]  #: whether the part itself is missing
    quiet: bool = False  #: whether it changes no figure: how a joint is made, a price, a size of another kind alone


def differences(left: Rig, right: Rig) -> list[Difference]:
    """Every value that differs, parts matched by their ids; names and ids aside."""
    ours, theirs = _parts(left), _parts(right)
    found = []
    for part in dict.fromkeys([*ours, *theirs]):
        a, b = ours.get(part), theirs.get(part)
        if a is None or b is None:
            found.append(Difference(part, "", "part", None, (None, None), (a is None, b is None)))
        else:
            found += _of_part(part, a, b)
    return found


def _of_part(part: str, a: dict[str, _Fact], b: dict[str, _Fact]) -> Iterator[Difference]:
    other_kind = any(key in a and key in b and a[key].value != b[key].value for key in KINDS)
    for key in sorted(dict.fromkeys([*a, *b]), key=lambda key: key not in KINDS):
        values = tuple(one[key].value if key in one else None for one in (a, b))
        if values[0] == values[1]:
            continue
        fact, plain = a.get(key) or b[key], ROW.sub("", key).lstrip(".")
        only_one = other_kind and (key not in a or key not in b) and not plain.startswith(STAYING)
        quiet = only_one or plain.startswith(QUIET)
        yield Difference(part, plain, fact.title, fact.quantity, (values[0], values[1]), (False, False), quiet)


@dataclass(frozen=True)
class _Fact:
    """One value of a part."""

    value: Any
    title: str
    quantity: str | None


KINDS = (".type", ".curve.kind", ".port.hood.kind")  #: keys that say which further keys a part has
#: keys of how a joint is made or looks, of standing, of making, of money and of what was: none changes a figure
QUIET = (
    "tool_end", "vacuum_end", "inlet_end", "port.end", "make", "price", "filter.price", "bag.price", "claim", "stand",
    "species", "cooling", "last_held", "emptied", "takes_water", "wiring", "electrical_power", "current", "bin.sight",
)  # fmt: skip
TITLES = {".port.hood.kind": "Hood", ".curve.kind": "Curve by", ".type": "Kind of separator"}
STAYING = ("bin.", "tilt", "stand.", "hoses_swapped")  #: keys that every kind of a part has
ROW = re.compile(r"\[\d+\]")
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
            if key not in SKIPPED or (key == "kind" and len(path) > root):
                yield from _leaves(inner, f"{path}.{key}", root, document)
    elif isinstance(value, list):
        for i, inner in enumerate(value):
            yield from _leaves(inner, f"{path}[{i}]", root, document)
    else:
        facts, key = describe(Rig, path, document), path[root:]
        title = TITLES.get(key) or (facts.title if facts else key.rpartition(".")[2].replace("_", " ").capitalize())
        yield key, _Fact(value, title, facts.quantity if facts else None)
