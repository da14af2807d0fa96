"""The ways of a line as a document: what `fenwick improve` prints."""

from __future__ import annotations

from typing import Any

from fenwick.core.search.way.count import WayCount
from fenwick.rig.result import figures_document
from fenwick.services.way import FoundWay, FoundWays
from fenwick.services.way_steps import WayStep
from fenwick.wording.say import Voice
from fenwick.wording.way import left_sentences, way_title

FORMAT, VERSION = "fenwick-plans", 1


def plans_document(found: FoundWays, sign: str, voice: Voice) -> dict[str, Any]:
    """Plain values in SI; money is the shop's.

    Parameters
    ----------
    found : the ways
    sign : of the shop's money
    voice : for the words
    """
    return {
        "format": FORMAT,
        "version": VERSION,
        "money": sign,
        "plans": [_plan(way, sign, voice) for way in found.ways],
        "today": figures_document(found.today),
        "week_today": _week(found.count),
        "left": left_sentences(found.left, found.notices, found.lacking, voice),
        "tried": found.tried,
    }


def _plan(way: FoundWay, sign: str, voice: Voice) -> dict[str, Any]:
    keys = [step.move.option.key for step in way.steps]
    return {
        "title": way_title(way.limits, sign),
        "cost": round(way.cost, 2),
        "hours": round(way.hours, 2),
        "steps": [_step(step, keys, voice) for step in way.steps],
        "rig": way.rig.model_dump(mode="json"),
        "figures": figures_document(way.figures),
        "week": _week(way.count),
    }


def _step(step: WayStep, keys: list[str], voice: Voice) -> dict[str, Any]:
    option = step.move.option
    document: dict[str, Any] = {
        "change": step.move.tell(voice),
        "key": option.key,
        "part": option.part,
        "cost": round(option.cost, 2),
        "hours": option.hours,
        "figures": figures_document(step.figures),
        "week": _week(step.count),
    }
    if step.prepares is not None:
        document["prepares"] = keys.index(step.prepares) + 1
    return document


def _week(count: WayCount) -> dict[str, Any]:
    """Over the week's work, each tool at its turn; null where it is not known where all the dust goes."""
    lost, past = (count.lost, count.past) if count.known else (None, None)
    return {"acts": count.acts, "lost_kg": lost, "past_bin_kg": past, "made_kg": count.made}
