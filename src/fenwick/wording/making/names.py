"""What parts, materials, tools and edges are called."""

from __future__ import annotations

import re

PARTS = {
    "outlet-tube": "Outlet tube",
    "outlet-elbow": "Outlet elbow",
    "inlet-tube": "Inlet tube",
    "inlet-elbow": "Inlet elbow",
    "inlet-block": "Inlet block",
    "inlet-plate": "Inlet plate",
    "inlet-inner-side": "Inlet, inner side",
    "inlet-outer-side": "Inlet, outer side",
    "roof": "Roof",
    "deck": "Deck",
    "wall": "Wall",
    "barrel": "Barrel",
    "band": "Band over the joint",
    "cone": "Cone",
    "flange": "Flange",
    "flange-gasket": "Gasket of the flange",
    "backing-ring": "Backing ring",
    "lid": "Lid",
    "stiffener": "Stiffener",
    "slotted-disc": "Slotted disc",
    "seat-ring": "Seat ring",
    "rods": "Rods",
    "bolts": "Bolts",
    "gasket": "Gasket",
    "bin": "Bin",
    "head": "Vacuum's head",
    "head-gasket": "Gasket of the head",
    "filter-seat": "Filter seat",
    "drop-pipe": "Drop pipe",
    "window-template": "Paper for the window",
    "wall-template": "Paper for the bin's wall",
    "throat": "Throat",
    "splash-plate": "Splash plate",
    "vessel": "Vessel",
    "cyclone": "Cyclone",
    "chamber": "Chamber",
    "kit": "Kit",
    "tray": "Tray",
    "bin-rest": "Rest for the bin",
    "deck-plate": "Deck",
    "leg": "Leg",
    "casters": "Casters",
    "straps": "Straps",
    "hose-holder": "Hooks for the hose",
    "cord-cleats": "Cleats for the cord",
    "nozzle-board": "Board for nozzles",
    "vacuum-fillet": "Fillet at the vacuum",
    "shelf": "Shelf",
    "wall-brackets": "Wall brackets",
    "machine-brackets": "Brackets at the machine",
    "lift-tray": "Tray that lifts",
    "cam": "Cam",
    "cam-lever": "Lever",
    "cam-axle": "Axle",
    "port-tube": "Port tube",
    "door-seal": "Brush strip of the doors",
    "front-panel": "Front",
    "back-panel": "Back",
    "left-panel": "Left side",
    "right-panel": "Right side",
    "top-panel": "Top",
}
NUMBERED = {"door": "Door", "rail": "Rail of door"}

MATERIALS = {
    "plywood": "plywood",
    "mdf": "MDF",
    "chipboard": "chipboard",
    "board": "corrugated board",
    "pine": "pine",
    "steel": "sheet steel",
    "hdpe": "HDPE",
    "pp": "polypropylene",
    "abs": "ABS",
    "pvc": "PVC",
    "petg": "PETG",
    "polycarbonate": "clear polycarbonate",
    "acrylic": "acrylic",
    "fibre-drum": "drum fibre",
    "paper": "paper",
    "": "",
}

TOOLS = {
    "router": "router on a trammel",
    "trammel": "trammel",
    "hole-saw": "hole saw",
    "jigsaw": "jigsaw, from a drilled hole",
    "guide-template": "guide template for a large bit",
    "shears": "shears, along a scribed line",
    "band-saw": "band saw",
    "saw": "saw",
    "snips": "snips",
    "drill": "drill",
    "file": "file",
    "clamps": "clamps",
    "rivets": "rivets",
}

EDGES = {
    "edge": "outer edge",
    "mouth": "inner edge",
    "centre_hole": "centre hole",
    "rim_hole": "hole at the rim",
    "pipe_hole": "hole for the drop pipe",
    "outlet_hole": "hole for the outlet",
    "nozzle_hole": "hole for a nozzle",
    "groove-out": "groove, its outer edge",
    "groove-in": "groove, its inner edge",
    "slot-out": "slot, its outer edge",
    "slot-in": "slot, its inner edge",
}

CUTTING = {
    "hole-saw": "Hole saw",
    "cutter": "Router cutter",
    "router": "Router",
    "trammel": "Trammel",
    "jigsaw": "Jigsaw",
    "band-saw": "Band saw",
    "drill": "Drill",
    "shears": "Shears",
}
SALVAGED = {
    "tank": "Tank",
    "head": "Vacuum's head",
    "fan": "Fan",
    "filter": "Filter",
    "hose": "Hose",
    "other": "Something else",
}
BY = {"money/m": " a metre", "money/m²": " a square metre"}  #: what a price is by

SEALANTS = {
    "hybrid": "hybrid sealant",
    "silicone": "silicone",
    "epoxy-fast": "five-minute epoxy",
    "epoxy-slow": "slow epoxy",
    "hot-melt": "hot melt",
    "construction": "construction adhesive",
    "pva": "white glue",
    "cement": "solvent cement",
}
HANDS = {"right": "clockwise", "left": "counter-clockwise"}  #: how the air turns, from above

#: what a dimension costs that is further off
COSTS = {
    "kept": "a point of what is kept",
    "suction": "a kilopascal of suction",
    "leak": "a leak",
    "fit": "it does not fit",
}
FURTHER = {
    "kept": "further off costs a point of what is kept",
    "suction": "further off costs a kilopascal",
    "leak": "further off it leaks",
    "fit": "further off it does not fit",
}
#: what the line takes over of a build, by the last part of its path
AS_BUILT = {
    "chamber_d_m": "the chamber's diameter",
    "chamber_height_m": "the chamber's height",
    "outlet_length_m": "how far the outlet hangs down",
    "width_m": "the slot's width",
    "body_d_m": "the barrel's diameter",
    "cylinder_height_m": "the barrel's height",
    "dust_outlet_d_m": "the dust outlet",
}
HOW = {"make": "make", "buy": "buy", "have": "have"}
SIDES = {"tool": "tool side", "vacuum": "vacuum side"}


def part_name(part: str) -> str:
    """What a part is called."""
    if part in PARTS:
        return PARTS[part]
    if part.endswith("-segment"):
        return f"{part_name(part.removesuffix('-segment'))}, a segment"
    found = re.fullmatch(r"([a-z]+)-(\d+)", part)
    return f"{NUMBERED[found[1]]} {found[2]}" if found and found[1] in NUMBERED else part
