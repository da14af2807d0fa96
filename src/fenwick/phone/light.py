"""From the numbers of a picture to light, and from light to lightness."""

from __future__ import annotations

import numpy as np

from fenwick.core.arrays import Array

LUMA = np.array([0.2126, 0.7152, 0.0722])  #: of red, green and blue in luminance


def linear(values: Array) -> Array:
    """Light of the values of a picture, 0 … 255, by the usual curve of a telephone's pictures (sRGB) [-].

    Parameters
    ----------
    values : of any shape [unit of a picture]
    """
    share = np.asarray(values, dtype=float) / 255.0
    return np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)


def encoded(light: Array) -> Array:
    """The other way round: values of a picture, 0 … 255, not rounded.

    Parameters
    ----------
    light : 0 … 1, what is beyond is cut off [-]
    """
    share = np.clip(light, 0.0, 1.0)
    return 255.0 * np.where(share <= 0.0031308, 12.92 * share, 1.055 * share ** (1.0 / 2.4) - 0.055)


def lightness(reflectance: Array) -> Array:
    """L* of a reflectance (CIE 1976).

    Parameters
    ----------
    reflectance : of light, 1 for perfect white [-]
    """
    share = np.asarray(reflectance, dtype=float)
    return np.where(share > 0.008856, 116.0 * np.cbrt(share) - 16.0, 903.3 * share)


def reflectance(grey: Array) -> Array:
    """Reflectance of a lightness, the inverse of `lightness` [-].

    Parameters
    ----------
    grey : L*, 0 … 100 [unit of L*]
    """
    star = np.asarray(grey, dtype=float)
    return np.where(star > 8.0, ((star + 16.0) / 116.0) ** 3, star / 903.3)


def powers(x: Array, y: Array) -> Array:
    """The terms of a smooth field over a sheet, up to squares, shape (n, 6).

    Parameters
    ----------
    x, y : over the sheet's width and height, 0 … 1 [-]
    """
    return np.stack([np.ones_like(x), x, y, x * x, x * y, y * y], axis=-1)


def smooth_fit(terms: Array, values: Array) -> tuple[Array, Array]:
    """(coefficients, residuals) of a field through values, those far off counting less.

    Parameters
    ----------
    terms : from `powers`, shape (n, 6) [-]
    values : shape (n,) [any unit]
    """
    weight = np.ones_like(values)
    for _ in range(6):
        found, *_ = np.linalg.lstsq(terms * weight[:, None], values * weight, rcond=None)
        left = values - terms @ found
        spread = max(1.4826 * float(np.median(np.abs(left))), 1e-4)
        weight = np.sqrt(1.0 / np.maximum(np.abs(left) / (2.0 * spread), 1.0))
    return np.asarray(found, dtype=float), left
