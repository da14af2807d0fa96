"""Ranking faults by what was noticed and read, and the next cheap check that separates the suspects.

Readings count with their own uncertainty and with what is not known of the line itself: its factors, as believed or as
tuned. Each fault stands for its degrees alike.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.bench.faults.kinds import FAULTS, FaultyLine, possible, symptom_likelihood
from fenwick.core.bench.faults.since import since_factor
from fenwick.core.errors import CoreError
from fenwick.core.line.line import Line
from fenwick.core.tuning.factors import spreads
from fenwick.core.tuning.fit import KEYS, slopes_at
from fenwick.core.tuning.readings import Reading, expected

#: minutes that a reading takes, by its kind
MINUTES = {"look": 2.0, "suction": 3.0, "blocked": 3.0, "sealed": 4.0, "flow": 8.0, "kept": 25.0}
LOOK, LOOK_SD = "look", 0.25  #: a reading that is 1 where a fault is seen and 0 where it is not; how far it errs
PATIENCE = 0.5  #: how much a reading's time counts against what it tells [-]
MOST_PAIRED = 6  #: suspects, of whom a check is to part two
SEEN_APART = 2.0  #: in a gauge's own uncertainties, below which two figures are one to it
LEAST_NAMED = 0.01  #: share from which a suspect is worth naming [-]


_Key = tuple[str, str, str, str]


def _key(reading: Reading) -> _Key:
    """What of a reading decides what the model says of it."""
    return reading.kind, reading.port, reading.station, reading.dust


@dataclass(frozen=True)
class Suspect:
    """One fault with how well it explains everything."""

    fault: str
    share: float  #: of belief [-]
    degree: float  #: that explains it best
    expected: Array  #: readings with it, shape (m,)


@dataclass(frozen=True)
class NextCheck:
    """A reading that would tell suspects apart, with what the two make it that it parts best."""

    reading: Reading
    leading: str  #: the likelier of the two faults
    other: str
    first: float  #: expected with the likelier one
    second: float  #: with the other
    apart: float  #: in standard deviations
    minutes: float


@dataclass(frozen=True)
class Hunt:
    """What is suspected so far."""

    suspects: tuple[Suspect, ...]  #: the likeliest first
    explained: bool  #: whether the leading one explains the readings at all

    @property
    def named(self) -> tuple[Suspect, ...]:
        """Those worth naming, the likeliest first."""
        return tuple(one for one in self.suspects if one.share > LEAST_NAMED)


@dataclass(frozen=True)
class Case:
    """A line with every fault it can have, ready to be judged by readings."""

    line: Line
    lines: tuple[FaultyLine, ...]  #: the healthy one first
    covariance: Array  #: of the logs of its factors, shape (k, k)
    #: what each line shows for a reading, and its slopes by the factors: found once, since no value comes into it
    _shown: dict[_Key, Array] = field(default_factory=dict, compare=False, repr=False)
    _slopes: dict[_Key, Array] = field(default_factory=dict, compare=False, repr=False)

    @staticmethod
    def of(line: Line, covariance: Array | None = None) -> Case:
        """Every fault of a line; its factors as believed, or with the covariance that tuning left.

        Parameters
        ----------
        covariance : of the logs of the factors, shape (k, k) [-]; None: as believed
        """
        return Case(line, tuple(possible(line)), np.diag(spreads(KEYS) ** 2) if covariance is None else covariance)

    def said(self, readings: Sequence[Reading]) -> Array:
        """What each line with a fault would show, shape (lines, m); nan where the model cannot say."""
        self._find([one for one in readings if _key(one) not in self._shown])
        return np.column_stack([self._shown[_key(one)] for one in readings]) if readings else self._nothing()

    def _nothing(self) -> Array:
        return np.zeros((len(self.lines), 0))

    def _find(self, missing: Sequence[Reading]) -> None:
        """What each line shows for readings that nobody asked for yet."""
        read = [reading for reading in missing if reading.kind != LOOK]
        for one in missing:
            if one.kind == LOOK:
                self._shown[_key(one)] = np.array([float(one.station == faulty.fault) for faulty in self.lines])
        if not read:
            return
        rows = np.full((len(self.lines), len(read)), np.nan)
        for i, faulty in enumerate(self.lines):
            try:
                rows[i] = expected(faulty.line, read)[:, 0]
            except CoreError:
                continue
        for one, column in zip(read, rows.T, strict=True):
            self._shown[_key(one)] = column

    def unsure(self, readings: Sequence[Reading]) -> Array:
        """Covariance of readings of the healthy line that its factors leave, shape (m, m)."""
        missing = [one for one in readings if one.kind != LOOK and _key(one) not in self._slopes]
        if missing:
            _, found = slopes_at(self.line, missing, np.zeros(len(KEYS)))
            self._slopes.update({_key(one): row for one, row in zip(missing, found, strict=True)})
        flat = np.zeros(len(KEYS))  # a look does not depend on the factors
        slopes = np.array([self._slopes.get(_key(one), flat) for one in readings]).reshape(len(readings), len(KEYS))
        return np.asarray(slopes @ self.covariance @ slopes.T)


def hunt(case: Case, readings: Sequence[Reading], symptoms: Sequence[str], since: str = "") -> Hunt:
    """Rank every fault.

    Parameters
    ----------
    case : the line with its faults
    readings : taken since it went wrong
    symptoms : keys of `SYMPTOMS` that were noticed
    since : the work with which it began, a key of `WORK`; empty: not known
    """
    said = case.said(readings)
    logs = _log_likelihoods(case, readings, said)
    best: dict[str, int] = {}  #: place of the degree of each fault that explains the readings best
    evidence: dict[str, list[float]] = {}
    for i, (faulty, log) in enumerate(zip(case.lines, logs, strict=True)):
        evidence.setdefault(faulty.fault, []).append(log)
        if log > logs[best.setdefault(faulty.fault, i)]:
            best[faulty.fault] = i
    totals = {}
    for key, found in evidence.items():
        noticed = sum(np.log(symptom_likelihood(symptom, key)) for symptom in symptoms)
        totals[key] = np.log(FAULTS[key].prior * since_factor(key, since)) + noticed + _log_mean(found)
    top = max(totals.values())
    weights = {key: float(np.exp(total - top)) for key, total in totals.items()}
    whole = sum(weights.values())
    suspects = [
        Suspect(key, weight / whole, case.lines[best[key]].degree, said[best[key]]) for key, weight in weights.items()
    ]
    suspects.sort(key=lambda one: -one.share)
    leading = logs[best[suspects[0].fault]]
    # twice the log-likelihood falls short of its best by chi-square: beyond this nothing here explains the readings
    explained = not readings or -2.0 * leading < 3.0 * len(readings) + 9.0
    return Hunt(tuple(suspects), bool(explained))


def _log_mean(logs: list[float]) -> float:
    most = max(logs)
    return most + float(np.log(np.mean(np.exp(np.array(logs) - most))))


def _log_likelihoods(case: Case, readings: Sequence[Reading], said: Array) -> Array:
    """Of each line, up to what all have in common, shape (lines,)."""
    if not readings:
        return np.zeros(len(case.lines))
    values = np.array([reading.value for reading in readings])
    spread = case.unsure(readings) + np.diag([reading.sd**2 for reading in readings])
    inverse = np.linalg.inv(spread)
    off = np.where(np.isfinite(said), said - values, 6.0 * np.sqrt(np.diag(spread)))
    return np.asarray(-0.5 * np.einsum("ij,jk,ik->i", off, inverse, off))


def next_checks(case: Case, so_far: Hunt, candidates: Sequence[Reading]) -> list[NextCheck]:
    """Readings ranked by how well they tell the suspects apart for the time they take.

    A pair of suspects counts by what is believed of both, and by how far their readings would overlap: e^(−d²/8), d the
    distance in standard deviations (Bhattacharyya).

    Parameters
    ----------
    case, so_far : the line, and what is suspected
    candidates : what could be read; their values do not count
    """
    if len(so_far.suspects) < 2 or not candidates:
        return []
    shares = {suspect.fault: suspect.share for suspect in so_far.suspects}
    said = case.said(candidates)
    counts = {key: sum(1 for one in case.lines if one.fault == key) for key in shares}
    weights = np.array([shares[one.fault] / counts[one.fault] for one in case.lines])
    other = np.array([[a.fault != b.fault for b in case.lines] for a in case.lines])
    unsure = np.sqrt(np.diag(case.unsure(candidates)) + np.array([reading.sd**2 for reading in candidates]))
    paired = so_far.suspects[:MOST_PAIRED]
    places = [
        next(i for i, made in enumerate(case.lines) if (made.fault, made.degree) == (one.fault, one.degree))
        for one in paired
    ]
    found = []
    for j, reading in enumerate(candidates):
        column = said[:, j]
        if not np.all(np.isfinite(column[places[:2]])):
            continue
        column = np.where(np.isfinite(column), column, column[places[0]])
        apart = (column[:, None] - column[None, :]) / unsure[j]
        told = float(np.sum(np.outer(weights, weights) * other * (1.0 - np.exp(-np.square(apart) / 8.0))))
        check = _parted(reading, paired, column[places], float(unsure[j]))
        if check is not None:
            found.append((told / check.minutes**PATIENCE, check))
    return [check for _, check in sorted(found, key=lambda pair: -pair[0])]


def _parted(reading: Reading, paired: Sequence[Suspect], shown: Array, unsure: float) -> NextCheck | None:
    """The two suspects that a reading parts best; None where the gauge shows both of any two alike."""
    shares = np.array([one.share for one in paired])
    off = np.abs(shown[:, None] - shown[None, :])
    gain = np.triu(np.outer(shares, shares) * (1.0 - np.exp(-np.square(off / unsure) / 8.0)), 1)
    if reading.kind != LOOK:
        gain = np.where(off < SEEN_APART * reading.sd, 0.0, gain)
    first, second = (int(i) for i in np.unravel_index(int(np.argmax(gain)), gain.shape))
    if gain[first, second] <= 0.0:
        return None
    minutes = MINUTES[reading.kind]
    faults = paired[first].fault, paired[second].fault
    apart = float(off[first, second]) / unsure
    return NextCheck(reading, *faults, float(shown[first]), float(shown[second]), apart, minutes)
