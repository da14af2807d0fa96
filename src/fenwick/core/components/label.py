"""What a label tells of a vacuum's fan, its class filling what the label leaves open."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import log

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.vacuums import BY_POWER, COMMONEST, MOST_SOCKET_POWER, VACUUMS, VacuumClass
from fenwick.core.formulas.fan import peak_air_power_share
from fenwick.core.rules import RuleBook


@dataclass(frozen=True)
class LabelFigures:
    """The figures on a label; None: not there, or not read."""

    sealed_suction: float | None = None  #: [Pa]
    open_flow: float | None = None  #: [m^3/s]
    air_watts: float | None = None  #: [W]
    electrical_power: float | None = None  #: [W]


@dataclass(frozen=True)
class LabelledFan:
    """A fan as a label and a class have it, at reference density; one vacuum."""

    kind: VacuumClass  #: the class it is taken for
    sealed_suction: float  #: [Pa]
    open_flow: float  #: [m^3/s]
    usual_suction: float  #: of the class before the label moved it [Pa]
    usual_flow: float  #: [m^3/s]
    power: float | None  #: electrical power that counts [W]
    peak_power: bool = False  #: whether the label shows more than a socket gives
    bounded: bool = False  #: whether the class would make more air than that power can
    air_share: float | None = None  #: most air power over electrical power [-]
    believable: bool = True  #: whether a fan can make so much of it


def fan_of(label: LabelFigures, kind: VacuumClass | None, rules: RuleBook) -> LabelledFan:
    """The fan that a label and a class tell of; every figure on the label moves what the label leaves open.

    A motor of other power than is usual in its class makes air power in proportion, shared between suction and flow; no
    more than is believable of its power (rules). What neither label nor air power tells is the class's.

    Parameters
    ----------
    label : what was read off it
    kind : class it is said to be; None: not known, then it lies between the classes nearest to it in power
    rules : in force
    """
    asked = label.electrical_power
    power = asked if asked is not None and asked <= MOST_SOCKET_POWER else None
    usual = _usual(kind, power)
    product = usual.sealed_suction * usual.open_flow
    share = float(peak_air_power_share(usual.kind.exponent))
    wanted, bounded = _wanted(label, usual, power, product * share, rules)
    suction, flow = label.sealed_suction, label.open_flow
    if wanted is not None:
        product = wanted / share
        more = product / (usual.sealed_suction * usual.open_flow)
        to_suction, apart = one_value(rules["fan.power-suction"]), one_value(rules["fan.apart"])
        if suction is None and flow is None:
            suction, flow = usual.sealed_suction * more**to_suction, usual.open_flow * more ** (1.0 - to_suction)
        elif suction is None and flow is not None:
            suction = min(product / flow, apart * usual.sealed_suction)
        elif flow is None and suction is not None:
            flow = min(product / suction, apart * usual.open_flow)
    suction = usual.sealed_suction if suction is None else suction
    flow = usual.open_flow if flow is None else flow
    made = label.air_watts if label.air_watts is not None else suction * flow * share
    air_share = None if power is None else made / power
    return LabelledFan(
        usual.kind, suction, flow, usual.sealed_suction, usual.open_flow, power,
        peak_power=asked is not None and power is None,
        bounded=bounded,
        air_share=air_share,
        believable=air_share is None or air_share <= one_value(rules["fan.believable"]),
    )  # fmt: skip


@dataclass(frozen=True)
class _Usual:
    """What is usual at some power."""

    kind: VacuumClass
    sealed_suction: float
    open_flow: float
    power: float | None


def _wanted(
    label: LabelFigures, usual: _Usual, power: float | None, air_power: float, rules: RuleBook
) -> tuple[float | None, bool]:
    """(largest air power that the fan has to make [W], whether its electrical power bounds it); None: the class's."""
    if label.air_watts is not None:
        return label.air_watts, False
    if power is None:
        return None, False
    scaled = air_power if usual.power is None else air_power * power / usual.power
    most = one_value(rules["fan.believable"]) * power
    if scaled > most:
        return most, True
    return (None if usual.power is None else scaled), False


def _usual(kind: VacuumClass | None, power: float | None) -> _Usual:
    if kind is not None:
        return _Usual(kind, kind.sealed_suction, kind.open_flow, kind.electrical_power)
    if power is None:
        kind = VACUUMS[COMMONEST]
        return _Usual(kind, kind.sealed_suction, kind.open_flow, kind.electrical_power)
    return _between([VACUUMS[key] for key in BY_POWER], power)


def _between(kinds: Sequence[VacuumClass], power: float) -> _Usual:
    """Between the classes on either side of a power, without a step; beyond the last ones, they themselves."""
    known = [(one, one.electrical_power) for one in kinds if one.electrical_power is not None]
    nearest = min(known, key=lambda one: abs(one[1] - power))[0]
    for (low, less), (high, more) in pairwise(known):
        if less <= power <= more:
            at = log(power / less) / log(more / less)

            def mixed(one: float, other: float, at: float = at) -> float:
                return float(one ** (1.0 - at) * other**at)

            suction = mixed(low.sealed_suction, high.sealed_suction)
            return _Usual(nearest, suction, mixed(low.open_flow, high.open_flow), power)
    return _Usual(nearest, nearest.sealed_suction, nearest.open_flow, nearest.electrical_power)
