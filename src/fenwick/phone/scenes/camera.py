"""A telephone's camera over a flat world: aslant, unevenly lit, blurred, noisy, packed as JPEG."""

from __future__ import annotations

from dataclasses import dataclass
from io import BytesIO

import cv2
import numpy as np
from PIL import Image

from fenwick.core.arrays import Array
from fenwick.phone.light import encoded
from fenwick.phone.scenes.paint import FINE, FlatWorld

WIDE, HIGH = 1600, 1200  #: of a picture [px]
FOCUS = 1.15  #: focal length, in picture widths
FINEST = 65535.0  #: steps of light
VALUES = encoded(np.linspace(0.0, 1.0, 65536)).astype(np.float32)  #: of a picture, for each of them
STEEPEST = 25.0  #: tilt [°]


@dataclass(frozen=True)
class Shot:
    """How a picture is taken."""

    tilt: float  #: from straight above [rad]
    towards: float  #: the side it leans to [rad]
    turn: float  #: round the line of sight [rad]
    span: float  #: of the picture that the thing fills [-]
    aside: tuple[float, float]  #: of the picture, off its middle [-]
    bright: float  #: light of white paper in the middle [-]
    slope: tuple[float, float]  #: of the light's logarithm over the picture, right and down [-]
    corners: float  #: how much darker they are [-]
    cast: tuple[float, float]  #: of red and blue against green [-]
    blur: float  #: [px]
    noise: float  #: 0 … 255
    packed: int  #: quality of the JPEG [%]

    @staticmethod
    def drawn(chance: np.random.Generator, *, upright: bool = False) -> Shot:
        """One as people take them; upright: held like the thing that is looked at."""
        turn = chance.uniform(-0.25, 0.25) if upright else chance.uniform(-np.pi, np.pi)
        return Shot(
            tilt=float(np.radians(chance.uniform(0.0, STEEPEST))),
            towards=float(chance.uniform(-np.pi, np.pi)),
            turn=float(turn),
            span=float(chance.uniform(0.62, 0.82)),
            aside=(float(chance.uniform(-0.03, 0.03)), float(chance.uniform(-0.03, 0.03))),
            bright=float(chance.uniform(0.4, 0.75)),
            slope=(float(chance.uniform(-0.35, 0.35)), float(chance.uniform(-0.35, 0.35))),
            corners=float(chance.uniform(0.0, 0.2)),
            cast=(float(chance.uniform(0.92, 1.08)), float(chance.uniform(0.9, 1.08))),
            blur=float(chance.uniform(0.4, 1.2)),
            noise=float(chance.uniform(1.0, 3.0)),
            packed=int(chance.integers(80, 94)),
        )


def way_of(shot: Shot, middle: tuple[float, float], size: tuple[float, float], frame: tuple[int, int]) -> Array:
    """From millimetres of the world to points of the picture, shape (3, 3).

    Parameters
    ----------
    shot : how it is taken
    middle, size : of what the picture is about [mm]
    frame : width and height of the picture [px]
    """
    wide, high = frame
    lean = cv2.Rodrigues(shot.tilt * np.array([np.cos(shot.towards), np.sin(shot.towards), 0.0]))[0]
    turned = cv2.Rodrigues(np.array([0.0, 0.0, shot.turn]))[0]
    axes = lean @ turned
    focus = FOCUS * max(wide, high)
    reach = np.abs(turned[:2, :2]) @ np.array(size)  # of the thing as it lies in the picture
    away = focus * max(reach[0] / (shot.span * wide), reach[1] / (shot.span * high))
    lens = np.array([[focus, 0.0, wide * (0.5 + shot.aside[0])], [0.0, focus, high * (0.5 + shot.aside[1])], [0, 0, 1]])
    centred = np.array([[1.0, 0.0, -middle[0]], [0.0, 1.0, -middle[1]], [0.0, 0.0, 1.0]])
    return np.asarray(lens @ np.column_stack([axes[:, 0], axes[:, 1], [0.0, 0.0, away]]) @ centred)


def taken(
    world: FlatWorld,
    shot: Shot,
    chance: np.random.Generator,
    middle: tuple[float, float],
    size: tuple[float, float],
    *,
    upright: bool = False,
    shade: float = 1.0,
) -> bytes:
    """The picture, as JPEG.

    Parameters
    ----------
    world : what is looked at
    shot : how
    chance : draws its noise
    middle, size : of what the picture is about [mm]
    upright : the picture is taller than wide
    shade : of the light that is left in a shadow across it [-]; 1: there is none
    """
    frame = (HIGH, WIDE) if upright else (WIDE, HIGH)
    corner = FINE * world.left + 0.5, FINE * world.top + 0.5
    to_canvas = np.array([[1.0, 0.0, corner[0]], [0.0, 1.0, corner[1]], [0.0, 0.0, FINE]]) / FINE
    way = way_of(shot, middle, size, frame) @ to_canvas
    beyond = tuple(float(one) for one in world.light[:40].mean(axis=(0, 1)))
    light = cv2.warpPerspective(world.light, way, frame, flags=cv2.INTER_AREA, borderValue=beyond)
    x, y = np.meshgrid(np.linspace(-1.0, 1.0, frame[0]), np.linspace(-1.0, 1.0, frame[1]))
    field = np.exp(shot.slope[0] * x + shot.slope[1] * y) * (1.0 - shot.corners * (x * x + y * y) / 2.0)
    if shade < 1.0:
        angle, edge = chance.uniform(0.0, np.pi), chance.uniform(-0.15, 0.15)
        field = field * np.where(np.cos(angle) * x + np.sin(angle) * y > edge, shade, 1.0)
    colour = np.array([shot.cast[0], 1.0, shot.cast[1]])
    light = light * ((shot.bright * field / max(float(field.max()), 1.0))[..., None] * colour).astype(np.float32)
    light = cv2.GaussianBlur(light, (0, 0), shot.blur)
    values = VALUES[np.clip(light * FINEST, 0.0, FINEST).astype(np.uint16)]
    values = values + np.float32(shot.noise) * chance.standard_normal(light.shape, dtype=np.float32)
    packed = BytesIO()
    Image.fromarray(np.clip(np.round(values), 0, 255).astype(np.uint8)).save(packed, "JPEG", quality=shot.packed)
    return packed.getvalue()
