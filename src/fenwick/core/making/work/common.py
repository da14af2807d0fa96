"""Steps that several types share."""

from __future__ import annotations

from fenwick.core.making.steps import Step

BLADE = ("unplug", "goggles")
WOOD = (*BLADE, "dust-mask")
SHEET = ("gloves", "goggles")
SEAL = ("fumes",)


def check_print() -> Step:
    """Nothing is cut by a sheet that the printer has scaled."""
    return Step("check-print", (), share=0.3, hold="square-measured")


def turned_plate(name: str, key: str, *holes: str) -> list[Step]:
    """A disc that is turned on its centre: groove and edge first, the hole that takes the pivot away last."""
    steps = [
        Step(f"groove-{key}", (name,), share=1.0, cautions=WOOD, tools=("router",), after={"check-print": "scale"})
    ]
    steps.append(
        Step(
            f"edge-{key}",
            (name,),
            share=0.8,
            cautions=WOOD,
            tools=("trammel",),
            after={f"groove-{key}": "land-needs-edge"},
        )
    )
    if holes:
        steps.append(
            Step(
                f"hole-{key}",
                (name,),
                share=0.6,
                cautions=WOOD,
                tools=("hole-saw",),
                after={f"groove-{key}": "pivot-gone", f"edge-{key}": "pivot-gone"},
            )
        )
    return steps


def slot_steps(key: str = "disc") -> list[Step]:
    """Ends bored, then the slot between them, then its edges, while the disc still has its pivot."""
    disc = ("slotted-disc",)
    return [
        Step(
            "bore-slot-ends",
            disc,
            share=0.6,
            cautions=WOOD,
            tools=("hole-saw", "drill"),
            after={"check-print": "scale", "cut-by-wrap": "disc-follows-wrap"},
        ),
        Step(
            "cut-slot",
            disc,
            share=1.0,
            cautions=WOOD,
            tools=("trammel", "jigsaw"),
            after={"bore-slot-ends": "ends-first"},
        ),
        Step("trim-slot", disc, share=0.6, cautions=WOOD, tools=("router", "file"), after={"cut-slot": "slot-first"}),
    ]


def inlet_steps(after: str, why: str) -> list[Step]:
    """Block, dry fit, outline, cut; sealed only when all of it has been together."""
    block = ("inlet-block",)
    return [
        Step(
            "shape-block",
            block,
            share=1.2,
            cautions=(*WOOD, "small-piece"),
            tools=("band-saw",),
            after={"check-print": "scale"},
        ),
        Step(
            "bore-block",
            block,
            share=0.5,
            cautions=WOOD,
            tools=("hole-saw", "drill"),
            after={"shape-block": "block-first"},
        ),
        Step(
            "dry-fit-inlet",
            ("inlet-block", "inlet-tube"),
            share=0.5,
            hold="block-lies-close",
            after={"bore-block": "block-first", after: why},
        ),
        Step(
            "mark-cut-out",
            ("inlet-block", "wall", "barrel", "wall-template"),
            share=0.3,
            after={"dry-fit-inlet": "outline-from-fit"},
        ),
        Step(
            "cut-cut-out",
            ("wall", "barrel", "wall-template"),
            share=0.7,
            cautions=SHEET,
            tools=("jigsaw",),
            after={"mark-cut-out": "outline-from-fit"},
        ),
    ]


def panel_steps(after: str, why: str) -> list[Step]:
    names = ("inlet-plate", "inlet-inner-side", "inlet-outer-side")
    return [
        Step("cut-inlet-panels", names, share=0.8, cautions=WOOD, tools=("saw",), after={"check-print": "scale"}),
        Step(
            "join-inlet-panels",
            names,
            share=0.6,
            tools=("clamps",),
            after={"cut-inlet-panels": "block-first", after: why},
        ),
    ]


def closing_steps() -> list[Step]:
    """Whatever it is: the rim is seated and felt before it is sealed, and the first run comes last."""
    return [
        Step(
            "seat-rim",
            ("gasket", "bin", "vessel"),
            share=0.4,
            hold="rim-felt",
            cautions=("no-tape",),
            after={
                "seal-disc": "unit-first",
                "hang-disc": "unit-first",
                "seal-outlet": "unit-first",
                "bolt-up": "unit-first",
                "water-test": "unit-first",
                "fix-seat": "unit-first",
                "seal-inlet": "unit-first",
                "seal-roof": "unit-first",
            },
        ),
        Step(
            "first-run",
            (),
            share=0.5,
            hold="relief-open",
            cautions=("folds", "motor-starves"),
            after={"seat-rim": "rim-first"},
        ),
    ]
