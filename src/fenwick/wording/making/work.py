"""The steps of the work, what must hold before going on, why one comes before another."""

from __future__ import annotations

from fenwick.wording.making.names import part_name

STEPS = {
    "check-print": "Print the templates and measure the square",
    "groove-roof": "Turn the groove in the roof",
    "edge-roof": "Cut the roof's edge",
    "hole-roof": "Cut the roof's centre hole, last",
    "groove-deck": "Turn the groove in the deck",
    "edge-deck": "Cut the deck's edge",
    "hole-deck": "Cut the filter's hole in the deck",
    "bore-deck": "Bore the hole for the drop pipe",
    "drill-seat": "Drill the filter seat",
    "cut-wall": "Cut the wall's sheet",
    "wrap-dry": "Wrap the sheet dry into its groove",
    "cut-by-wrap": "Set the disc's size by the wrap",
    "bore-slot-ends": "Bore the ends of the slot",
    "cut-slot": "Cut the slot between them",
    "trim-slot": "Clean the slot's edges",
    "groove-disc": "Turn the groove in the disc",
    "edge-disc": "Cut the disc's edge",
    "shape-block": "Saw the hollow of the inlet block",
    "bore-block": "Bore the inlet block",
    "dry-fit-inlet": "Hold block and tube to the wall, dry",
    "mark-cut-out": "Mark the cut-out round the tube",
    "cut-cut-out": "Cut it out",
    "cut-inlet-panels": "Cut the panels of the inlet",
    "join-inlet-panels": "Join them against the wall",
    "cut-ring": "Cut the ring",
    "cut-rings": "Cut flange and backing ring",
    "drill-ring": "Drill ring and disc together",
    "dry-assembly": "Put all of it together, dry",
    "glue-ring": "Glue the ring on",
    "close-seam": "Close the seam of the wall",
    "close-seams": "Rivet and seal the seams",
    "seal-roof": "Seal roof and outlet tube",
    "seal-deck": "Seal deck, wall and drop pipe",
    "seal-inlet": "Seal the inlet",
    "seal-disc": "Seal the disc in",
    "fix-seat": "Fix the filter seat",
    "cut-window": "Cut the window of the drop pipe",
    "measure-bin": "Measure the bin where the disc hangs",
    "bore-lid": "Cut the holes of the lid",
    "drill-rods": "Drill disc and lid for the rods together",
    "drill-bolts": "Drill for the bolts, all at once",
    "seal-outlet": "Seal the outlet tube",
    "hang-disc": "Hang the disc",
    "cut-stiffener": "Cut the stiffener",
    "cut-barrel": "Cut the barrel's sheet",
    "cut-cone": "Cut cone and band",
    "roll-cone": "Roll the cone",
    "join-cone": "Join cone and barrel under the band",
    "seal-flange": "Seal the flange to the cone",
    "bolt-up": "Bolt it up, evenly",
    "trace-foot": "Trace what was bought",
    "edge-lid": "Cut the lid's edge",
    "cut-splash-plate": "Cut the splash plate",
    "seal-tubes": "Seal throat, outlet and plate",
    "water-test": "Fill it and look for drops",
    "cut-panels": "Cut the panels",
    "cut-rest": "Cut the rest for the bin",
    "bore-nozzles": "Bore the board for the nozzles",
    "hang-brackets": "Hang the brackets",
    "bore-cams": "Bore both cams, clamped together",
    "shape-cams": "Shape both cams round their marks",
    "fit-cams": "Fit axle, cams and lever under the tray",
    "fix-to-machine": "Bolt it to the machine",
    "join-legs": "Join legs and deck",
    "fix-rest": "Glue the rest down",
    "fix-casters": "Bolt the casters on",
    "fix-straps": "Fix straps and holders",
    "measure-tool": "Measure the tool, unplugged",
    "cut-openings": "Cut the openings",
    "cut-doors": "Cut doors and rails",
    "join-panels": "Join the panels",
    "hang-doors": "Hang the doors in their rails",
    "fit-port": "Fit the port",
    "seat-rim": "Seat the rim, rock it, feel round it",
    "first-run": "First switch-on",
}

#: steps that a ring in segments has, by how their ids begin
OF_RINGS = {"saw-segments-": "Saw the segments of the {}", "glue-segments-": "Lap and glue up the {}"}

