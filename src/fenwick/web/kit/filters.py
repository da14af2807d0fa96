"""What every template may use."""

from __future__ import annotations

from typing import Any

from flask import Flask, url_for
from markupsafe import Markup, escape

from fenwick.units.sentence import both_ends, inside
from fenwick.web.kit.terms import TERMS
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.workings import how, working_address


def init_filters(app: Flask) -> None:
    """Give templates the unit system, its label and the terms, and how a name is written within a sentence."""
    app.jinja_env.filters["inside"] = inside
    app.jinja_env.filters["both_ends"] = both_ends
    app.jinja_env.filters["cited"] = cited

    @app.context_processor
    def _shared() -> dict[str, Any]:
        system = unit_system()
        shared = {"unit_system": system, "terms": TERMS, "level_words": LEVEL_WORDS}
        return {**shared, "how": how, "working_address": working_address}


#: what a term cites, and where that stands
CITED = {
    "rules of thumb": "rules-of-thumb",
    "rule of thumb": "rules-of-thumb",
    "industrial ventilation practice": "air-speed-needed-where-the-dust-is-made",
}


def cited(source: str) -> Markup:
    """A source with links to what it cites on the page of assumptions."""
    page, told = url_for("reference.assumptions"), escape(source)
    for words, place in CITED.items():
        for said in (words, words.capitalize()):
            if said in told:
                link = Markup('<a href="{}#{}">{}</a>').format(page, place, said)
                return Markup(str(told).replace(said, str(link), 1))
    return told


LEVEL_WORDS = {"ok": "in order", "watch": "watch", "act": "act"}
