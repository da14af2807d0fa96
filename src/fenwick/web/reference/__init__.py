"""What the figures rest on: every rule of thumb, and the words."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, render_template, request
from flask.typing import ResponseReturnValue

from fenwick.core.components.dust import DUSTS
from fenwick.core.rules import CONTAINMENT_M3_H, RELEASE_VELOCITY, RULES, SUBJECTS, Rule
from fenwick.units import format_value, unit_label
from fenwick.web.kit.help import HELP, PLACES
from fenwick.web.kit.units import unit_system
from fenwick.web.kit.words import MACHINE_WORDS, RELEASE_WORDS
from fenwick.web.reference.beliefs import belief_tables
from fenwick.web.reference.catalogues import catalogue_tables
from fenwick.web.reference.equations import equations

bp = Blueprint("reference", __name__)


@bp.get("/assumptions")
def assumptions() -> ResponseReturnValue:
    """Every assumption with its value, range and source."""
    return render_template(
        "reference/assumptions.html",
        subjects=_by_subject(unit_system()),
        dusts=DUSTS.values(),
        releases=[(RELEASE_WORDS[key], *band) for key, band in RELEASE_VELOCITY.items()],
        containment=[(MACHINE_WORDS[key], *band) for key, band in CONTAINMENT_M3_H.items()],
        **catalogue_tables(unit_system()),
        beliefs=belief_tables(),
    )


@bp.get("/guide")
def guide() -> ResponseReturnValue:
    """Every page with the question that it answers."""
    places = [(place, list(dict.fromkeys(page for page in HELP.values() if page.place == place))) for place in PLACES]
    rules = _by_subject(unit_system())
    find = request.args.get("find", "").strip()[:100]
    return render_template("reference/guide.html", places=places, rules=rules, equations=equations(), find=find)


@dataclass(frozen=True)
class RuleRow:
    """A rule of thumb, in the user's units."""

    meaning: str
    value: str
    range: str
    source: str


def _by_subject(system: str) -> dict[str, list[RuleRow]]:
    """The rules under their subjects."""
    subjects: dict[str, list[RuleRow]] = {}
    for rule in RULES:

        def text(value: float, rule: Rule = rule) -> str:
            if rule.quantity == "number":
                return (f"{value:,.0f}" if abs(value) >= 1e6 else f"{value:,.6g}").replace(",", " ")
            return format_value(value, rule.quantity, system, field=True)

        unit = rule.unit or unit_label(rule.quantity, system)
        row = RuleRow(
            rule.meaning,
            f"{text(rule.value)} {unit}".strip(),
            f"{text(rule.low)} to {text(rule.high)}",
            rule.source,
        )
        subjects.setdefault(SUBJECTS[rule.key.split(".")[0]], []).append(row)
    return subjects


@bp.get("/terms")
def words() -> ResponseReturnValue:
    """The trade words."""
    return render_template("reference/terms.html")
