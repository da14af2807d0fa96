"""The suction a vacuum's fan makes against the flow it passes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from scipy.interpolate import PchipInterpolator

from fenwick.core.arrays import Array, Values
from fenwick.core.errors import OutsideDomainError
from fenwick.core.formulas.orifice import orifice_flow

EXPONENT_RANGE = (0.5, 4.0)  #: of the nameplate curve; outside it the three figures contradict each other [-]


def suction_nameplate(flow: Values, sealed_suction: Values, open_flow: Values, exponent: Values = 1.0) -> Values:
    """Suction at the vacuum's inlet [Pa], clean filter, reference density.

    Parameters
    ----------
    flow : volume flow at room density, 0 … open_flow [m^3/s]
    sealed_suction : suction at no flow [Pa]
    open_flow : flow at no suction [m^3/s]
    exponent : 1 is a straight line; larger bulges outwards [-]

    Notes
    -----
    p = p0 (1 − (Q/Q0)^n).
    """
    return sealed_suction * (1.0 - np.power(flow / open_flow, exponent))


def peak_air_power_share(exponent: Values) -> Values:
    """Largest p·Q of a nameplate curve over p0·Q0 [-]: n/(n+1)^(1+1/n).

    Parameters
    ----------
    exponent : n of the nameplate curve [-]
    """
    return exponent / np.power(exponent + 1.0, 1.0 + 1.0 / np.asarray(exponent))


def exponent_from_air_power(air_power: float, sealed_suction: float, open_flow: float) -> float:
    """The exponent n at which the curve's peak air power is `air_power` [-].

    Parameters
    ----------
    air_power : largest p·Q ("air watts") [W]
    sealed_suction : [Pa]
    open_flow : [m^3/s]

    Raises
    ------
    OutsideDomainError
        When n would leave 0.5 … 4: the three figures cannot belong together.
    """
    share = air_power / (sealed_suction * open_flow)
    low, high = EXPONENT_RANGE
    least, most = (sealed_suction * open_flow * float(peak_air_power_share(n)) for n in EXPONENT_RANGE)
    if not least <= air_power <= most:
        side = "low" if air_power < least else "high"
        allowed = f"which allow {least:.0f} to {most:.0f} W"
        raise OutsideDomainError(
            "air watts", f"are too {side} for this sealed suction and open flow, {allowed}", air_power, "W"
        )
    for _ in range(60):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if peak_air_power_share(middle) < share else (low, middle)
    return 0.5 * (low + high)


def suction_points(flow: Values, flows: Array, suctions: Array) -> Array:
    """Suction of a measured curve [Pa], shape of `flow`.

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    flows, suctions : knots from `extend_points`, flow rising from 0, suction falling to 0 [m^3/s], [Pa]

    Notes
    -----
    Shape-preserving cubic interpolation (PCHIP, Fritsch & Carlson 1980); zero beyond the open flow.
    """
    return np.asarray(PchipInterpolator(flows, suctions)(np.clip(flow, 0.0, flows[-1])))


@dataclass(frozen=True)
class Misplaced:
    """A point that does not fit a falling curve."""

    at: int  #: its place
    against: int  #: that of the one it clashes with
    rule: str  #: that it breaks, to be followed by the other's name


def misplaced_point(points: Sequence[tuple[float, float]]) -> Misplaced | None:
    """The first point that does not fit a falling curve; None where all do.

    Parameters
    ----------
    points : (flow [m^3/s], suction [Pa]), in any order
    """
    order = sorted(range(len(points)), key=lambda i: points[i])
    for before, after in pairwise(order):
        if points[after][0] <= points[before][0]:
            return Misplaced(max(before, after), min(before, after), "stands at the same flow as")
        if points[after][1] >= points[before][1]:
            return Misplaced(max(before, after), min(before, after), "must fall in suction as flow rises, against")
    return None


def extend_points(points: Sequence[tuple[float, float]]) -> tuple[Array, Array]:
    """Measured points with their ends drawn out along the last secants, to no flow and to no suction.

    Parameters
    ----------
    points : three or more of (flow [m^3/s], suction [Pa]), in any order

    Returns
    -------
    Flows from 0 to the open flow [m^3/s], and suctions from the sealed suction to 0 [Pa].

    Raises
    ------
    OutsideDomainError
        Fewer than three points, two at one flow, or suction that does not fall as flow rises.
    """
    if len(points) < 3:
        raise OutsideDomainError("points", "must be three or more", len(points))
    clash = misplaced_point(points)
    if clash is not None:
        raise OutsideDomainError(f"point {clash.at + 1}", f"{clash.rule} point {clash.against + 1}")
    flow, suction = (np.array(column, dtype=float) for column in zip(*sorted(points), strict=True))
    if flow[0] > 0.0:
        steep = (suction[1] - suction[0]) / (flow[1] - flow[0])
        flow, suction = np.append(0.0, flow), np.append(suction[0] - steep * flow[0], suction)
    if suction[-1] > 0.0:
        steep = (suction[-1] - suction[-2]) / (flow[-1] - flow[-2])
        flow, suction = np.append(flow, flow[-1] - suction[-1] / steep), np.append(suction, 0.0)
    return flow, suction


def hole_plate_flow(diameter: Values, holes: Values, suction: Values, density: Values) -> Values:
    """Volume flow through a plate of sharp holes taped over a wide inlet [m^3/s].

    Parameters
    ----------
    diameter : of each hole [m]
    holes : how many [-]
    suction : read behind the plate [Pa]
    density : of the room's air [kg/m^3]
    """
    return orifice_flow(holes * np.pi / 4.0 * np.square(diameter), suction, density)


MOST_STEPS = 120  #: of halving and Newton together: 60 halvings would do alone


def meeting_points_flow(
    resistance: Array, density_ratio: Array, room_density: Array, flows: Array, suctions: Array
) -> Array:
    """Mass flow where a measured curve equals resistance·ṁ² [kg/s].

    Parameters
    ----------
    resistance : [Pa s^2/kg^2], shape (n,)
    density_ratio : room density over that of the curve [-], shape (n,)
    room_density : [kg/m^3], shape (n,)
    flows, suctions : knots of the curve [m^3/s], [Pa]

    Notes
    -----
    Bracketed Newton on the flow, where curve − resistance falls monotonically. A step that leaves the bracket, or comes
    from a cliff of the curve and hardly moves, is a halving instead: so it always ends.
    """
    curve = PchipInterpolator(flows, suctions)
    slope_of = curve.derivative()
    low, high = np.zeros_like(resistance), np.full_like(resistance, flows[-1])
    x, last = 0.5 * high, high
    for _ in range(MOST_STEPS):
        value = density_ratio * curve(x) - resistance * np.square(room_density * x)
        low, high = np.where(value > 0.0, x, low), np.where(value > 0.0, high, x)
        slope = density_ratio * slope_of(x) - 2.0 * resistance * np.square(room_density) * x
        step = x - value / np.where(slope < 0.0, slope, -1e-30)
        slow = np.abs(2.0 * value) > np.abs(last * slope)
        step = np.where((step > low) & (step < high) & ~slow, step, 0.5 * (low + high))
        last, x = step - x, step
        if float(np.max(np.abs(last))) < 1e-14 * flows[-1]:
            break
    return np.asarray(room_density * x)


def meeting_mass_flow(resistance: Array, sealed_suction: Array, open_mass_flow: Array, exponent: Array) -> Array:
    """Mass flow where the fan's suction equals resistance·ṁ² [kg/s].

    Parameters
    ----------
    resistance : Δp/ṁ² of everything upstream of the fan, > 0 [Pa s^2/kg^2], shape (n,)
    sealed_suction : at the room's density [Pa], shape (n,)
    open_mass_flow : open flow times room density [kg/s], shape (n,)
    exponent : of the nameplate curve [-], shape (n,)

    Notes
    -----
    n = 1 is a quadratic, solved in the form that stays exact for a vanishing resistance. Otherwise a bracketed
    Newton on x = ṁ/ṁ0 in 0 … 1, where 1 − xⁿ − r x² falls monotonically.
    """
    r = resistance * open_mass_flow**2 / sealed_suction
    x = 2.0 / (1.0 + np.sqrt(1.0 + 4.0 * r))
    if np.all(exponent == 1.0):
        return open_mass_flow * x
    low, high = np.zeros_like(x), np.ones_like(x)
    for _ in range(40):
        value = 1.0 - x**exponent - r * x * x
        low, high = np.where(value > 0, x, low), np.where(value > 0, high, x)
        slope = -exponent * x ** (exponent - 1.0) - 2.0 * r * x
        step = x - value / slope
        step = np.where((step > low) & (step < high), step, 0.5 * (low + high))
        moved, x = np.max(np.abs(step - x)), step
        if moved < 1e-13:
            break
    return open_mass_flow * x


def asked_suction(flow: Values, known_flow: Values, known_suction: Values) -> Array:
    """Suction that a line asks of its fan at another flow [Pa], broadcast shape: it goes with the square of the flow.

    Parameters
    ----------
    flow : at which it is asked [m^3/s]
    known_flow, known_suction : where the line runs, flow above 0 [m^3/s], [Pa]
    """
    return np.asarray(known_suction * np.square(np.asarray(flow) / known_flow))
