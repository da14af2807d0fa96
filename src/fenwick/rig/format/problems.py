"""What is wrong with a rig file, key by key, in words.

RigError (also ValueError): carries `problems`, each with the key's path, the rule it broke and the value received.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Any, Never

from pydantic import ValidationError
from pydantic_core import PydanticCustomError

from fenwick.units import QUANTITIES, format_value

REFUSED = "refused"
_PATH = re.compile(r"([^.\[\]]+)|\[(\d+)\]")


@dataclass(frozen=True)
class Problem:
    """One thing that is wrong.

    `rule` may hold the place {limit}; `limit` and `value` are in the unit of the key.
    """

    path: str  #: for example line.elements[0].bore_m; empty for the file as a whole
    rule: str
    limit: float | None = None
    value: object = None
    quantity: str | None = None

    def sentence(self, system: str | None = None) -> str:
        """The rule with its figures in the units of `system`, or in the file's own without one."""
        words = self.rule.replace("{limit}", self._figure(self.limit, system)) if self.limit is not None else self.rule
        got = self._received(system)
        return f"{words}{got}"

    def __str__(self) -> str:
        return f"{self.path}: {self.sentence()}" if self.path else self.sentence()

    def _figure(self, value: float | None, system: str | None) -> str:
        if value is None:
            return ""
        if self.quantity is None:
            return f"{value:g}"
        if system is None:
            return f"{value:g} {QUANTITIES[self.quantity].stored_label}".strip()
        return format_value(value, self.quantity, system, field=True, unit=True)

    def _received(self, system: str | None) -> str:
        value = self.value
        if value is None:
            return ""
        if isinstance(value, bool):
            return f" (got {'true' if value else 'false'})"
        if isinstance(value, int | float):
            if isinstance(value, int) and abs(value) > 1e300:
                return " (got a number far too large)"
            return f" (got {self._figure(value, system) if math.isfinite(value) else value})"
        if isinstance(value, str):
            return f" (got “{value if len(value) <= 40 else value[:40] + '…'}”)"
        return f" (got {_json_type(value)})"


class RigError(ValueError):
    """A rig that cannot be read; `problems` lists everything that is wrong with it."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        super().__init__(problems)
        self.problems = problems

    def __str__(self) -> str:
        more = len(self.problems) - 1
        return f"{self.problems[0]}" + (f" (and {more} more)" if more else "")


def refuse(key: str, rule: str, limit: float | None = None, *, at_most: bool = False) -> Never:
    """Refuse a value that its neighbours rule out; `key` is relative to the object being checked."""
    if at_most:
        rule += ", at most {limit}"
    raise PydanticCustomError(REFUSED, "{rule}", {"key": key, "rule": rule, "limit": limit})


def from_validation(error: ValidationError, document: Any, quantity_of: Any) -> RigError:
    """Turn pydantic's findings into problems.

    Parameters
    ----------
    error : what pydantic raised
    document : the parsed JSON that was checked
    quantity_of : function from a path to the quantity measured there, or None
    """
    problems = []
    for found in error.errors(include_url=False):
        context = found.get("ctx", {})
        path, value = _locate(found["loc"], document)
        if found["type"].startswith("union_tag"):
            path += "." + str(context["discriminator"]).strip("'")
        limit = None
        if found["type"] == REFUSED:
            path = f"{path}.{context['key']}" if path else context["key"]
            rule, limit, value = context["rule"], context["limit"], _value_at(path, document)
            value = value if isinstance(value, int | float) and limit is not None else None
        else:
            rule, limit, show = _rule(found["type"], context, quantity_of(path))
            value = value if show else None
        problems.append(Problem(path, rule, limit, value, quantity_of(path)))
    return RigError(tuple(problem for problem in problems if not _follows_from_another(problem, problems)))


def _follows_from_another(problem: Problem, problems: list[Problem]) -> bool:
    """A list counts as too short when one of its items is bad: only the item's own problem says anything."""
    return problem.rule.startswith("needs at least") and any(
        other.path.startswith(f"{problem.path}[") for other in problems
    )


#: pydantic's error types as (rule, name of the limit in its context, whether to show what was received)
_RULES: dict[str, tuple[str, str | None, bool]] = {
    "missing": ("is missing", None, False),
    "extra_forbidden": ("is not a key of the rig format", None, False),
    "greater_than": ("must be above {limit}", "gt", True),
    "greater_than_equal": ("must be at least {limit}", "ge", True),
    "less_than_equal": ("must be at most {limit}", "le", True),
    "less_than": ("must be below {limit}", "lt", True),
    "float_type": ("must be a number{unit}", None, True),
    "int_type": ("must be a whole number", None, True),
    "finite_number": ("must be a finite number", None, True),
    "literal_error": ("must be {expected}", None, True),
    "union_tag_invalid": ("must be one of {expected_tags}", None, False),
    "union_tag_not_found": ("is missing", None, False),
    "model_type": ("must be an object in braces", None, True),
    "model_attributes_type": ("must be an object in braces", None, True),
    "dict_type": ("must be an object in braces", None, True),
    "tuple_type": ("must be a list in brackets", None, True),
    "too_short": ("needs at least {min_length} of them", None, False),
    "too_long": ("can hold at most {max_length} in this version", None, False),
    "string_type": ("must be text", None, True),
    "string_too_short": ("must not be empty", None, False),
    "string_too_long": ("must be at most {max_length} characters", None, False),
    "string_pattern_mismatch": ("has characters that are not allowed here", None, True),
    "bool_type": ("must be true or false", None, True),
}


def _rule(kind: str, context: dict[str, Any], quantity: str | None) -> tuple[str, float | None, bool]:
    """(rule, limit, whether to show what was received) for one of pydantic's error types."""
    rule, limit, show = _RULES.get(kind, ("cannot be read", None, True))
    unit = QUANTITIES[quantity].stored_label if quantity else ""
    words = {**context, "unit": f" in {unit}" if unit else ""}
    for name, word in words.items():
        if name != limit:
            rule = rule.replace(f"{{{name}}}", str(word))
    return rule, context[limit] if limit else None, show


def _locate(location: tuple[int | str, ...], document: Any) -> tuple[str, Any]:
    """Path of a finding without the union tags that pydantic mixes into it, and the value found there.

    On entering an object of a union, the first item is its kind, and the next may be its type; only there is an item
    taken for a tag.
    """
    path, here, tags = "", document, ["kind", "type"]
    for item in location:
        if isinstance(here, dict) and tags and item == here.get(tags[0]):
            tags = tags[1:]
            continue
        if isinstance(item, int):
            path = f"{path}[{item}]"
            here = here[item] if isinstance(here, list) and item < len(here) else None
        else:
            path = f"{path}.{item}" if path else item
            here = here.get(item) if isinstance(here, dict) else None
        tags = ["kind", "type"]
    return path, here


def _value_at(path: str, document: Any) -> Any:
    here = document
    for item in split_path(path):
        try:
            here = here[item]
        except (KeyError, IndexError, TypeError):
            return None
    return here


def split_path(path: str) -> list[str | int]:
    """line.elements[0].bore_m as ["line", "elements", 0, "bore_m"]."""
    return [int(index) if index else name for name, index in _PATH.findall(path)]


def _json_type(value: object) -> str:
    if isinstance(value, dict):
        return "an object"
    return "a list" if isinstance(value, list | tuple) else "null"
