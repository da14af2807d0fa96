"""What readings can do, on simulated shops whose truth is known: coverage, hunts, verdicts; all seeded."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from bench.timing import median
from fenwick.core.bench.faults.hunt import LOOK, Case, hunt, next_checks
from fenwick.core.bench.faults.kinds import FAULTS, LOOKS, SYMPTOMS, possible, symptom_likelihood
from fenwick.core.bench.trials.compare import REAL, compare
from fenwick.core.components.elements import Hose
from fenwick.core.components.separator import Separator
from fenwick.core.line.line import Line
from fenwick.core.tuning.candidates import readable
from fenwick.core.tuning.factors import spreads, tuned
from fenwick.core.tuning.fit import KEYS, REACH, expected_at, fit
from fenwick.core.tuning.readings import Reading, expected
from fenwick.data.demo import demo_rig
from fenwick.rig import build_line

SHOPS, HUNTS, NULLS = 500, 500, 2000
LEFT_OPEN = 0.3  #: of what is believed of a factor, what tuning leaves open before a hunt [-]
Say = Callable[[str, str, str], None]


def candidates(line: Line) -> list[Reading]:
    """Everything that could be read of a line, or looked at."""
    leaf = next(leaf for leaf in line.leaves if leaf.open)
    parts = [part for branch in leaf.way for part in branch.elements] + list(line.trunk)
    places = [part.id for part in parts if isinstance(part, Hose | Separator)]
    return readable(line, places, ("", "sanding-p240", "saw"))


def readings(say: Say) -> None:
    """The figures, said one by one."""
    _coverage(say)
    _hunts(say)
    _nulls(say)


def _coverage(say: Say) -> None:
    lines = [build_line(demo_rig(name)) for name in ("demo_line", "demo_bench", "demo_cyclone")]
    rng, held = np.random.default_rng(500), np.zeros(len(KEYS))
    for shop in range(SHOPS):
        line = lines[shop % len(lines)]
        design = candidates(line)
        logs = spreads(KEYS) * rng.standard_normal(len(KEYS))
        truth = expected_at(line, design, logs[:, None])[:, 0]
        taken = [replace(r, value=float(v + r.sd * rng.standard_normal())) for r, v in zip(design, truth, strict=True)]
        found = fit(line, taken)
        assert found is not None
        held += np.abs(found.logs - logs) <= REACH * np.sqrt(np.diag(found.covariance))
    shares = 100.0 * held / SHOPS
    say(f"tuned intervals of {SHOPS} shops that hold the truth", f"{shares.mean():.1f} %", "aim: 85 to 95 %")
    say("the same, worst and best factor", f"{shares.min():.0f}–{shares.max():.0f} %", "")
    thirty = (taken * 3)[:30]
    say("tuning with 30 readings", f"{median(lambda: fit(line, thirty), 3):.2f} s", "aim: under 2 s")


def _hunts(say: Say) -> None:
    lines = [build_line(demo_rig(name)) for name in ("demo_line", "demo_bench", "demo_cyclone")]
    rng, first, third = np.random.default_rng(90), 0, 0
    covariance = np.diag(np.square(LEFT_OPEN * spreads(KEYS)))
    cases = [Case.of(line, covariance) for line in lines]
    began = time.perf_counter()
    for shop in range(HUNTS):
        line = lines[shop % len(lines)]
        sick = [one for one in possible(line) if one.fault != "healthy"]
        key = str(rng.choice(sorted({one.fault for one in sick})))
        degrees = [one for one in sick if one.fault == key]
        chosen = degrees[int(rng.integers(len(degrees)))]
        logs = LEFT_OPEN * spreads(KEYS) * rng.standard_normal(len(KEYS))
        truth = FAULTS[chosen.fault].change(tuned(line, dict(zip(KEYS, np.exp(logs), strict=True))), chosen.degree)
        assert truth is not None
        names = _hunt(cases[shop % len(lines)], truth, key, rng)
        first, third = first + (names[0] == key), third + (key in names[:3])
    say(f"right fault first, of {HUNTS} hunts with three checks", f"{100.0 * first / HUNTS:.0f} %", "aim: 80 %")
    say("right fault among the first three", f"{100.0 * third / HUNTS:.0f} %", "aim: 95 %")
    say("a hunt", f"{(time.perf_counter() - began) / HUNTS * 1e3:.0f} ms", "")


def _hunt(case: Case, truth: Line, key: str, rng: np.random.Generator) -> list[str]:
    """Suspects after three checks, each the one that Fenwick asks for."""
    offered = [*candidates(case.line), *(Reading(LOOK, 0.0, 0.25, "", fault) for fault in LOOKS)]
    noticed = [one for one in SYMPTOMS if rng.random() < symptom_likelihood(one, key)][:2]
    taken: list[Reading] = []
    found = hunt(case, taken, noticed)
    for _ in range(3):
        done = {(one.kind, one.station, one.dust) for one in taken}
        checks = next_checks(case, found, [c for c in offered if (c.kind, c.station, c.dust) not in done])
        if not checks:  # nothing parts those that are left
            break
        best = checks[0].reading
        seen = float(best.station == key) if best.kind == LOOK else float(expected(truth, [best])[0, 0])
        scatter = 0.1 if best.kind == LOOK else best.sd
        taken.append(replace(best, value=seen + scatter * rng.standard_normal()))
        found = hunt(case, taken, noticed)
    return [one.fault for one in found.suspects]


def _nulls(say: Say) -> None:
    rng, real = np.random.default_rng(2000), 0
    for _ in range(NULLS):
        n = int(rng.integers(2, 7))
        a, b = (0.9 + 0.01 * rng.standard_normal(n) for _ in range(2))
        found = compare(list(a), list(b), 0.002, 0.02)
        assert found is not None
        real += found.verdict == REAL
    say(f"“real” of {NULLS} changes of nothing", f"{100.0 * real / NULLS:.1f} %", "aim: at most 6 %")
