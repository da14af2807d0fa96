"""Several photos or recordings of one thing, together: how they repeat, or what changed from one to the next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from fenwick.core.bench.trials.by_hand import flow_share_by_pitch
from fenwick.core.formulas.metrology import student
from fenwick.phone.found import RefusedError
from fenwick.phone.reading import GREY, PITCH, SQUARES, PhoneReading

NINE_IN_TEN = 1.645  #: standard uncertainties on either side of the middle nine in ten


def together(readings: Sequence[PhoneReading]) -> PhoneReading:
    """One reading of several of a kind.

    Squares are before and after: the last, with what came meanwhile. Pitches are open, shut, and as it stands. All
    else is one thing looked at again and again: the mean, its band as wide as the looks scatter.

    Raises
    ------
    RefusedError
        When they cannot be put together.
    """
    if len(readings) == 1:
        return readings[0]
    last = readings[-1]
    if last.kind == SQUARES:
        return _after(readings[0], last)
    if last.kind == PITCH:
        return _by_pitch(readings)
    return _mean(readings)


def _mean(readings: Sequence[PhoneReading]) -> PhoneReading:
    values = np.array([one.value for one in readings], dtype=float)
    value, sd = float(values.mean()), float(values.std(ddof=1))
    each = max(_half(one) for one in readings)
    half = max(float(student(0.95, len(values) - 1)) * sd / np.sqrt(len(values)), 0.6 * each)
    seen = {**readings[-1].seen, "values": [round(float(one), 3) for one in values], "repeats_within": round(sd, 3)}
    if readings[-1].kind == GREY:
        stars = [float(one.seen["L"]) for one in readings]
        seen["L"] = round(float(np.mean(stars)), 2)
        wide = max(float(one.seen["L_high"]) - float(one.seen["L"]) for one in readings)
        off = max(0.6 * wide, 2.0 * float(np.std(stars, ddof=1)) / np.sqrt(len(stars)))
        seen |= {"L_low": round(seen["L"] - off, 2), "L_high": round(seen["L"] + off, 2)}
    return replace(readings[-1], value=value, low=max(value - half, 0.0), high=value + half, seen=seen)


def _half(one: PhoneReading) -> float:
    assert one.low is not None
    assert one.high is not None
    return 0.5 * (one.high - one.low)


def _after(before: PhoneReading, after: PhoneReading) -> PhoneReading:
    assert before.value is not None
    assert after.value is not None
    more = after.value - before.value
    seen = {**after.seen, "before": before.value, "more": more, "before_share_of_area": before.seen["share_of_area"]}
    return replace(after, seen=seen)


def _by_pitch(readings: Sequence[PhoneReading]) -> PhoneReading:
    """Open, shut, and as it stands: the rough share of its open flow that a vacuum passes."""
    hertz = [float(one.value) for one in readings if one.value is not None]
    last = readings[-1]
    seen = {**last.seen, "open_hz": round(hertz[0], 2), "shut_hz": round(hertz[1], 2)}
    seen["ratio"] = round(hertz[1] / hertz[0], 4)
    if len(hertz) > 2:
        share = flow_share_by_pitch(hertz[0], hertz[1], hertz[-1])
        if share is None:
            raise RefusedError(
                "Shut, the motor must sound higher than open: the first recording is the open hose, the second the "
                "shut one, the third the line as it stands."
            )
        half = NINE_IN_TEN * share.sd
        seen |= {
            "share_of_open_flow": round(share.value, 3),
            "share_low": round(max(share.value - half, 0.0), 3),
            "share_high": round(min(share.value + half, 1.0), 3),
        }
    return replace(last, seen=seen)
