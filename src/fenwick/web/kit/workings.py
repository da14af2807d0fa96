"""The way from a figure on a page to how it comes about."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import request, url_for

#: the row of a verdict, or the check, that tells a figure: (kind of the figure, whether it is one of several)
FIGURE_OF_ROW: Mapping[str, tuple[str, bool]] = {
    "air": ("air", False),
    "caught": ("caught", False),
    "settling": ("slowest-speed", False),
    "kept": ("kept", False),
    "collapse": ("collapse", True),
    "cut": ("cut-size", True),
    "drop": ("drop", True),
    "inlet": ("inlet-speed", True),
    "stage-kept": ("stage-kept", True),
    "mask": ("masked", False),
    "life": ("hours", False),
    "cost": ("cost", False),
    "payback": ("payback", False),
    "bin-collapse": ("collapse", True),
    "lid-bends": ("lid", True),
    "tips": ("tipping", True),
    "air-at-tool": ("air", False),
    "caught-share": ("caught", False),
}


def how(port: str | None = None, *, alone: bool = False, part: str = "", minutes: str = "") -> dict[str, str]:
    """What the address of a working holds besides the figure.

    Parameters
    ----------
    port : id of the port that the page looks at; None: the first open one
    alone : whether the page looks at it with the others shut
    part : id of the stage that the figure is of
    minutes : of a job in the room, as typed
    """
    found = {"port": port or "", "alone": "1" if alone else "", "part": part, "minutes": minutes}
    return {key: value for key, value in found.items() if value}


def working_address(row: str, value: str, asked: Mapping[str, str] | None) -> str:
    """Address of the working of a figure; empty where it has none, or is not known.

    Parameters
    ----------
    row : what tells it
    value : as told
    asked : from `how`; None: the page has no workings
    """
    line_id = (request.view_args or {}).get("line_id")
    if asked is None or line_id is None or row not in FIGURE_OF_ROW or not value[:1].isdigit():
        return ""
    kind, of_stage = FIGURE_OF_ROW["stage-kept" if row == "kept" and asked.get("part") else row]
    rest = {key: one for key, one in asked.items() if key != "part"}
    figure = f"{kind}:{asked['part']}" if of_stage and asked.get("part") else kind
    values: dict[str, Any] = {"line_id": line_id, "figure": figure, **rest}
    return url_for("workings.show", **values)
