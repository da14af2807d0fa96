"""What simulated devices measure: a line whose truth is hidden, obeying the same physics as every other page."""

from __future__ import annotations

from abc import ABC, abstractmethod

import numpy as np

from fenwick.core.arrays import one_value
from fenwick.core.bench.trials.plan import CATCHES
from fenwick.core.formulas.room import concentration
from fenwick.core.hours.air import fine_source, room_of
from fenwick.core.judging.assess import assess
from fenwick.core.line.line import Line
from fenwick.core.rules import rule
from fenwick.core.tuning.factors import FACTORS, tuned
from fenwick.core.tuning.readings import BLOCKED, KEPT, SEALED, SUCTION, Reading, expected

HIDDEN = 0.5  #: of what is believed possible, how far a hidden truth strays from the description [-]
#: made-up weights, empty [kg]
EMPTY = {"bin": 2.143, "vacuum": 6.872, "filter": 0.412, "bag": 0.118, "cloth": 0.084, "hose": 0.948, "fed": 0.0}
HELD = 0.003  #: of what is fed, what stays in the hose [-]
SETTLES = 0.35  #: time constant of a scale's pan [s]
BASELINE = 9e-9  #: dust of the air outside [kg/m^3]
VOLUME = 43.0  #: of a made-up room [m^3]


def hidden_truth(line: Line, seed: int) -> Line:
    """The line as it really is: every factor strays by chance from its description."""
    rng = np.random.default_rng(seed)
    strayed = {key: float(np.exp(HIDDEN * one.spread * rng.standard_normal())) for key, one in FACTORS.items()}
    return tuned(line, strayed)


class World(ABC):
    """What one device measures."""

    step: float  #: that the device shows; SI
    noise: float  #: standard deviation of one figure; SI
    drift: float  #: of its zero, per root of a second; SI

    @abstractmethod
    def value(self, now: float) -> tuple[float, bool]:
        """(the true figure at a time [s], whether it stands still); SI."""

    @abstractmethod
    def tell(self, words: list[str], now: float) -> str:
        """Do what somebody in the shop does; what happened, in words.

        Raises
        ------
        ValueError
            When nobody could do that.
        """


class ScaleWorld(World):
    """A kitchen scale, and the things that are put on it."""

    step, noise, drift = 1e-3, 1e-4, 4e-6

    def __init__(self, truth: Line, seed: int, port: str = "") -> None:
        self._rng = np.random.default_rng(seed + 1)
        share = expected(truth, [Reading(KEPT, 0.0, 1.0, port)])[0, 0]
        self.share = float(share) if np.isfinite(share) else 1.0  #: kept, which nobody is told
        self.held = dict.fromkeys(EMPTY, 0.0)
        self._on, self._since, self._from = "", -1e3, 0.0

    def value(self, now: float) -> tuple[float, bool]:
        """What lies on the pan, coming to rest."""
        target = self._load()
        gone = np.exp(-max(now - self._since, 0.0) / SETTLES)
        value = target + (self._from - target) * gone
        return float(value), bool(abs(value - target) < 0.5 * self.step)

    def _load(self) -> float:
        return EMPTY[self._on] + self.held[self._on] if self._on else 0.0

    def tell(self, words: list[str], now: float) -> str:
        """`put THING`, `put nothing`, `feed KG`, `empty`."""
        match words:
            case ["put", thing] if thing in (*EMPTY, "nothing"):
                self._from, self._since = self.value(now)[0], now
                self._on = "" if thing == "nothing" else thing
                return f"{thing} on the scale"
            case ["feed", amount]:
                fed = float(amount)
                if not 0.0 < fed < 100.0:
                    raise ValueError("nobody feeds that much")
                self._feed(fed)
                return f"fed {fed:g} kg"
            case ["empty"]:
                self.held = dict.fromkeys(EMPTY, 0.0)
                return "all emptied"
        raise ValueError("it knows: put bin, vacuum, filter, bag, cloth, hose, fed or nothing; feed KG; empty")

    def _feed(self, fed: float) -> None:
        past = (1.0 - self.share) * float(np.exp(rule("test.scatter-past").value * self._rng.standard_normal()))
        past = min(past, 1.0)
        through = fed * (1.0 - HELD)
        self.held["fed"] = fed
        self.held["hose"] += fed - through
        for caught in CATCHES:
            self.held[caught] += through * past
        self.held["bin"] += through * (1.0 - past)


class ManometerWorld(World):
    """A tube of water that somebody holds to a hole."""

    step, noise, drift = 10.0, 12.0, 0.8

    def __init__(self, truth: Line, stations: tuple[str, ...], seed: int, port: str = "") -> None:
        del seed
        self._truth, self._stations, self._port = truth, stations, port
        self._known: dict[tuple[str, str], float] = {}
        self._how, self._at = SUCTION, stations[-1] if stations else ""

    def value(self, now: float) -> tuple[float, bool]:
        """Suction where the tube is held."""
        del now
        key = (self._how, self._at)
        if key not in self._known:
            where = "" if self._how == SEALED else self._at
            found = float(expected(self._truth, [Reading(self._how, 0.0, 1.0, self._port, where)])[0, 0])
            self._known[key] = found if np.isfinite(found) else 0.0
        return self._known[key], True

    def tell(self, words: list[str], now: float) -> str:
        """`at STATION`, `shut`, `open`, `alone`."""
        del now
        match words:
            case ["at", place] if place in self._stations:
                self._how, self._at = SUCTION, place
                return f"behind {place}"
            case ["shut"]:
                self._how = BLOCKED
                return "hose shut by hand"
            case ["alone"]:
                self._how = SEALED
                return "vacuum alone, sealed"
            case ["open"]:
                self._how = SUCTION
                return "hose open"
        raise ValueError(f"it knows: at {', '.join(self._stations) or 'nothing'}; shut; open; alone")


class MonitorWorld(World):
    """A particle monitor in a made-up room."""

    step, noise, drift = 1e-9, 6e-10, 2e-11

    def __init__(self, truth: Line, seed: int) -> None:
        del seed
        found = assess(truth)
        made = sum(one_value(leaf.port.dust_rate or 0.0) for leaf in truth.leaves if leaf.open) or 1.0 / 60e3
        source = fine_source(truth, found, made)
        room = room_of(VOLUME, None, 0.0, truth.rules)
        self._source = np.zeros(1) if source is None else source.breathed[:, 0]
        self._decay = np.full(1, one_value(room.rate)) if source is None else room.decay(source.falls)[:, 0]
        self._cuts: list[tuple[float, float]] = []

    def value(self, now: float) -> tuple[float, bool]:
        """Dust in the air after all cuts so far."""
        added = [
            float(np.sum(concentration(now - at, self._source, VOLUME, self._decay, lasted)))
            for at, lasted in self._cuts
            if now > at
        ]
        return BASELINE + sum(added), True

    def tell(self, words: list[str], now: float) -> str:
        """`cut SECONDS`."""
        match words:
            case ["cut", seconds] if 0.0 < float(seconds) < 36e3:
                self._cuts.append((now, float(seconds)))
                return f"cutting for {float(seconds):g} s"
        raise ValueError("it knows: cut SECONDS")
