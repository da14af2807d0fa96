"""What the choices in the rig file are called on the page."""

from __future__ import annotations

import re

from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.components.bins import CLOSURES, MATERIALS, OTHER, SIGHTS
from fenwick.core.components.dust import DUSTS, HELD_BESIDES, SPECIES
from fenwick.core.components.joint import FITS, PLASTICS
from fenwick.core.making.shopping import PRICES
from fenwick.core.rules import rule
from fenwick.rig.edits.kinds import KINDS
from fenwick.wording.hood import HOOD_WORDS
from fenwick.wording.making.names import BY, CUTTING, SALVAGED
from fenwick.wording.making.names import MATERIALS as CUT_MATERIALS

PRICE_WORDS = {
    key: f"{rule(key).meaning.removeprefix('Price of ').capitalize()}{BY.get(rule(key).unit, '')}" for key in PRICES
}
CUT_FROM = {key: f"{name[:1].upper()}{name[1:]}" for key, name in CUT_MATERIALS.items() if name}

RELEASE_WORDS = {
    "still": "with no speed",
    "slow": "slowly",
    "active": "briskly",
    "fast": "fast",
}

MACHINE_WORDS = {
    "bandsaw": "Bandsaw",
    "table-saw": "Table saw",
    "planer": "Planer",
    "router-table": "Router table",
    "drum-sander": "Drum sander",
    "mitre-saw": "Mitre saw",
    "lathe": "Lathe",
    "hand-held-sander": "Hand-held sander",
    "floor-pick-up": "Floor pick-up",
}

ROW = re.compile(r"\[\d+\]")

CHOICE_WORDS: dict[str, dict[str, str]] = {
    "wall": {
        "smooth": "Smooth bore",
        "light-rib": "Light rib",
        "wire-helix": "Wire helix",
        "corrugated": "Corrugated",
        "pipe": "Rigid pipe",
    },
    "entry": {
        "plain": "Plain end",
        "flanged": "Flanged",
        "tapered": "Tapered",
        "bellmouth": "Bellmouth",
        "crevice": "Crevice nozzle",
        "brush": "Brush",
    },
    "release": RELEASE_WORDS,
    "machine": MACHINE_WORDS,
    "sheets.material": CUT_FROM,
    "tubes.material": CUT_FROM,
    "cutting.kind": CUTTING,
    "salvaged.kind": SALVAGED,
    "prices.of": PRICE_WORDS,
    "closure": CLOSURES,
    "material": {**{key: material.label for key, material in MATERIALS.items()}, OTHER: "Other, by its figures"},
    "dust.kind": {**{key: dust.label for key, dust in DUSTS.items()}, "mixture": "Mixture", "own": "Own dust"},
    "kinds.kind": {key: dust.label for key, dust in DUSTS.items()},
    "species": SPECIES,
    "style": {"long-sweep": "Long sweep", "short": "Short", "mitre": "Mitre"},
    "medium": {"paper": "Paper", "hepa": "HEPA", "bag": "Bag"},
    "filter.kind": {"paper": "Paper", "hepa": "HEPA"},
    "dust": {key: dust.label for key, dust in DUSTS.items()},
    "work": {"time": "Hours of the tool", "planed": "Boards planed", "cuts": "Cuts"},
    "exhaust": {"indoors": "Into the room", "outdoors": "Outdoors"},
    "wiring": {
        "as-made": "As it was made",
        "rewired": "Rewired",
        "rewired-tested": "Rewired, tested since",
    },
    "cooling": {"own-air": "Air of its own", "working-air": "The dusty air, filtered"},
    "last_held": {**{key: dust.label for key, dust in DUSTS.items()}, **HELD_BESIDES},
    "sight": SIGHTS,
    "ribs": {"none": "No ribs", "rings": "Rolled beads or rings", "upright": "Upright"},
    "inlet_style": {"tangential": "Along a tangent", "elbow": "By an elbow"},
    "stands_on": {
        "floor": "The floor",
        "cart": "A cart, beside the vacuum",
        "shelf": "A shelf at the wall, over the vacuum",
        "deck": "A deck over the vacuum",
        "vacuum": "The vacuum itself",
    },
    "motor": {"in-the-air": "In the air it moves", "outside": "Outside of it"},
    "finish": {"smooth": "Moulded", "shop-built": "Shop-built"},
    "outlet_aim": {"opposed": "Away from the inlet", "centre": "To the centre"},
    "hood.kind": HOOD_WORDS,
    "curve.kind": {"nameplate": "Its label", "points": "Readings of its air", "holes": "A plate with holes"},
    "kind": {key: tool.label for key, tool in TOOLS.items()},
    "type": {key: kind.label for key, kind in KINDS.items()},
    "fit": FITS,
    "plastic": {key: plastic.label for key, plastic in PLASTICS.items()},
}


def choice_word(path: str, value: str) -> str:
    """What a choice at a path is called; rows of a list are called alike."""
    path = ROW.sub("", path)
    for ending, words in CHOICE_WORDS.items():
        if path == ending or path.endswith(f".{ending}"):
            return words.get(value, value)
    return value
