"""A hunt for a fault as JSON: what it may be, and what to check next."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fenwick.core.bench.faults.checks import checks_of
from fenwick.core.bench.faults.hunt import LOOK, hunt, next_checks
from fenwick.core.tuning.readings import KINDS, Reading
from fenwick.rig import Rig
from fenwick.services.faults import case_of
from fenwick.units import QUANTITIES
from fenwick.wording.faults import FAULT_WORDS, belief_words


def hunt_document(rig: Rig, readings: Sequence[Reading], noticed: Sequence[str], since: str) -> dict[str, Any]:
    """Suspects and checks of a line.

    Parameters
    ----------
    readings : taken since it went wrong
    noticed : keys of symptoms
    since : the work with which it began; empty: not known
    """
    case = case_of(rig)
    found = hunt(case, readings, noticed, since)
    return {
        "format": "fenwick-hunt",
        "version": 1,
        "explained": found.explained,
        "suspects": [
            {
                "fault": one.fault,
                "share": round(one.share, 4),
                "belief": belief_words(one.share),
                "words": FAULT_WORDS[one.fault][0],
                "remedy": FAULT_WORDS[one.fault][1],
            }
            for one in found.named
        ],
        "checks": [
            {
                "kind": check.reading.kind,
                "station": check.reading.station,
                "port": check.reading.port,
                "minutes": check.minutes,
                "parts": [check.leading, check.other],
                "expected": [check.first, check.second],
                "unit": "" if check.reading.kind == LOOK else QUANTITIES[KINDS[check.reading.kind]].stored_label,
            }
            for check in next_checks(case, found, checks_of(case.line, readings))
        ],
    }
