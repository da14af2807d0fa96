"""The grey of a filter or a wipe in the window of the card, against the greys that are printed on it."""

from __future__ import annotations

import numpy as np
from scipy.interpolate import PchipInterpolator

from fenwick.core.arrays import Array, one_value
from fenwick.core.rules import RuleBook
from fenwick.phone.found import FlatPicture, RefusedError, found_in
from fenwick.phone.light import LUMA, lightness, powers, reflectance, smooth_fit
from fenwick.phone.reading import GREY, Overlay, PhoneReading
from fenwick.phone.targets import BAR, CARD, GREYS, PAPER, WINDOW, Patch

SCALE = 6.0  #: of the flat picture [px/mm]
WORST = 5.0  #: the highest grade
SHADE = 0.045  #: of the light on white paper, off a smooth field: above it a shadow lies on the card [-]
SIDES_DIFFER = 0.16  #: of a grey's two patches, above which the light is not understood [-]
BAR_OFF = 1.0  #: of the 50 mm of the card [mm]
LEAST_SURE = 1.0  #: of a lightness, L*
TILE = 6.0  #: of the window, in which its evenness is judged [mm]


def grade_of(star: Array | float, rules: RuleBook) -> Array:
    """Grade of a lightness, 0 clean to 5 black [-].

    Parameters
    ----------
    star : L* [unit of L*]
    rules : what is clean, and what black
    """
    clean, black = one_value(rules["phone.clean"]), one_value(rules["phone.black"])
    return np.clip(WORST * (clean - np.asarray(star, dtype=float)) / (clean - black), 0.0, WORST)


def read_grey(rgb: Array, rules: RuleBook) -> PhoneReading:
    """The grey in the window of the card.

    Parameters
    ----------
    rgb : 0 … 255, shape (high, wide, 3) [unit of a picture]
    rules : what is clean, and what black

    Raises
    ------
    RefusedError
    """
    flat = found_in(rgb, CARD.key, scale=SCALE)
    _whole_bar(flat)
    field = _light(flat)
    tone = _tone(flat, field)
    stars = _window(flat, field, tone)
    star = float(np.median(stars))
    uneven = float(np.std(stars)) / np.sqrt(stars.size)
    sure = float(np.hypot(LEAST_SURE, 2.0 * uneven))
    seen = {
        "L": round(star, 2),
        "L_low": round(star - sure, 2),
        "L_high": round(star + sure, 2),
        "uneven_L": round(float(np.std(stars)), 2),
        "softness_mm": round(flat.softness, 2),
    }
    grade, low, high = (float(grade_of(one, rules)) for one in (star, star + sure, star - sure))
    return PhoneReading(GREY, grade, low, high, seen, (Overlay(flat.corners), _window_drawn(flat)))


def _window_drawn(flat: FlatPicture) -> Overlay:
    one = WINDOW.inside(4.0)
    right, low = one.left + one.width, one.top + one.height
    there = np.array([[one.left, one.top], [right, one.top], [right, low], [one.left, low]])
    return Overlay(flat.in_picture(there), role="thing")


def _whole_bar(flat: FlatPicture) -> None:
    """The two ends of the 50 mm where they ought to be: another print has them elsewhere."""
    start, end, y = BAR
    strip = flat.at(start - 8.0, y + 1.2, end - start + 16.0, 1.6) @ LUMA
    profile = np.median(strip, axis=0)
    dark = profile < 0.6 * float(np.median(profile))
    places = np.flatnonzero(dark) / flat.scale + start - 8.0
    if places.size == 0 or abs((places.max() - places.min()) - (end - start) - 0.6) > BAR_OFF:
        raise RefusedError("The 50 mm of the card are not 50 mm: print it again at 100 %, on plain paper.")


def _samples(flat: FlatPicture, patches: tuple[Patch, ...], step: float) -> tuple[Array, Array, Array]:
    """(x, y, light) of small squares all over some patches; x and y in shares of the card."""
    told = []
    for one in patches:
        for left in np.arange(one.left, one.left + one.width - step + 1e-6, step):
            for top in np.arange(one.top, one.top + one.height - step + 1e-6, step):
                light = float(np.median(flat.at(left, top, step, step) @ LUMA))
                told.append(((left + step / 2) / CARD.width, (top + step / 2) / CARD.height, light))
    x, y, light = np.array(told).T
    return x, y, light


def _light(flat: FlatPicture) -> Array:
    """The light over the card, from its white paper: coefficients of the logarithm."""
    x, y, light = _samples(flat, CARD.white, 3.5)
    field, left = smooth_fit(powers(x, y), np.log(np.maximum(light, 1e-4)))
    if float(np.sqrt(np.mean(left**2))) > SHADE:
        raise RefusedError("A shadow lies on the card: turn, so that the light falls evenly.")
    return field


def _relative(flat: FlatPicture, field: Array, one: Patch) -> float:
    """Light of a patch over that of white paper there [-]."""
    x, y = (one.left + one.width / 2) / CARD.width, (one.top + one.height / 2) / CARD.height
    white = float(np.exp(powers(np.array(x), np.array(y)) @ field))
    return float(np.median(flat.at(one.left, one.top, one.width, one.height) @ LUMA)) / white


def _tone(flat: FlatPicture, field: Array) -> PchipInterpolator:
    """From light against white paper to reflectance, by the greys of the card, both by their logarithms."""
    greys = [one for one in CARD.black if one.lightness in GREYS]
    pairs = [[_relative(flat, field, one.inside(1.8)) for one in greys if one.lightness == star] for star in GREYS]
    if max(abs(np.log(a / b)) for a, b in pairs) > SIDES_DIFFER * 2.0:
        raise RefusedError("A shadow lies on the card, or its greys are smeared: turn it, or print it again.")
    seen = np.log([*(float(np.sqrt(a * b)) for a, b in pairs), 1.0])
    if np.any(np.diff(seen) <= 0.0):
        raise RefusedError("The greys of the card are not told apart: print it again, on plain paper.")
    known = np.log(reflectance(np.array([*GREYS, PAPER])))
    return PchipInterpolator(seen, known, extrapolate=True)


def _window(flat: FlatPicture, field: Array, tone: PchipInterpolator) -> Array:
    """Lightness of each part of the window, shape (n,)."""
    inside = WINDOW.inside(4.0)
    stars = []
    for left in np.arange(inside.left, inside.left + inside.width - TILE + 1e-6, TILE):
        for top in np.arange(inside.top, inside.top + inside.height - TILE + 1e-6, TILE):
            light = _relative(flat, field, Patch(float(left), float(top), TILE, TILE))
            stars.append(float(lightness(np.exp(tone(np.log(max(light, 1e-4)))))))
    return np.array(stars)
