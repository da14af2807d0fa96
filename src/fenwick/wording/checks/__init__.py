"""A title and a sentence for every check: figure, limit, reason, remedy, and the caution that belongs to it."""

from __future__ import annotations

from fenwick.core.judging.check import Check
from fenwick.wording.checks.facts import FACTS
from fenwick.wording.checks.figures import FIGURES, relief_words
from fenwick.wording.checks.path import ON_ITS_WAY
from fenwick.wording.checks.said import GROUPS, POWER, CheckWords, Said
from fenwick.wording.say import Voice

__all__ = ["CHECKS", "GROUPS", "POWER", "Said", "check_sentence", "relief_words"]

#: every check there is
CHECKS: dict[str, CheckWords] = {**FACTS, **FIGURES, **ON_ITS_WAY}


def check_sentence(check: Check, voice: Voice) -> str:
    """What a check found, for its first variant."""
    return CHECKS[check.id].sentence(Said(check, voice))
