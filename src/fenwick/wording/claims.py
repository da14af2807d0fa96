"""What a seller claims beside what is modelled on this line."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.wording.say import Voice


@dataclass(frozen=True)
class ClaimRow:
    """One figure, claimed and modelled."""

    title: str
    claimed: str
    modelled: str
    note: str


def claim_rows(
    claimed: dict[str, float | None], flow: float, suction: float, kept: float | None, voice: Voice
) -> list[ClaimRow]:
    """Rows for what is claimed; `flow` through it [m^3/s], `suction` it costs [Pa] and `kept` [-] as modelled."""
    rows = []
    if claimed.get("flow_m3_s") is not None:
        share = flow / float(claimed["flow_m3_s"] or 1.0)
        note = f"your line drives {100.0 * share:.0f} % of what it is sold for"
        rows.append(_row("Airflow", claimed["flow_m3_s"], flow, "flow", note, voice))
    if claimed.get("suction_pa") is not None:
        note = "claimed at its own airflow, modelled at yours"
        rows.append(_row("Suction it costs", claimed["suction_pa"], suction, "suction", note, voice))
    if claimed.get("efficiency") is not None and kept is not None:
        note = "claims seldom name the dust; this is yours, with your bin"
        rows.append(_row("Kept in the bin", claimed["efficiency"], kept, "share", note, voice))
    return rows


def _row(title: str, claimed: float | None, modelled: float, quantity: str, note: str, voice: Voice) -> ClaimRow:
    return ClaimRow(title, voice.figure(float(claimed or 0.0), quantity), voice.figure(modelled, quantity), note)
