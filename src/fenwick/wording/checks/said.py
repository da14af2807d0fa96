"""What every sentence of a check is made from, and where it stands on the page."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from fenwick.core.judging.check import Check
from fenwick.wording.say import Voice

FIRE, LUNGS, STRENGTH, STANDING = "Fire", "Lungs", "Strength", "Standing and lifting"
POWER, PATH, JUDGED = "Motor and circuit", "Dust on its way", "How far to trust it"

#: headings in the order of the page: what burns and what shocks first, what merely works badly last
GROUPS = (FIRE, POWER, LUNGS, STRENGTH, STANDING, PATH, JUDGED)

_BORES = {"length": "bore"}  # lengths in checks are of bin and slot: millimetres, not metres


@dataclass(frozen=True)
class Said:
    """A check of a single variant, as its sentence needs it."""

    check: Check
    voice: Voice

    @property
    def level(self) -> int:
        """How bad it is: OK, WATCH or ACT."""
        return int(self.check.level[0])

    @property
    def value(self) -> str:
        """What it came to, with its unit."""
        return self._figure(float(self.check.value[0]))

    @property
    def limit(self) -> str:
        """What it is held against, with its unit."""
        return self._figure(float(self.check.limit[0]))

    @property
    def name(self) -> str:
        """The part it is about, as its owner calls it."""
        return self.voice.name(self.check.part)

    @property
    def machine(self) -> str:
        """The machine it is about, with its article."""
        return self.voice.machine(self.check.part)

    @property
    def about(self) -> tuple[str, ...]:
        """Kinds that a fact is about."""
        return self.check.about

    @property
    def notes(self) -> tuple[float, ...]:
        """Further figures that the sentence tells, in SI."""
        return self.check.notes

    def _figure(self, value: float) -> str:
        return self.voice.figure(value, _BORES.get(self.check.quantity, self.check.quantity))


@dataclass(frozen=True)
class CheckWords:
    """How a check is told."""

    group: str  #: the heading under which it stands
    title: str
    sentence: Callable[[Said], str]