HOLDS = {
    "square-measured": "The printed square measures 100 mm both ways. If not, print again at 100 %.",
    "wrap-measured": "The wall clicks into the groove all round and no light comes through. Measure the wrap.",
    "disc-by-wrap": "The disc's groove is set by the wrap as measured, not by the drawing.",
    "block-lies-close": "The block lies close to the wall and the tube's inside meets the wall's at the tangent.",
    "all-fits": "Everything is together, nothing rocks, every edge is clean.",
    "bin-measured": "The bin's inside is measured at the depth of the disc, both ways.",
    "disc-passes-rim": "The disc goes through the rim and hangs level.",
    "cone-meets-barrel": "The cone's top goes round the barrel with no step on the inside.",
    "pressed-evenly": "The gasket is pressed to half all round: bolts crosswise, a little each.",
    "trace-compared": "The tracing lies on the printed template without a gap.",
    "throat-depth": "The throat ends as deep under the water line as drawn, and stays off the floor.",
    "no-drops": "No drop after an hour, upright and leaning as far as it may.",
    "stands-square": "Both diagonals are alike and no leg rocks.",
    "ring-flat": "The ring lies flat, the laps are closed, and the printed ring lies on it all round.",
    "brackets-bear": "Both brackets are level and bear the full bin three times over: try it before it stands there.",
    "cams-past-top": "The tray comes up level, the gasket is pressed to half all round, the lever rests past the top.",
    "bolts-clear": "No bolt comes through where a part still slides or seats.",
    "does-not-tip": "Pull at the hose's height, bin empty: it stays on its feet.",
    "blade-clear": "Nothing of the box is near a blade, over its whole travel.",
    "doors-slide": "Every door slides and stays where it is left.",
    "rim-felt": "Nothing rocks, and a 0.5 mm gauge goes in nowhere. What it finds is typed in: it becomes a leak.",
    "relief-open": "The relief hole is open, hands are off the bin, someone stands at the switch.",
}

REASONS = {
    "scale": "a template that the printer has scaled makes every part wrong",
    "land-needs-edge": "the groove is turned while there is still sheet to hold on to",
    "pivot-gone": "this hole takes the pivot away",
    "disc-follows-wrap": "bent sheet springs back: the disc is set by the wrap as it came out",
    "disc-follows-bin": "bins taper: the disc is set by the width where it hangs",
    "ends-first": "a bored end is round and stops the saw; bored later, it tears into the slot",
    "slot-first": "its edges are cleaned when it is whole",
    "slot-before-groove": "the slot's outer edge meets the groove: cut later, it breaks the groove's wall",
    "edges-before-fit": "what is cut after the dry fit fits something else",
    "block-first": "a block is bored when its shape is there",
    "wall-needed": "the block is held to the wall as it is bent",
    "outline-from-fit": "the outline is taken from the tube where it really meets the wall",
    "wall-first": "it must be there",
    "groove-first": "it must be there",
    "ring-first": "it must be there",
    "ring-follows-cone": "the ring is cut to the cone as it came out",
    "cone-follows-barrel": "the cone is rolled to the barrel as it came out",
    "cone-first": "it must be there",
    "screws-after-cuts": "a screw in the path of a later cut ruins the cutter",
    "fit-before-glue": "glue shows too late what does not fit",
    "seam-first": "the seam is reached from both sides only now",
    "roof-holds-round": "the roof holds the wall round",
    "inner-seam-last": "afterwards nobody reaches the seam inside",
    "deck-first": "it must be there",
    "lid-first": "it must be there",
    "flange-first": "it must be there",
    "holes-together": "both get their holes in one go",
    "trace-first": "it is cut to what was really delivered",
    "cured-first": "what is still soft leaks",
    "segments-first": "a ring in segments is one ring first",
    "axle-first": "the axle's hole says where the cam's edge runs",
    "panels-first": "they must be there",
    "tool-first": "the box is cut to the tool as it is",
    "doors-follow-openings": "a door is cut to its opening as it came out",
    "on-its-feet": "it is done on its feet",
    "unit-first": "the rim is felt with the weight that will stand on it",
    "rim-first": "a gap at the rim is found before the sealant hides it",
}

CAUTIONS = {
    "unplug": "Unplug before you reach to a blade or change a cutter.",
    "goggles": "Goggles.",
    "dust-mask": "Respirator and extraction: wood dust harms lungs.",
    "gloves": "Gloves for sheet edges; none near a turning bit.",
    "fumes": "Open a window; keep solvent off polycarbonate and acrylic.",
    "small-piece": "A small piece is held in a jig, never in fingers.",
    "no-tape": "Do not tape over the gasket: it must be pressed and looked at.",
    "wall": "Look for cables and pipes before you drill; screws go into studs or solid wall.",
    "water": "Keep water away from the vacuum: a dry one does not survive it.",
    "folds": "A bin can fold suddenly: hands off, relief hole open.",
    "motor-starves": "Block the hose for seconds only, then let the motor cool.",
}

LAST = {"inner-seam": "Last moment to reach the seam inside."}

#: what is looked at when it is switched on first, in this order
FIRST_RUN = {
    "relief": "Relief hole open, hands off the bin, the hose open. Switch on from an arm's length away.",
    "listen": "Listen round every joint. A hiss is a leak.",
    "light": "A lamp inside, the room dark: no light comes through a joint.",
    "blocked": (
        "Block the hose with a flat hand for two seconds, no longer, and watch the bin: no wall comes in. "
        "Let the motor cool for two minutes."
    ),
    "hoses": "The centre goes to the vacuum, the side to the tool. If the bin stays empty, the hoses are swapped.",
    "swirl": "Through the wall: dust runs round the wall and down through the slot, none hangs in the middle.",
    "bend": "At the clear hose's outer bend, behind the separator, hardly anything passes.",
    "first-500": "Feed 500 g of dry dust, weigh the bin and what got past, and type both below.",
}


def step_title(step: str) -> str:
    """What a step of that id is called."""
    name = step.removeprefix("stand-")
    for begins, words in OF_RINGS.items():
        if name.startswith(begins):
            return words.format(part_name(name.removeprefix(begins)).lower())
    return STEPS[name]
