"""What is believed of a line before anything is read of it, and of its faults: tables of text."""

from __future__ import annotations

import numpy as np

from fenwick.core.bench.faults.hunt import MINUTES
from fenwick.core.bench.faults.kinds import ELSE, FAULTS, SYMPTOMS
from fenwick.core.tuning.factors import FACTORS
from fenwick.core.tuning.fit import REACH
from fenwick.web.reference.catalogues import Table
from fenwick.wording.faults import FAULT_WORDS, SYMPTOM_WORDS
from fenwick.wording.tuning import READING_WORDS


def belief_tables() -> dict[str, Table]:
    """Every table, by the name its template uses."""
    return {
        "factors": [
            (one.title, f"{np.exp(-REACH * one.spread):.2f} to {np.exp(REACH * one.spread):.2f} ×")
            for one in FACTORS.values()
        ],
        "faults": [(FAULT_WORDS[key][0], f"{one.prior:g}") for key, one in FAULTS.items()],
        "symptoms": [(words, _with(SYMPTOMS[key])) for key, words in SYMPTOM_WORDS.items()],
        "minutes": [(READING_WORDS.get(kind, "A look"), f"{minutes:.0f} min") for kind, minutes in MINUTES.items()],
    }


def _with(likely: dict[str, float]) -> str:
    told = [f"{FAULT_WORDS[fault][0].lower()} {100.0 * share:.0f}" for fault, share in likely.items()]
    return f"{'; '.join(told)}; with any other {100.0 * ELSE:.0f} in 100"
