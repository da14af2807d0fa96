"""From bytes to a checked rig, and back."""

from __future__ import annotations

import json
from typing import Any

from pydantic import ValidationError

from fenwick.rig.format.describe import describe
from fenwick.rig.format.guesses import guess_problems
from fenwick.rig.format.model import FORMAT, VERSION, Rig
from fenwick.rig.format.objections import dangers
from fenwick.rig.format.problems import Problem, RigError, from_validation

MAX_BYTES = 1_000_000


class _NotJsonError(ValueError):
    """Something JSON does not allow, though Python's parser would."""


def read_rig(raw: bytes) -> Rig:
    """Check a rig file.

    Raises
    ------
    RigError
        With every problem found; its first is the one to show where there is room for one.
    """
    return check_rig(parse_json(raw))


def read_from_outside(raw: bytes) -> Rig:
    """A rig file from outside: refused, too, where it holds what must not be brought in anew.

    Raises
    ------
    RigError
    """
    rig = read_rig(raw)
    found = dangers(rig)
    if found:
        raise RigError(found)
    return rig


def check_rig(document: Any) -> Rig:
    """Check a parsed rig.

    Raises
    ------
    RigError
    """
    _check_head(document)
    try:
        rig = Rig.model_validate(document)
    except ValidationError as error:
        raise from_validation(error, document, lambda path: _quantity(path, document)) from None
    if rig.guesses:
        wrong = guess_problems(rig.model_dump(mode="json"))
        if wrong:
            raise RigError(tuple(wrong))
    return rig


def write_rig(rig: Rig) -> bytes:
    """A rig as its file: indented JSON, keys in the order of the format, what is not set left out."""
    document = rig.model_dump(mode="json", exclude_none=True)
    if not rig.guesses:
        del document["guesses"]
    return (json.dumps(document, indent=2, ensure_ascii=False, allow_nan=False) + "\n").encode()


def _quantity(path: str, document: Any) -> str | None:
    facts = describe(Rig, path, document)
    return facts.quantity if facts else None


def _check_head(document: Any) -> None:
    """Format and version first: a file of another kind would fail in a hundred unhelpful ways."""
    if not isinstance(document, dict):
        kind = "a list" if isinstance(document, list) else "not an object"
        raise _refused("", f"the file holds {kind}; a rig file is one JSON object in braces")
    if "format" not in document:
        raise _refused("format", f"is missing; a rig file says “{FORMAT}” here")
    if document["format"] != FORMAT:
        raise _refused("format", f"must be “{FORMAT}”")
    version = document.get("version")
    if isinstance(version, int) and not isinstance(version, bool) and version > VERSION:
        raise _refused("version", f"is newer than this Fenwick reads ({VERSION}); update Fenwick to open the file")


def _refused(path: str, rule: str) -> RigError:
    return RigError((Problem(path, rule),))


def parse_json(raw: bytes) -> Any:
    """JSON without repeated keys, not-a-numbers or a size no file of ours has.

    Raises
    ------
    RigError
    """
    if len(raw) > MAX_BYTES:
        raise _refused("", too_large(len(raw)))
    if not raw.strip():
        raise _refused("", "the file is empty")
    try:
        text = raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise _refused("", f"the file is not text in UTF-8 (byte {error.start + 1})") from None
    try:
        return json.loads(text, parse_constant=_no_constant, object_pairs_hook=_no_twins)
    except json.JSONDecodeError as error:
        raise _refused("", f"the file is not JSON: line {error.lineno}, column {error.colno}: {error.msg}") from None
    except _NotJsonError as error:
        raise _refused("", f"the file is not valid: {error}") from None
    except RecursionError:
        raise _refused("", "the file is nested too deeply to be a rig") from None
    except ValueError:  # Python refuses integers of thousands of digits
        raise _refused("", "the file holds a number far too long to be a measurement") from None


def too_large(size: int) -> str:
    """Why a file of that many bytes is not read."""
    return f"the file is {size / 1e6:.1f} MB; a rig file is at most {MAX_BYTES / 1e6:.0f} MB"


def _no_constant(name: str) -> Any:
    raise _NotJsonError(f"{name} is not a number")


def _no_twins(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) < len(pairs):
        names = [name for name, _ in pairs]
        twin = next(name for name in names if names.count(name) > 1)
        raise _NotJsonError(f"the key “{twin[:40]}” stands twice in one object")
    return found
