"""Sizes that sheet is commonly sold in."""

from __future__ import annotations

#: width and height, the smallest first [m]
SOLD: tuple[tuple[float, float], ...] = ((0.61, 0.61), (1.22, 0.61), (1.22, 1.22), (2.44, 1.22))
