"""What to measure next, in words: how to find a value out, and what hangs on it."""

from __future__ import annotations

from fenwick.core.search.figures import Span, Spread
from fenwick.wording.say import Voice

#: how to find a value out, by the end of its key in the rig file, the longest match first
HOW: dict[str, str] = {
    "sealed_suction_pa": "Read the label, or a tube of water at the vacuum's inlet, shut for two seconds.",
    "open_flow_m3_s": "Read the label, or do the hole-plate test.",
    "inlet_bore_m": "Ruler across the inlet.",
    "filter.area_m2": "Count the pleats: twice their depth × their height × their number.",
    "tank_m3": "Fill it with water by the litre, or measure it: width × width × height.",
    "loudness_dba": "Phone at the ear where you stand, tool off, hose on; the same phone each time.",
    "filter.held_kg": "Weigh the filter, then a clean one.",
    "dust.kind": "Look at what lies under the tool.",
    "bore_m": "Ruler across the inside.",
    "length_m": "Tape along it.",
    "angle_deg": "Look at how it lies when you work.",
    "wall": "A finger inside it: smooth, ribbed or deep folds?",
    "distance_m": "Ruler from the port to where the dust is made.",
    "thrown_share": "Watch where the chips fly for a minute.",
    "dust_rate_kg_s": "Weigh what ten minutes of work make.",
    "width_m": "Ruler across the slot.",
    "arc_deg": "A strip of paper along the slot, against the whole circle.",
    "outlet_length_m": "Ruler from the roof to the end of the tube.",
    "chamber_height_m": "Ruler from roof to disc.",
    "body_d_m": "Ruler across the body, or its girth over 3.14.",
    "inlet_height_m": "Ruler down the inlet.",
    "inlet_width_m": "Ruler across the inlet.",
    "outlet_d_m": "Ruler across the outlet tube.",
    "dust_outlet_d_m": "Ruler across the hole the dust falls through.",
    "cylinder_height_m": "Ruler down the straight part.",
    "total_height_m": "Ruler from the roof to the dust outlet.",
    "bin.wall_m": "Calipers at the rim; cut-outs of the lid do as well.",
    "bin.material": "Look for the recycling mark under it.",
    "bin.closure": "Look at the lid; or block the hose for two seconds and listen.",
    "d_m": "Ruler across the inside.",
    "height_m": "Ruler down the inside.",
    "kind": "Look at what lies under the tool.",
}


def how_to_measure(key: str) -> str:
    """One sentence on how to find a value out; empty where there is nothing to say."""
    for ending in sorted(HOW, key=len, reverse=True):
        if key == ending or key.endswith(f".{ending}"):
            return HOW[ending]
    return ""


def what_hangs_on_it(spread: Spread, voice: Voice) -> str:
    """The figures that move, the one that moves most first; empty where none moves visibly."""
    said: list[tuple[float, str]] = []
    for words, span, quantity in (
        ("kept {} ", spread.kept, "share"),
        ("air {}", spread.flow, "flow"),
        ("slowest {}", spread.speed, "speed"),
    ):
        text = _span(span, quantity, voice)
        if text and span:
            said.append(((span[1] - span[0]) / span[1], words.format(text).strip()))
    if spread.in_bin and spread.in_bin[1] - spread.in_bin[0] >= 0.01:
        low, high = (f"{100.0 * end:.0f}" for end in spread.in_bin)
        said.append(((spread.in_bin[1] - spread.in_bin[0]) / spread.in_bin[1], f"{low}–{high} g of 100 in the bin"))
    if spread.folding and spread.folding[1] - spread.folding[0] >= 0.1:
        low, high = (f"{min(end, 99.9):.1f}" for end in spread.folding)
        said.append(((spread.folding[1] - spread.folding[0]) / spread.folding[1], f"collapse {low}–{high} ×"))
    return ", ".join(words for _, words in sorted(said, reverse=True)[:2])


def _span(span: Span | None, quantity: str, voice: Voice) -> str:
    if span is None:
        return ""
    low, high = voice.figure(span[0], quantity, unit=False), voice.figure(span[1], quantity)
    return "" if low == high.split(" ")[0] else f"{low}–{high}"
