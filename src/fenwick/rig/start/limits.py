"""What an answer may be: figures beyond these belong to another field, or to another unit."""

from __future__ import annotations

from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.start.answers import Answers

#: of each figure: least, most, and what it measures
LIMITS: dict[str, tuple[tuple[float, float], str]] = {
    "sealed_suction": ((50.0, 60e3), "suction"),
    "open_flow": ((1e-3, 2.0), "flow"),
    "air_watts": ((1.0, 20e3), "power"),
    "electrical_power": ((20.0, 20e3), "power"),
    "current": ((0.1, 100.0), "current"),
    "mains": ((50.0, 480.0), "voltage"),
    "hose_bore": ((0.001, 1.0), "bore"),
    "hose_length": ((0.01, 200.0), "length"),
    "link_bore": ((0.001, 1.0), "bore"),
    "link_length": ((0.01, 200.0), "length"),
    "bin_top": ((0.01, 3.0), "bore"),
    "bin_bottom": ((0.01, 3.0), "bore"),
    "bin_height": ((0.01, 3.0), "bore"),
    "bin_volume": ((1e-4, 5.0), "volume"),
}


def check_answers(answers: Answers) -> None:
    """Refuse what cannot be, beside the answer's own name.

    Raises
    ------
    RigError
        With every answer that is too small or too large.
    """
    problems = []
    for name, ((least, most), quantity) in LIMITS.items():
        value = getattr(answers, name)
        if value is None or least <= value <= most:
            continue
        low = not value > most  # what is no number is no size either
        rule = "must be at least {limit}" if low else "must be at most {limit}"
        problems.append(Problem(name, rule, least if low else most, value, quantity))
    if problems:
        raise RigError(tuple(problems))
