"""What was concluded from an answer: a sentence with figures, told in the units of whoever reads it."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.units import format_value


@dataclass(frozen=True)
class Conclusion:
    """One sentence; each `{}` in its words is the figure in that place."""

    words: str
    figures: tuple[tuple[float, str], ...] = ()  #: (stored value, key of QUANTITIES)

    def sentence(self, system: str) -> str:
        """The words with their figures."""
        return self.words.format(*(format_value(value, kind, system, unit=True) for value, kind in self.figures))
