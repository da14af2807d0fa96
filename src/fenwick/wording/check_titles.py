"""What each check is called, and under which heading it stands."""

from __future__ import annotations

FIRE, LUNGS, STRENGTH, STANDING = "Fire", "Lungs", "Strength", "Standing and lifting"
POWER, PATH, JUDGED = "Motor and circuit", "Dust on its way", "How far to trust it"

#: headings in the order of the page
GROUPS = (FIRE, LUNGS, STRENGTH, STANDING, POWER, PATH, JUDGED)

#: check to (heading, what it is called)
TITLES: dict[str, tuple[str, str]] = {
    "dust-meets": (FIRE, "Sparks and dust that burns"),
    "last-held": (FIRE, "What the vacuum last held"),
    "static": (FIRE, "Static on the hoses"),
    "fibre": (LUNGS, "Fibre dust"),
    "species": (LUNGS, "A dust that harms most"),
    "containment": (LUNGS, "Fine dust at the machine"),
    "no-filter": (LUNGS, "No filter"),
    "filter-class": (LUNGS, "What the filter lets past"),
    "bin-collapse": (STRENGTH, "Bin against collapse"),
    "ring-stiff": (STRENGTH, "Ring round the bin"),
    "relief": (STRENGTH, "Relief valve"),
    "lid-bends": (STRENGTH, "Lid drawn in"),
    "sheet-bends": (STRENGTH, "Sheet bent cold"),
    "headroom": (STANDING, "Height where it stands"),
    "footprint": (STANDING, "Floor where it stands"),
    "tips": (STANDING, "Tipping over"),
    "rolls-apart": (STANDING, "Rolling apart"),
    "full-weight": (STANDING, "Lifting the full bin"),
    "circuit": (POWER, "Circuit"),
    "switch": (POWER, "Switch"),
    "start-up": (POWER, "Starting"),
    "run-on": (POWER, "Running on"),
    "motor-starved": (POWER, "Air for the motor"),
    "motor-dusty": (POWER, "Dust in the motor"),
    "water": (POWER, "Water to the motor"),
    "rain": (POWER, "Rain"),
    "air-at-tool": (PATH, "Air at the tool"),
    "settling": (PATH, "Slowest run"),
    "vertical-lift": (PATH, "Up a rising hose"),
    "bridging": (PATH, "Tightest place"),
    "slot-bridging": (PATH, "Slot in the disc"),
    "bin-leak": (PATH, "Leak below the separator"),
    "bin-full": (PATH, "Room in the bin"),
    "swapped-hoses": (PATH, "Hoses on their ports"),
    "vortex-tail": (PATH, "Tail of the vortex"),
    "carry-over": (PATH, "Droplets from the wet stage"),
    "fan-believable": (JUDGED, "The vacuum's label"),
}
