"""Random trees: whether each settles, and how many passes the slowest needs."""

from __future__ import annotations

import sys
import time
from collections import Counter
from math import radians

import numpy as np

from fenwick.core.components.elements import Branch, Elbow, Element, FixedLoss, Gate, Hose, Leak, Port, Reducer
from fenwick.core.components.vacuum import Nameplate, Vacuum
from fenwick.core.errors import NotConvergedError
from fenwick.core.line.line import Line
from fenwick.core.line.operating import operating_point

WALLS = ("smooth", "light-rib", "wire-helix", "corrugated", "pipe")
ENTRIES = ("plain", "flanged", "tapered", "bellmouth", "crevice", "brush")


class Maker:
    """Makes valid trees: bores 8 to 120 mm, leaks to 100 cm², fans to 46 kPa, to 8 ports and 40 elements."""

    def __init__(self, seed: int) -> None:
        self.rng = np.random.default_rng(seed)
        self.made = 0

    def bore(self) -> float:
        """Any bore [m]."""
        return float(self.rng.uniform(0.008, 0.12))

    def element(self) -> Element:
        """Any element but a separator."""
        self.made += 1
        name, rng = f"e{self.made}", self.rng
        match int(rng.integers(0, 8)):
            case 0 | 1 | 2:
                return Hose(name, self.bore(), float(rng.uniform(0.05, 12.0)), WALLS[int(rng.integers(5))])
            case 3:
                return Reducer(name, self.bore(), self.bore(), float(rng.choice([0.0, 0.05, 0.2])))
            case 4:
                return FixedLoss(name, self.bore(), float(rng.uniform(0.0, 5.0)))
            case 5:
                return Leak(name, float(10.0 ** rng.uniform(-6.0, -2.0)))
            case 6:
                return Gate(name, self.bore(), float(rng.uniform(0.0, 1.0)))
            case _:
                return Elbow(name, self.bore(), radians(90.0), ("long-sweep", "short", "mitre")[int(rng.integers(3))])

    def elements(self, most: int) -> tuple[Element, ...]:
        """A run."""
        return tuple(self.element() for _ in range(int(self.rng.integers(0, most + 1))))

    def branch(self, ports: int) -> Branch:
        """A branch with that many tool ports."""
        self.made += 1
        rng, name = self.rng, f"b{self.made}"
        opening = None if rng.random() < 0.5 else float(rng.choice([0.0, 0.3, 1.0]))
        angle = radians(float(rng.uniform(15.0, 90.0)))
        if ports == 1:
            port = Port(name, self.bore(), ENTRIES[int(rng.integers(6))])
            return Branch(name, port, self.elements(4), opening, angle)
        first = int(rng.integers(1, ports))
        inner = (self.branch(first), self.branch(ports - first))
        return Branch(name, None, self.elements(3), opening, angle, inner)

    def line(self) -> Line:
        """A whole line."""
        rng = self.rng
        curve = Nameplate(
            float(rng.uniform(1e3, 46e3)), float(rng.uniform(0.01, 0.3)), float(rng.choice([0.5, 1.0, 1.0, 3.0]))
        )
        branch = self.branch(int(rng.integers(1, 9)))
        inlet = None if rng.random() < 0.5 else self.bore()
        return Line(Vacuum(curve, inlet), None, (branch,), self.elements(6))


def main(count: int) -> None:
    """Solve that many and say how it went."""
    maker = Maker(2026)
    passes: Counter[int] = Counter()
    failed = 0
    slowest = 0.0
    for _ in range(count):
        line = maker.line()
        start = time.perf_counter()
        try:
            passes[operating_point(line).passes] += 1
        except NotConvergedError as error:
            failed += 1
            print(f"did not settle: {error}")
        slowest = max(slowest, time.perf_counter() - start)
    ordered = sorted(passes.elements())
    print(
        f"{count:,} random trees: {failed} did not settle; median {ordered[len(ordered) // 2]} passes, "
        f"most {ordered[-1]}; slowest {slowest * 1e3:.0f} ms"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 10_000)
