"""What every template may use."""

from __future__ import annotations

from typing import Any

from flask import Flask

from fenwick.units.sentence import both_ends, inside
from fenwick.web.kit.terms import TERMS
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.workings import how, working_address


def init_filters(app: Flask) -> None:
    """Give templates the unit system, its label and the terms, and how a name is written within a sentence."""
    app.jinja_env.filters["inside"] = inside
    app.jinja_env.filters["both_ends"] = both_ends

    @app.context_processor
    def _shared() -> dict[str, Any]:
        system = unit_system()
        shared = {"unit_system": system, "terms": TERMS, "level_words": LEVEL_WORDS}
        return {**shared, "how": how, "working_address": working_address}


LEVEL_WORDS = {"ok": "in order", "watch": "watch", "act": "act"}
