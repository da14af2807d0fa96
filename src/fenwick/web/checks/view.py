"""What the Checks show, prepared as plain values."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import isfinite
from typing import Any

from fenwick.core.judging.check import LEVEL_WORDS, OK, Check
from fenwick.core.judging.strength import relief_that_would_do, relief_to_begin_with
from fenwick.core.search.changes import mending
from fenwick.data.acknowledgements import Acknowledged
from fenwick.data.lines import LineState
from fenwick.rig import Rig, build_line
from fenwick.rig.edits.changes import candidate_key
from fenwick.rig.format.elements import HosePart
from fenwick.rig.format.places import path_of
from fenwick.rig.format.separator import SeparatorPart
from fenwick.rig.voice import voice_for
from fenwick.services import solving
from fenwick.services.checks import Checked, Tally, tally
from fenwick.web.kit.editor import Editor, rig_field
from fenwick.web.kit.fields import Field
from fenwick.web.kit.pieces import Refused
from fenwick.wording.checks import CHECKS, GROUPS, POWER, Said, relief_words
from fenwick.wording.say import Voice
from fenwick.wording.whatif import action_words

VACUUM_KEYS = ("last_held", "emptied", "exhaust", "cooling", "takes_water", "current_a", "wiring")
STAND_KEYS = ("headroom_m", "space_m", "base_m", "mass_kg", "stands_on", "base_height_m", "fixed", "tied", "wheels")
STACK_KEYS = ("vacuum_height_m", "vacuum_mass_kg", "head_lift_m")  #: of what stands over or on the vacuum
CART_KEYS = ("vacuum_d_m", "vacuum_height_m", "vacuum_mass_kg")  #: of what stands beside it
ROLLING_KEYS = ("doorway_m", "step_m", "wheel_d_m", "caster_kg")
HOSE_KEYS = {"wall_m": "wall", "clear": "clear"}
LID_KEYS = ("material", "thickness_m", "rim_held", "stiffener_material", "stiffener_m")
RELIEF_KEYS = ("opens_at_pa", "area_m2")
RING_KEYS = ("height_m", "material", "outwards_m", "tall_m")


@dataclass(frozen=True)
class Described:
    """One value of a line that is said on this page."""

    words: str
    path: str  #: key below the rig
    value: object


#: what settles a check in one go
SETTLES = {
    "last-held": Described("Emptied and cleaned", "vacuum.emptied", True),
    "rewired": Described("Tested by an electrician", "vacuum.wiring", "rewired-tested"),
    "static": Described("The hoses are earthed", "line.earthed", True),
}


@dataclass(frozen=True)
class CheckRow:
    """One check."""

    key: str  #: of check and part
    group: str
    title: str
    level: str
    figure: str
    limit: str
    sentence: str
    seen: Acknowledged | None
    settle: tuple[str, str] | None  #: (check, words of the button that settles it)
    keep: tuple[str, str] | None  #: (key of a change, its words)
    check: str  #: its kind
    place: str  #: where it is mended: hood, separator, shop or line
    part: str
    reason: str = ""  #: as it was typed
    error: str = ""


@dataclass(frozen=True)
class ChecksView:
    """The page."""

    state: LineState
    groups: list[tuple[str, list[CheckRow]]]  #: those that ask for something, or are lived with
    fine: list[CheckRow]
    tally: Tally
    seen: int
    editors: list[Editor]
    begins: list[tuple[str, str]]  #: (what, words) of what can be described besides


def checks_view(
    state: LineState, found: list[Checked], system: str, refused: Refused | None = None,
    editor: Editor | None = None,
) -> ChecksView:  # fmt: skip
    """Prepare the page.

    Parameters
    ----------
    state, found : the line and its checks
    system : unit system
    refused : the reason beside a row that was just refused
    editor : fields as they were typed, with what is wrong with them
    """
    voice = voice_for(state.rig, system)
    rows = [_row(one, state.rig, voice) for one in found]
    if refused:
        rows = [
            replace(row, reason=refused.text, error=refused.error) if row.key == refused.key else row for row in rows
        ]
    asking = sorted((row for row in rows if row.level != LEVEL_WORDS[OK]), key=_worst_first)
    editors = editors_of(state.rig, system)
    if editor is not None:
        editors = [editor if one.part == editor.part else one for one in editors]
    return ChecksView(
        state=state,
        groups=_grouped(asking),
        fine=[row for row in rows if row.level == LEVEL_WORDS[OK]],
        tally=tally(found),
        seen=sum(one.seen is not None for one in found),
        editors=editors,
        begins=_begins(state.rig),
    )


def _grouped(asking: list[CheckRow]) -> list[tuple[str, list[CheckRow]]]:
    """Rows under their headings, those headings first under which something is to act on."""
    groups = [(name, found) for name in GROUPS if (found := [row for row in asking if row.group == name])]
    return sorted(groups, key=lambda group: not any(row.level == "act" and not row.seen for row in group[1]))


def _worst_first(row: CheckRow) -> tuple[bool, int]:
    return row.seen is not None, -LEVEL_WORDS.index(row.level)


def row_key(check: Check) -> str:
    """What tells a check from the others of its line."""
    return f"{check.id}~{check.part or ''}"


def _row(one: Checked, rig: Rig, voice: Voice) -> CheckRow:
    check = one.check
    words = CHECKS[check.id]
    said = Said(check, voice)
    figured = isfinite(check.value[0]) and isfinite(check.limit[0])
    asks = one.open
    settle = SETTLES.get(check.id) if asks and not _unsettled(check, rig) else None
    return CheckRow(
        key=row_key(check),
        group=words.group,
        title=words.title,
        level=LEVEL_WORDS[one.level],
        figure=said.value if figured else "",
        limit=said.limit if figured else "",
        sentence=words.sentence(said) + (_valve(check, rig, voice) if asks else ""),
        seen=one.seen,
        settle=(check.id, settle.words) if settle else None,
        keep=_keep(check, rig, voice) if asks else None,
        check=check.id,
        place=_place(check, rig),
        part=check.part or "",
    )


def _valve(check: Check, rig: Rig, voice: Voice) -> str:
    """What relief valve would save a bin that folds; empty for every other check."""
    if check.id != "bin-collapse":
        return ""
    solved = solving.solve(rig)
    stage = next((one for one in solved.line.separators if one.id == check.part), None)
    would = None if stage is None else relief_that_would_do(stage, solved.line, solved.found.point)
    return "" if would is None else f" {relief_words(would, voice)}"


def _unsettled(check: Check, rig: Rig) -> bool:
    """Whether a button cannot settle it: nobody has said what the vacuum last held."""
    return check.id == "last-held" and rig.vacuum.last_held is None


def _keep(check: Check, rig: Rig, voice: Voice) -> tuple[str, str] | None:
    """The single change that mends a check; None where there is none, or where it is a matter of taste."""
    change = mending(build_line(rig), check)
    return None if change is None else (candidate_key(change), action_words(change, voice))


def _place(check: Check, rig: Rig) -> str:
    if CHECKS[check.id].group == POWER:
        return "shop" if check.part in {way[0].id for way in rig.line.ways} else "line"
    if check.part in {way[0].id for way in rig.line.ways}:
        return "hood"
    if any(isinstance(e, SeparatorPart) and e.id == check.part for e in rig.line.elements):
        return "separator"
    return "line"


def editors_of(rig: Rig, system: str, *, other: bool = False) -> list[Editor]:
    """The fields that the checks hang on, by what they describe; `other` asks for the figures of an own material."""
    document = rig.model_dump(mode="json")

    def fields(paths: list[str]) -> tuple:  # type: ignore[type-arg]
        return tuple(rig_field(rig, document, path, system) for path in paths)

    editors = [
        Editor("vacuum", "The vacuum", "checks", fields([f"vacuum.{key}" for key in VACUUM_KEYS])),
        Editor("dust", "Dust and hoses", "checks", fields([
            *(["dust.species"] if rig.dust else []), "line.earthed", "site.outdoors"])),
    ]  # fmt: skip
    stage = next((part for part in rig.line.elements if isinstance(part, SeparatorPart)), None)
    if stage is not None:
        root = path_of(document, stage.id)
        paths = [f"{root}.stand.{key}" for key in _stand_keys(stage)] + [f"{root}.bin.mass_kg"]
        editors.append(Editor("stand", "How it stands", "checks", fields(paths)))
        editors.append(Editor("bin", "Bin, rings and lid", "checks", fields(_bin_paths(stage, root, other=other))))
    hoses = tuple(_hose_fields(rig, document, system))
    if hoses:
        editors.append(Editor("hoses", "Walls of the hoses", "checks", hoses))
    return editors


def _stand_keys(stage: SeparatorPart) -> tuple[str, ...]:
    """What is asked of how a separator stands: of a cart or stack its vacuum, of what rolls the way it takes."""
    stand = stage.stand
    on = "floor" if stand is None else stand.stands_on
    stacked = () if on == "floor" else CART_KEYS if on == "cart" else STACK_KEYS
    rolling = ROLLING_KEYS if stand is not None and stand.wheels else ()
    return (*STAND_KEYS, *stacked, *rolling)


def _hose_fields(rig: Rig, document: dict[str, Any], system: str) -> Iterator[Field]:
    """Wall and clearness of every hose, by its name: whether it folds flat and how dust is seen hangs on them."""
    voice = voice_for(rig, system)
    parts = [*(part for way in rig.line.ways for branch in way for part in branch.elements), *rig.line.elements]
    for hose in dict.fromkeys(part.id for part in parts if isinstance(part, HosePart)):
        for key, words in HOSE_KEYS.items():
            field = rig_field(rig, document, f"{path_of(document, hose)}.{key}", system)
            yield replace(field, label=f"{voice.name(hose)}: {words}")


def _bin_paths(stage: SeparatorPart, root: str, *, other: bool) -> list[str]:
    paths = [f"{root}.bin.{key}" for key in ("wall_m", "material", "nested")]
    if other or stage.bin.material == "other":
        paths += [f"{root}.bin.{key}" for key in ("youngs_modulus_pa", "poisson_ratio")]
    for i in range(len(stage.bin.stiffeners)):
        paths += [f"{root}.bin.stiffeners[{i}].{key}" for key in RING_KEYS]
    if stage.bin.lid is not None:
        paths += [f"{root}.bin.lid.{key}" for key in LID_KEYS]
    if stage.bin.relief is not None:
        paths += [f"{root}.bin.relief.{key}" for key in RELIEF_KEYS]
    return [*paths, f"{root}.body_material", f"{root}.body_m"]


def _begins(rig: Rig) -> list[tuple[str, str]]:
    """What of a bin can be described besides, or no longer."""
    stage = next((part for part in rig.line.elements if isinstance(part, SeparatorPart)), None)
    if stage is None:
        return []
    lid = ("lid-off", "− Lid") if stage.bin.lid else ("lid", "+ Lid")
    relief = ("relief-off", "− Relief valve") if stage.bin.relief else ("relief", "+ Relief valve")
    return [lid, relief]


def begun(rig: Rig, what: str) -> Described | None:
    """What begins or ends to be described; None for something else."""
    stage = next((part for part in rig.line.elements if isinstance(part, SeparatorPart)), None)
    if stage is None:
        return None
    root = path_of(rig.model_dump(mode="json"), stage.id)
    match what:
        case "lid":
            material = stage.bin.material if stage.bin.material not in (None, "other") else "plywood"
            lid = {"material": material, "thickness_m": 0.006}
            return Described("Lid described", f"{root}.bin.lid", lid)
        case "lid-off":
            return Described("Lid no longer described", f"{root}.bin.lid", None)
        case "relief":
            return Described("Relief valve put in", f"{root}.bin.relief", _relief(rig, stage.id))
        case "relief-off":
            return Described("Relief valve taken out", f"{root}.bin.relief", None)
    return None


def _relief(rig: Rig, stage: str) -> dict[str, float]:
    solved = solving.solve(rig)
    under = next(one for one in solved.line.separators if one.id == stage)
    valve = relief_to_begin_with(under, solved.line, solved.found.point)
    return {"opens_at_pa": float(valve.opens_at), "area_m2": float(valve.area)}
