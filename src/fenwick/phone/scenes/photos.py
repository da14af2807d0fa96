"""Photos of filters, sheets of squares, bins and tubes, each with its truth; and broken ones, which must be refused."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

import cv2
import numpy as np

from fenwick.core.arrays import Array
from fenwick.core.rules import RuleBook
from fenwick.phone.grey import grade_of
from fenwick.phone.light import reflectance
from fenwick.phone.scenes.camera import Shot, taken
from fenwick.phone.scenes.paint import FINE, FlatWorld, grainy
from fenwick.phone.targets import CARD, COLUMNS, GRID, ROWS, SHEET, SQUARE, STRIP, TALL, WIDE, WINDOW, Patch, Target

ROUND = 40.0  #: what a world shows round its sheet [mm]
WOOD = np.array([0.36, 0.24, 0.14])  #: light of a bench [-]
SAWDUST = np.array([0.55, 0.40, 0.24])
BROKEN = ("no-card", "cut", "blur", "dark", "two", "scale", "shadow")


@dataclass(frozen=True)
class StandIn:
    """A stand-in with its truth."""

    kind: str
    data: bytes
    suffix: str
    truth: dict[str, Any]


def _world(target: Target, chance: np.random.Generator, colour: Array = WOOD) -> FlatWorld:
    world = FlatWorld(-ROUND, -ROUND, target.width + 2.0 * ROUND, target.height + 2.0 * ROUND)
    world.fill(colour)
    world.light *= grainy(chance, world.light.shape[:2], 30.0, 0.12)[..., None]
    return world


def _shown(
    kind: str, world: FlatWorld, target: Target, chance: np.random.Generator, truth: dict[str, Any], broken: str
) -> StandIn:
    upright = target is STRIP
    shot = Shot.drawn(chance, upright=upright)
    size = (target.width + (80.0 if upright else 0.0), target.height)
    middle = (target.width / 2.0, target.height / 2.0)
    shade = 1.0
    if broken == "blur":
        shot = replace(shot, blur=float(chance.uniform(9.0, 14.0)))
    if broken == "dark":
        shot = replace(shot, bright=float(chance.uniform(0.004, 0.03)))
    if broken == "shadow":
        shade = float(chance.uniform(0.25, 0.5))
    if broken == "cut":
        away_x, away_y = (0.75 * side * float(chance.choice([-1.0, 1.0])) for side in size)
        middle = (middle[0] + away_x, middle[1] + away_y)
    if broken == "two":
        world = _beside(world, target)
        middle, size = (target.width + ROUND, middle[1]), (2.0 * target.width + ROUND, size[1])
    told = {**truth, "tilt_deg": float(np.degrees(shot.tilt)), "broken": broken or None}
    return StandIn(kind, taken(world, shot, chance, middle, size, upright=upright, shade=shade), ".jpg", told)


def _sheet(world: FlatWorld, target: Target, broken: str) -> None:
    """The sheet printed into its world, as far as it is there."""
    if broken == "no-card":
        return
    world.printed(target)


def _beside(world: FlatWorld, target: Target) -> FlatWorld:
    """The same, and one more of the sheet beside it."""
    both = FlatWorld(world.left, world.top, 2.0 * target.width + 4.0 * ROUND, target.height + 2.0 * ROUND)
    both.fill(WOOD)
    both.light[:, : world.light.shape[1]] = world.light
    both.left -= target.width + 2.0 * ROUND  # where the other one's origin is
    both.printed(target)
    both.left = world.left
    return both


def grey_scene(seed: int, broken: str = "") -> StandIn:
    """A filter seen through the window of the card.

    Parameters
    ----------
    seed : of all that is drawn [-]
    broken : one of BROKEN; empty: as it should be
    """
    chance = np.random.default_rng([seed, 1])
    world = _world(CARD, chance)
    star = float(chance.uniform(25.0, 95.0))
    _sheet(world, CARD, broken)
    if broken == "scale":  # the lines of another print: its 50 mm are not 50 mm of this card
        world.patch(Patch(30.0, 72.5, 60.0, 8.5))
        factor = float(chance.choice([0.9, 1.1]))
        for x in (60.0 - 25.0 * factor, 60.0 + 25.0 * factor):
            world.patch(Patch(x - 0.3, 74.0, 0.6, 6.0, 0.0))
        world.patch(Patch(60.0 - 25.0 * factor, 76.7, 50.0 * factor, 0.6, 0.0))
    if broken != "no-card":
        (x0, x1), (y0, y1) = world.place(
            np.array([WINDOW.left, WINDOW.left + WINDOW.width]), np.array([WINDOW.top, WINDOW.top + WINDOW.height])
        )
        shape = (round(float(y1 - y0)), round(float(x1 - x0)))
        tint = np.array([1.0 + chance.uniform(-0.05, 0.1), 1.0, 1.0 - chance.uniform(0.0, 0.15)])
        tint = tint / float(tint @ np.array([0.2126, 0.7152, 0.0722]))
        cloth = grainy(chance, shape, 40.0, 0.05) * grainy(chance, shape, 4.0, 0.05)
        cloth = cloth / float(np.median(cloth))
        seen = float(reflectance(np.array(star))) * cloth[..., None] * tint
        i, j = round(float(y0)), round(float(x0))
        world.light[i : i + shape[0], j : j + shape[1]] = seen
    return _shown("grey", world, CARD, chance, {"value": float(grade_of(star, RuleBook())), "L": star}, broken)


def squares_scene(seed: int, broken: str = "") -> StandIn:
    """A sheet of squares with dust on some of them.

    Parameters
    ----------
    seed : of all that is drawn [-]
    broken : one of BROKEN; empty: as it should be
    """
    chance = np.random.default_rng([seed, 2])
    world = _world(SHEET, chance)
    _sheet(world, SHEET, broken)
    hits = 0
    share = float(chance.uniform(0.03, 0.9))
    if broken != "no-card":
        for row in range(ROWS):
            for column in range(COLUMNS):
                if chance.random() < share:
                    hits += 1
                    _dust(world, chance, column, row)
    return _shown("squares", world, SHEET, chance, {"value": hits, "of": ROWS * COLUMNS}, broken)


def _dust(world: FlatWorld, chance: np.random.Generator, column: int, row: int) -> None:
    """A square that is hit: crumbs over a sixth of it or more, none beyond its lines."""
    left, top = GRID.left + column * SQUARE, GRID.top + row * SQUARE
    (x,), (y,) = world.place(np.array([left + 0.4]), np.array([top + 0.4]))
    side = round((SQUARE - 0.8) * FINE)
    cover = chance.uniform(0.18, 0.8)
    cloud = grainy(chance, (side, side), 6.0, 0.3)
    covered = cloud > np.quantile(cloud, 1.0 - cover)
    i, j = round(float(y)), round(float(x))
    part = world.light[i : i + side, j : j + side]
    part[covered] = SAWDUST * chance.uniform(0.75, 1.1)


def depth_scene(seed: int, broken: str = "") -> StandIn:
    """A clear bin with dust in it, the strip stuck on its wall.

    Parameters
    ----------
    seed : of all that is drawn [-]
    broken : one of BROKEN; empty: as it should be
    """
    chance = np.random.default_rng([seed, 3])
    world = _world(STRIP, chance, np.array([0.5, 0.52, 0.55]))
    depth = float(chance.uniform(25.0, 235.0))
    slope = float(chance.uniform(-0.12, 0.12))
    high, wide = world.light.shape[:2]
    x = world.left + (np.arange(wide) + 0.5) / FINE
    y = world.top + (np.arange(high) + 0.5) / FINE
    rough = cv2.GaussianBlur(chance.normal(0.0, 1.0, (1, wide)), (0, 0), 24.0).ravel()
    level = TALL - depth + slope * (x - WIDE - 15.0) + 1.2 * rough / max(float(rough.std()), 1e-9)
    beside = ((x > -24.0) & (x < -2.0)) | ((x > WIDE + 2.0) & (x < WIDE + 24.0))
    slope_seen, at = np.polyfit(x[beside] - WIDE, TALL - level[beside], 1)  # of the surface as it is drawn
    dust = SAWDUST * chance.uniform(0.7, 1.15) * grainy(chance, (high, wide), 8.0, 0.1)[..., None]
    below = np.clip((y[:, None] - level[None, :]) * FINE, 0.0, 1.0)[..., None]
    floor = np.clip((TALL - y) * FINE, 0.0, 1.0)[:, None, None]
    world.light = world.light * (1.0 - below * floor) + dust * below * floor
    _sheet(world, STRIP, broken)
    return _shown("depth", world, STRIP, chance, {"value": float(at + 15.0 * slope_seen)}, broken)


def tube_scene(seed: int, broken: str = "") -> StandIn:
    """A U of clear tube with coloured water, the strip between its legs.

    Parameters
    ----------
    seed : of all that is drawn [-]
    broken : one of BROKEN; empty: as it should be
    """
    chance = np.random.default_rng([seed, 4])
    world = _world(STRIP, chance, np.array([0.62, 0.6, 0.56]))
    middle, half = chance.uniform(80.0, 190.0), chance.uniform(-70.0, 70.0)
    colour = np.array([[0.12, 0.2, 0.5], [0.5, 0.1, 0.1], [0.1, 0.4, 0.2]])[int(chance.integers(3))]
    bore = float(chance.uniform(5.0, 9.0))
    gap = float(chance.uniform(4.0, 10.0))
    heights = (float(np.clip(middle + half, 15.0, 250.0)), float(np.clip(middle - half, 15.0, 250.0)))
    for left, up in ((-gap - bore, heights[0]), (WIDE + gap, heights[1])):
        _tube(world, left, bore, up, colour)
    _sheet(world, STRIP, broken)
    truth = {"value": abs(heights[0] - heights[1]), "left": heights[0], "right": heights[1]}
    return _shown("tube", world, STRIP, chance, truth, broken)


def _tube(world: FlatWorld, left: float, bore: float, up: float, colour: Array) -> None:
    """A leg with water up to a height; the water climbs its walls a little."""
    wall = 1.2
    world.patch(Patch(left - wall, -20.0, bore + 2.0 * wall, TALL + 20.0), np.array([0.72, 0.74, 0.74]))
    (x0, x1), _ = world.place(np.array([left, left + bore]), np.array([0.0]))
    columns = np.arange(round(float(x0)), round(float(x1)))
    across = (columns + 0.5 - float(x0)) / FINE / bore * 2.0 - 1.0
    level = TALL - up - 1.1 * np.abs(across) ** 4
    high = world.light.shape[0]
    y = world.top + (np.arange(high) + 0.5) / FINE
    below = np.clip((y[:, None] - level[None, :]) * FINE, 0.0, 1.0)[..., None]
    clear = np.array([0.8, 0.82, 0.82])
    world.light[:, columns] = clear * (1.0 - below) + colour * below


PHOTOS: dict[str, Callable[[int, str], StandIn]] = {
    "grey": grey_scene, "squares": squares_scene, "depth": depth_scene, "tube": tube_scene,
}  # fmt: skip
