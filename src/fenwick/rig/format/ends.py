"""The end of a hose or fitting, as calipers and eyes find it."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from fenwick.rig.format import fields as f

FitKind = Literal["push", "screw", "left-screw", "bayonet", "snap"]
PlasticKind = Literal["pvc-soft", "pvc-hard", "pe", "pp", "abs", "eva", "rubber", "metal"]


class EndPart(f.Part):
    """One cuff or port: its bores, how it joins, what it is made of."""

    inside_d_m: f.Bore | None = Field(None, title="Inside")
    outside_d_m: f.Bore | None = Field(None, title="Outside")
    fit: FitKind = Field("push", title="Joins by")
    plastic: PlasticKind | None = Field(None, title="Made of")
