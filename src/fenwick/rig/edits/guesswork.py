"""Takes an answer where there is one, and a typical value with a mark where there is none."""

from __future__ import annotations

from typing import Any

from fenwick.core.catalogue.ranges import range_of


class Guesswork:
    """Collects the marks of one part."""

    def __init__(self, part: str) -> None:
        self.part = part
        self.marks: list[dict[str, Any]] = []

    def take(self, key: str, answer: Any, typical: Any) -> Any:
        """`answer`, or `typical` with the key marked as a guess."""
        if answer is not None:
            return answer
        self.mark(key, typical)
        return typical

    def mark(self, key: str, value: Any, spread: tuple[float, float] | None = None) -> None:
        """Mark a value as a guess; `spread` replaces the usual factors of its range."""
        span = range_of(key)
        mark: dict[str, Any] = {"part": self.part, "key": key}
        if isinstance(value, str):
            others = [other for other in span.others if other != value]
            if others:
                mark["others"] = others
        else:
            low, high = spread or (span.low, span.high)
            mark |= {"low": tidy(value * low), "high": tidy(value * high)}
            if key.endswith("thrown_share"):
                mark["high"] = min(1.0, mark["high"])
        self.marks.append(mark)


def tidy(value: float) -> float:
    """A guess has no more than three figures worth writing down."""
    return float(f"{value:.3g}")
