"""Conical cyclones by four published models, side by side.

Symbols: a, b height and width of the inlet; D body; De outlet tube, reaching S below the roof; h cylinder; H whole
height; B dust outlet.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.arrays import Array, Values
from fenwick.core.formulas.swirl import SwirlGeometry

REFERENCE_TEMPERATURE = 283.0  #: of Alexander's vortex exponent [K]
LEAST_SHAPE = 1e-6  #: C of Leith and Licht is kept above this [-]


@dataclass(frozen=True)
class CycloneGeometry:
    """A conical cyclone; all in metres, shape () or (n,)."""

    inlet_height: Values  #: a [m]
    inlet_width: Values  #: b [m]
    body: Values  #: D [m]
    outlet: Values  #: De [m]
    outlet_length: Values  #: S, below the roof [m]
    cylinder: Values  #: h [m]
    height: Values  #: H, roof to dust outlet [m]
    dust_outlet: Values  #: B [m]

    @property
    def width_at_tube(self) -> Values:
        """Inside width of the body where the outlet tube ends [m]."""
        below = np.maximum(np.asarray(self.outlet_length) - self.cylinder, 0.0)
        cone = np.maximum(np.asarray(self.height - self.cylinder), 1e-9)
        return np.asarray(self.body - (self.body - np.asarray(self.dust_outlet)) * np.minimum(below / cone, 1.0))

    @property
    def orbit(self) -> SwirlGeometry:
        """What the orbit model needs.

        With an outlet wider than the dust outlet the orbit's cylinder meets the cone above its end:
        (D−De)(H−h)/(D−B) + h − S instead of H − S (Hoffmann & Stein, chapter 6).
        """
        d, de, b = np.asarray(self.body), np.asarray(self.outlet), np.asarray(self.dust_outlet)
        cone = np.asarray(self.height - self.cylinder)
        meets = (d - de) * cone / np.maximum(d - b, 1e-9) + self.cylinder - self.outlet_length
        reach = np.where(de > b, meets, self.height - self.outlet_length)
        slant = np.sqrt(np.square(cone) + np.square((d - b) / 2.0))
        wall = (
            np.pi / 4.0 * (np.square(d) - np.square(de))
            + np.pi * d * self.cylinder
            + np.pi / 2.0 * (d + b) * slant
            + np.pi * de * self.outlet_length
        )
        least = np.maximum(reach, de / 4.0)
        return SwirlGeometry(d / 2.0, de / 2.0, self.inlet_height, self.inlet_width, least, wall)


@dataclass(frozen=True)
class Grade:
    """What one model says of a cyclone."""

    cut_size: Array  #: kept by half, shape (n,) [m]
    efficiency: Array  #: of each size, shape (sizes, n) [-]
    extrapolated: Array  #: whether the model is used outside the range it was fitted to, shape (n,), bool


@dataclass(frozen=True)
class InletStream:
    """The dusty air that enters; shape () or (n,)."""

    flow: Values  #: [m^3/s]
    air_density: Values  #: [kg/m^3]
    viscosity: Values  #: [Pa s]
    temperature: Values  #: [K]
    particle_density: Values  #: [kg/m^3]


def inlet_velocity(g: CycloneGeometry, flow: Values) -> Array:
    """v_in, mean speed in the inlet [m/s]: Q/(ab).

    Parameters
    ----------
    flow : volume flow at room density [m^3/s]
    """
    return np.asarray(flow / (np.asarray(g.inlet_height) * g.inlet_width))


def grade_lapple(g: CycloneGeometry, stream: InletStream, diameter: Array) -> Grade:
    """Cut size [m] and grade [-] after Lapple (1951); the curve is that of Theodore & De Paola (1980).

    Parameters
    ----------
    diameter : of the grains [m]

    Notes
    -----
    Ne = (h + (H−h)/2)/a turns; d50 = √(9 μ b/(2π Ne v_in (ρp−ρ))); η = 1/(1 + (d50/d)²).
    """
    turns = (g.cylinder + (np.asarray(g.height) - g.cylinder) / 2.0) / g.inlet_height
    lift = 2.0 * np.pi * turns * inlet_velocity(g, stream.flow) * (stream.particle_density - stream.air_density)
    cut = np.asarray(np.sqrt(9.0 * stream.viscosity * g.inlet_width / lift))
    return Grade(cut, 1.0 / (1.0 + np.square(cut / diameter)), np.zeros(cut.shape, dtype=bool))


def natural_length(g: CycloneGeometry) -> Array:
    """ℓ, how far below its outlet tube a vortex reaches [m]: 2.3 De (D²/(ab))^(1/3) (Alexander 1949)."""
    return np.asarray(2.3 * g.outlet * np.cbrt(np.square(g.body) / (np.asarray(g.inlet_height) * g.inlet_width)))


def shape_leith_licht(g: CycloneGeometry) -> Array:
    """C, the shape factor of Leith and Licht [-]: 8 Kc/(Ka Kb), at least a small positive."""
    d, de, s = np.asarray(g.body), np.asarray(g.outlet), np.asarray(g.outlet_length)
    natural, below = natural_length(g), g.height - s
    whole = natural > below  # the vortex fills the body: the volume to the bottom counts
    reach = np.where(whole, below, natural)
    cone = np.maximum(np.asarray(g.height - g.cylinder), 1e-9)
    end = d - (d - g.dust_outlet) * (s + reach - g.cylinder) / cone
    end = np.where(whole, g.dust_outlet, np.minimum(end, d))
    deep = np.where(whole, cone, np.maximum(s + reach - g.cylinder, 0.0))
    annulus = np.pi / 4.0 * (s - g.inlet_height / 2.0) * (d**2 - de**2)
    vortex = (
        np.pi / 4.0 * d**2 * (g.cylinder - s)
        + np.pi / 12.0 * d**2 * deep * (1.0 + end / d + np.square(end / d))
        - np.pi / 4.0 * de**2 * reach
    )
    volume = (annulus + vortex / 2.0) / d**3
    return np.asarray(np.maximum(8.0 * volume * d**2 / (np.asarray(g.inlet_height) * g.inlet_width), LEAST_SHAPE))


def vortex_exponent(g: CycloneGeometry, temperature: Values) -> Array:
    """n of v_θ rⁿ = const [-]: 1 − (1 − 0.67 D^0.14)(T/283)^0.3, D in metres (Alexander 1949).

    Parameters
    ----------
    temperature : [K]
    """
    fall = 1.0 - 0.67 * np.power(np.asarray(g.body), 0.14)
    return np.asarray(1.0 - fall * np.power(np.asarray(temperature) / REFERENCE_TEMPERATURE, 0.3))


def grade_leith_licht(g: CycloneGeometry, stream: InletStream, diameter: Array) -> Grade:
    """Cut size [m] and grade [-] after Leith & Licht (1972): no swirl is ever quite sharp.

    Parameters
    ----------
    diameter : of the grains [m]

    Notes
    -----
    η = 1 − exp(−2 (Cψ)^(1/(2n+2))), ψ = ρp d² v_in (n+1)/(18 μ D).
    """
    n, c = vortex_exponent(g, stream.temperature), shape_leith_licht(g)
    per_square = c * stream.particle_density * inlet_velocity(g, stream.flow) * (n + 1.0)
    per_square = per_square / (18.0 * np.asarray(stream.viscosity) * g.body)
    power = 1.0 / (2.0 * n + 2.0)
    thrown = np.exp(power * (np.log(per_square) + 2.0 * np.log(diameter)))
    cut = np.sqrt(np.power(np.log(2.0) / 2.0, 1.0 / power) / per_square)
    return Grade(np.asarray(cut), -np.expm1(-2.0 * thrown), np.asarray(c <= LEAST_SHAPE))


def steepness_iozia_leith(g: CycloneGeometry, cut_size: Values) -> Array:
    """β before it is kept within 1 … 10 [-].

    Parameters
    ----------
    cut_size : d50, the size kept by half [m]

    Notes
    -----
    ln β = 0.62 − 0.87 ln(d50 in cm) + 5.21 ln(ab/D²) + 1.05 ln²(ab/D²) (Iozia & Leith 1990).
    """
    ratio = np.log(np.asarray(g.inlet_height) * g.inlet_width / np.square(g.body))
    return np.asarray(np.exp(0.62 - 0.87 * np.log(np.asarray(cut_size) * 100.0) + 5.21 * ratio + 1.05 * ratio**2))


def grade_iozia_leith(g: CycloneGeometry, stream: InletStream, diameter: Array) -> Grade:
    """Cut size [m] and grade [-] after Iozia & Leith (1990): speeds of the core fitted to measurements.

    Parameters
    ----------
    diameter : of the grains [m]

    Notes
    -----
    v_tmax = 6.1 v_in (ab/D²)^0.61 (De/D)^−0.74 (H/D)^−0.33; d_c = 0.52 D (ab/D²)^−0.25 (De/D)^1.53; the core's height
    z_c = H − S, or (H−S) − [(H−h)/(D/B − 1)](d_c/B − 1) where d_c > B; d50 = √(9 μ Q/(π ρp z_c v_tmax²)).
    """
    d = np.asarray(g.body)
    ratio = np.asarray(g.inlet_height) * g.inlet_width / d**2
    fastest = 6.1 * inlet_velocity(g, stream.flow) * np.power(ratio, 0.61)
    fastest = fastest * np.power(g.outlet / d, -0.74) * np.power(g.height / d, -0.33)
    core = 0.52 * d * np.power(ratio, -0.25) * np.power(g.outlet / d, 1.53)
    straight = np.asarray(g.height - g.outlet_length)
    slope = (g.height - g.cylinder) / np.maximum(d / g.dust_outlet - 1.0, 1e-9)
    tall = np.where(core > g.dust_outlet, straight - slope * (core / g.dust_outlet - 1.0), straight)
    tall = np.maximum(tall, np.asarray(g.outlet) / 4.0)
    cut = np.asarray(
        np.sqrt(9.0 * stream.viscosity * stream.flow / (np.pi * stream.particle_density * tall * fastest**2))
    )
    beta = steepness_iozia_leith(g, cut)
    kept = np.clip(beta, 1.0, 10.0)
    return Grade(cut, 1.0 / (1.0 + np.power(cut / diameter, kept)), np.asarray(beta != kept))


def heads_shepherd_lapple(g: CycloneGeometry) -> Array:
    """Pressure drop in inlet velocity heads [-]: 16 ab/De² (Shepherd & Lapple 1940)."""
    return np.asarray(16.0 * np.asarray(g.inlet_height) * g.inlet_width / np.square(g.outlet))


def drops_by_heads(g: CycloneGeometry, inlet_speed: Values, air_density: Values) -> dict[str, Array]:
    """Pressure drop by the two formulas in inlet velocity heads [Pa], by name.

    Parameters
    ----------
    g : the cyclone
    inlet_speed : [m/s]
    air_density : [kg/m^3]
    """
    head = 0.5 * np.asarray(air_density) * np.square(inlet_speed)
    return {"shepherd-lapple": heads_shepherd_lapple(g) * head, "casal": heads_casal(g) * head}


def heads_casal(g: CycloneGeometry) -> Array:
    """Pressure drop in inlet velocity heads [-]: 11.3 (ab/De²)² + 3.33 (Casal & Martínez-Benet 1983)."""
    return np.asarray(11.3 * np.square(np.asarray(g.inlet_height) * g.inlet_width / np.square(g.outlet)) + 3.33)


@dataclass(frozen=True)
class Family:
    """Published proportions, each over the body's diameter."""

    label: str
    a: float
    b: float
    outlet: float
    outlet_length: float
    cylinder: float
    height: float
    dust_outlet: float
    source: str

    def of(self, body: Values) -> CycloneGeometry:
        """The cyclone of that family with a body of some diameter [m].

        Parameters
        ----------
        body : diameter of the body [m]
        """
        ratios = (self.a, self.b, 1.0, self.outlet, self.outlet_length, self.cylinder, self.height, self.dust_outlet)
        return CycloneGeometry(*(ratio * np.asarray(body) if np.ndim(body) else ratio * body for ratio in ratios))


FAMILIES: dict[str, Family] = {
    "high-efficiency": Family(
        "High efficiency", 0.5, 0.2, 0.5, 0.5, 1.5, 4.0, 0.375, "Stairmand 1951, high efficiency"
    ),
    "general-purpose": Family("General purpose", 0.5, 0.25, 0.5, 0.6, 1.75, 3.75, 0.4, "Swift 1969, general purpose"),
    "conventional": Family("Conventional", 0.5, 0.25, 0.5, 0.625, 2.0, 4.0, 0.25, "Lapple 1951, conventional"),
    "high-throughput": Family(
        "High throughput", 0.75, 0.375, 0.75, 0.875, 1.5, 4.0, 0.375, "Stairmand 1951, high throughput"
    ),
}
