"""From bytes to a checked shop, and back."""

from __future__ import annotations

import json
from typing import Any

from pydantic import ValidationError

from fenwick.rig.format.describe import describe
from fenwick.rig.format.problems import Problem, RigError, from_validation
from fenwick.rig.format.read import parse_json
from fenwick.shop.model import FORMAT, VERSION, ShopFile


def read_shop(raw: bytes) -> ShopFile:
    """Check a shop file.

    Raises
    ------
    RigError
        With every problem found.
    """
    return check_shop(parse_json(raw))


def check_shop(document: Any) -> ShopFile:
    """Check a parsed shop.

    Raises
    ------
    RigError
    """
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise RigError((Problem("format", f"must be “{FORMAT}”: this is no shop file"),))
    version = document.get("version")
    if isinstance(version, int) and version > VERSION:
        raise RigError((Problem("version", f"is newer than this Fenwick reads ({VERSION}); update Fenwick"),))
    try:
        return ShopFile.model_validate(document)
    except ValidationError as error:
        raise from_validation(error, document, lambda path: _quantity(path, document)) from None


def write_shop(shop: ShopFile) -> bytes:
    """A shop as its file; what is not set is left out."""
    document = shop.model_dump(mode="json", exclude_none=True)
    return (json.dumps(document, indent=2, ensure_ascii=False, allow_nan=False) + "\n").encode()


def empty_shop(name: str) -> ShopFile:
    """A shop nobody has described yet."""
    return check_shop({"format": FORMAT, "version": VERSION, "name": name})


def _quantity(path: str, document: Any) -> str | None:
    facts = describe(ShopFile, path, document)
    return facts.quantity if facts else None
