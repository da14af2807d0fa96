"""A dust by its classes of grains: their sizes, their masses, how fast they fall."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fenwick.core.components.dust import Dust, Mode
from fenwick.core.formulas.sizes import GRAVITY, SIZE_COUNT, SIZES
from fenwick.core.line.line import Line
from fenwick.core.workings.room_air import viscosity
from fenwick.core.workings.sheet import CATALOGUE, Input, Sheet, WorkedStep

CLASSES = "the middle of each of 60 classes, even in their logarithm; the end classes take the tails"


@dataclass(frozen=True)
class Grains:
    """The classes of a dust."""

    sizes: WorkedStep
    weights: WorkedStep
    densities: WorkedStep  #: a list for a mixture, else one number
    mean_density: WorkedStep


def grains_of(sheet: Sheet, dust: Dust, name: str = "dust") -> Grains:
    """The classes of a dust and the mass in each.

    Parameters
    ----------
    name : of the dust in the ids
    """
    sizes = sheet.published(f"{name}.sizes", "d", "Size of each class of grains", dust.sizes, "m", CLASSES)
    told = f"Share of the mass in each class: {'; '.join(_mode(mode) for mode in dust.modes)}"
    weights = sheet.given(f"{name}.weights", "w", told, dust.weights, "-", CATALOGUE, "log-normal modes by mass")
    mean = sheet.given(
        f"{name}.particle_density_kg_m3", "ρ_p", "Density of its grains", dust.particle_density, "kg/m³", CATALOGUE
    )
    each = mean
    if len(dust.densities) > 1:
        told = "Density of the grains of each class"
        each = sheet.given(f"{name}.densities", "ρ_i", told, dust.grain_density, "kg/m³", CATALOGUE)
    return Grains(sizes, weights, each, mean)


def _mode(mode: Mode) -> str:
    median, share = float(np.ravel(mode.median)[0]), float(np.ravel(mode.share)[0])
    return f"{100 * share:g} % with a median of {1e6 * median:g} µm, spread {mode.geometric_sd:g}"


def falling(sheet: Sheet, line: Line, grains: Grains, density: Input, name: str) -> WorkedStep:
    """Speed at which each class falls in still air.

    Parameters
    ----------
    density : of the air, a step [kg/m^3]
    name : id of the step
    """
    gravity = sheet.published("gravity", "g", "Gravity", GRAVITY, "m/s²", "standard gravity")
    law = "(rho * g * (rp - rho) / mu ** 2) ** (1 / 3) * d"
    mu = viscosity(sheet, line)
    told = "Size without units"
    brown = "Brown & Lawler, J. Environ. Eng. 129 (2003) 222"
    size = sheet.step(
        f"{name}.size", "d_*", told, law, "-", brown, rho=density, g=gravity, rp=grains.densities, mu=mu, d=grains.sizes
    )
    law = (
        "((18 / d ** 2) ** (0.898 * (0.936 * d + 1) / (d + 1)) + (0.317 / d) ** 0.449) ** -1.114"
        " * (mu * g * (rp - rho) / rho ** 2) ** (1 / 3)"
    )
    return sheet.step(
        name, "v_t", "Speed at which each class falls in still air", law, "m/s", brown, d=size, mu=mu, g=gravity,
        rp=grains.densities, rho=density
    )  # fmt: skip


def median_of(sheet: Sheet, grains: Grains, mass: WorkedStep, name: str) -> WorkedStep:
    """Size that half of some dust is finer than.

    Parameters
    ----------
    mass : in each class, a list
    name : id of the step
    """
    count = np.size(mass.value)
    assert isinstance(mass.value, np.ndarray)
    by_size = mass
    if count > SIZE_COUNT:
        parts = {f"m{k}": mass.value[k * SIZE_COUNT : (k + 1) * SIZE_COUNT] for k in range(count // SIZE_COUNT)}
        law = " + ".join(parts)
        by_size = sheet.step(f"{name}.by-size", "m", "Mass by size, whatever its density", law, "-", "", **parts)
    step = float(np.log(SIZES[1, 0] / SIZES[0, 0]))
    grown = sheet.step(f"{name}.grown", "M", "Mass up to each class", "cumsum(m)", "-", "", m=by_size)
    law = "exp(interp(sum(m) / 2, M, e))"
    edges = np.log(SIZES[:, 0]) + 0.5 * step
    return sheet.step(name, "d_med", "Median of what enters, by mass", law, "m", "", m=by_size, M=grown, e=edges)
