"""Losses of bends, bore changes, openings and gates, as K on a velocity head ½ρv².

The coefficients are Rennels & Hudson, Pipe Flow (2012); `fluids` holds the same ones for single values and is the
oracle of the tests. They are written here as array expressions because variants differ in geometry.
"""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Values
from fenwick.core.formulas.orifice import DISCHARGE

LEAST_OPEN = 1e-7  #: of a plate, or a window, that is shut [m^2]


def bend_turning_loss(angle: Values, radius_over_bore: Values) -> tuple[Values, Values]:
    """Turning loss of a rounded bend as (a, b): K = a + b·f, f the friction factor [-].

    Parameters
    ----------
    angle : [rad]
    radius_over_bore : centre-line radius over bore, >= 0.5 [-]

    Notes
    -----
    Rennels: K = f α r/D + (0.10 + 2.4 f) sin(α/2) + 6.6 f (√sin(α/2) + sin(α/2)) / (r/D)^(4α/π). The first term is
    wall friction along the bend; it is left out here because a hose's length includes its bends. Published methods
    differ: 0.22 … 0.34 for the whole bend at r/D = 4.
    """
    s = np.sin(np.minimum(angle, np.pi) / 2.0)
    return 0.10 * s, 2.4 * s + 6.6 * (np.sqrt(s) + s) / np.power(radius_over_bore, 4.0 * angle / np.pi)


def _jet_ratio(beta: Values, strength: Values = 1.0) -> Values:
    return 1.0 + 0.622 * strength * (1.0 - 0.215 * beta**2 - 0.785 * beta**5)


def contraction_loss(bore_in: Values, bore_out: Values, length: Values = 0.0) -> Values:
    """K of a contraction on the velocity head of the *smaller*, downstream bore [-].

    Parameters
    ----------
    bore_in, bore_out : bore_out <= bore_in [m]
    length : of a conical form; 0 is a sharp step [m]
    """
    beta = bore_out / bore_in
    angle = 2.0 * np.arctan2(bore_in - bore_out, 2.0 * np.asarray(length))  # full cone angle, π for a sharp step
    steep = np.power(angle / np.pi, 0.8)
    jet = _jet_ratio(beta, steep)
    return 0.0696 * np.sin(angle / 2.0) * (1.0 - beta**5) * jet**2 + (jet - 1.0) ** 2


def expansion_loss(bore_in: Values, bore_out: Values, length: Values = 0.0) -> Values:
    """K of an expansion on the velocity head of the *smaller*, upstream bore [-].

    Parameters
    ----------
    bore_in, bore_out : bore_in <= bore_out [m]
    length : of a conical form; 0 is a sharp step [m]

    Notes
    -----
    Sharp: (1 − β²)², Borda–Carnot. Conical, full angle a: the sharp loss times 2.6 sin(a/2) below 45° (Crane TP-410).
    """
    area_ratio = (bore_in / bore_out) ** 2
    angle = 2.0 * np.arctan2(bore_out - bore_in, 2.0 * np.asarray(length))
    share = np.where(angle <= np.pi / 4.0, np.minimum(2.6 * np.sin(angle / 2.0), 1.0), 1.0)
    return share * (1.0 - area_ratio) ** 2


def cone_friction(bore_in: Values, bore_out: Values, length: Values) -> Values:
    """Wall friction of a cone as b in K = b·f, on the velocity head of the smaller bore [-]; 0 for a sharp step.

    Parameters
    ----------
    bore_in : upstream [m]
    bore_out : downstream [m]
    length : of the cone; 0 for a sharp step [m]

    Notes
    -----
    (1 − β⁴)/(8 sin(half-angle)), Rennels & Hudson.
    """
    small, large = np.minimum(bore_in, bore_out), np.maximum(bore_in, bore_out)
    slant = np.hypot(np.asarray(length), 0.5 * (large - small))
    step = 0.5 * (large - small)
    sine = np.where(slant > 0, step / np.where(slant > 0, slant, 1.0), 1.0)
    cone = (np.asarray(length) > 0) & (step > 0)
    return np.where(cone, (1.0 - (small / large) ** 4) / (8.0 * np.where(cone, sine, 1.0)), 0.0)


def gate_loss(opening: Values, bore: Values, shut_leak: Values, body: Values = 0.2) -> Values:
    """K of a blast gate on the velocity head of its bore [-].

    Parameters
    ----------
    opening : open share of the bore's area, 0 … 1 [-]
    bore : [m]
    shut_leak : area that stays open when it is shut, 10 mm² by rule [m^2]
    body : K of the open gate, 0.2 [-]

    Notes
    -----
    (1/(Cc θ) − 1)² + 0.2 with Cc = 0.63 + 0.37 θ³; θ never falls below shut_leak over the bore's area.
    """
    theta = np.clip(opening, shut_leak / bore_area(bore), 1.0)
    contraction = 0.63 + 0.37 * theta**3
    return np.asarray(body + (1.0 / (contraction * theta) - 1.0) ** 2)


def mitre_loss(angle: Values) -> Values:
    """K of a mitred elbow [-]: 0.42 sin(α/2) + 2.56 sin³(α/2) (Rennels & Hudson 2012); `angle` [rad].

    Parameters
    ----------
    angle : α, by which the air is turned [rad]
    """
    s = np.sin(np.minimum(angle, np.pi) / 2.0)
    return np.asarray(0.42 * s + 2.56 * s**3)


def plate_loss(bore: Values, open_area: Values) -> Values:
    """K of a perforated plate on the velocity head of its bore [-]: (A/(0.61 ΣA))².

    Parameters
    ----------
    bore : [m]
    open_area : of all holes [m^2]; one that is shut lets a trace through
    """
    return np.asarray(np.square(bore_area(bore) / (DISCHARGE * np.maximum(open_area, LEAST_OPEN))))


def bore_area(bore: Values) -> Values:
    """Area of a round bore [m^2].

    Parameters
    ----------
    bore : inside diameter [m]
    """
    return np.asarray(np.pi / 4.0 * np.square(bore))
