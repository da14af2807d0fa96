"""What every template may use."""

from __future__ import annotations

from typing import Any

from flask import Flask

from fenwick.web.kit.terms import TERMS
from fenwick.web.kit.units import unit_system


def init_filters(app: Flask) -> None:
    """Give templates the unit system, its label and the terms."""

    @app.context_processor
    def _shared() -> dict[str, Any]:
        system = unit_system()
        return {"unit_system": system, "terms": TERMS, "level_words": LEVEL_WORDS}


LEVEL_WORDS = {"ok": "in order", "watch": "watch", "act": "act"}
