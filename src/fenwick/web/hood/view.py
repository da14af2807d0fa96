"""What a port's own page shows, prepared as plain values."""

from __future__ import annotations

from dataclasses import dataclass, replace

from markupsafe import Markup

from fenwick.core.arrays import one_value
from fenwick.core.catalogue.tools import TOOLS
from fenwick.core.dust.capture import Capture, tool_flow
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS
from fenwick.core.judging.checks import speed_level
from fenwick.core.line.extra_fan import extra_flow
from fenwick.core.line.line import Leaf, Line
from fenwick.data.lines import LineState
from fenwick.drawing.hood import render_hood
from fenwick.drawing.tool_symbol import render_tool
from fenwick.drawing.tools import symbol_of
from fenwick.rig import Rig
from fenwick.rig.edits.changes import candidate_key
from fenwick.rig.edits.hood_options import hood_options
from fenwick.rig.edits.ports import alone
from fenwick.rig.format.box import BoxPart
from fenwick.rig.format.curve import NameplatePart
from fenwick.rig.format.elements import BranchPart
from fenwick.rig.format.guesses import guess_path
from fenwick.rig.format.hood import HOOD_KINDS, AnyHood, EnclosurePart, ExtraFanPart
from fenwick.rig.format.places import path_of
from fenwick.rig.voice import voice_for
from fenwick.services.ports import port_study
from fenwick.services.solving import solve
from fenwick.web.kit.editor import Editor, rig_field
from fenwick.web.kit.voice import voice_of
from fenwick.wording.causes import PortFound
from fenwick.wording.hood import HOOD_WORDS, effect_words, hood_rows, option_words
from fenwick.wording.ports import helping
from fenwick.wording.rows import VerdictRow
from fenwick.wording.say import Voice
from fenwick.wording.whatif import Suggestion

PORT_KEYS = ("name", "bore_m", "entry", "machine", "dust", "dust_rate_kg_s", "tool", "outdoors")
KIND_KEYS: dict[str, tuple[str, ...]] = {
    "opening": ("distance_m",),
    "built-in": ("distance_m",),
    "slot": ("distance_m", "length_m", "width_m", "flanged"),
    "enclosure": (),
    "floor": ("width_m", "gap_m"),
}
FAN_KEYS = ("medium", "area_m2", "current_a", "motor", "wiring")
FAN_CURVE_LABELS = {"sealed_suction_pa": "Fan sealed", "open_flow_m3_s": "Fan open flow"}
FAN_CURVE_KEYS = tuple(f"curve.{key}" for key in FAN_CURVE_LABELS)
UNSAID = {
    "thrown_bore_m": "that of the port",
    "dust": "that of the line",
    "tool": "has one port",
    "medium": "none",
}  #: what an empty field means
PICKED_UP = {"thrown_share": "Picked up"}  #: what a floor nozzle's fields are called instead


@dataclass(frozen=True)
class OptionRow:
    """One thing to do at the hood."""

    id: str
    action: str
    effort: str
    effect: str


@dataclass(frozen=True)
class HoodWayRow:
    """A box in one way of working."""

    name: str
    often: str
    area: str
    face: str
    caught: str
    level: str


@dataclass(frozen=True)
class HoodView:
    """The page."""

    state: LineState
    port: str
    name: str
    others: list[tuple[str, str]]  #: (id, name) of the line's other ports
    editor: Editor
    kind: str  #: of the hood; empty where none is described
    kinds: list[tuple[str, str]]
    tools: list[tuple[str, str]]  #: generic tools to begin from
    picture: Markup | None
    symbol: Markup  #: of the tool
    rows: list[VerdictRow]
    ways: list[HoodWayRow]
    #: (key, words) of the change of the line that helps this tool most, before any of its hood
    line_first: tuple[str, Suggestion] | None
    options: list[OptionRow]
    fan: str  #: what tells the air of its extra fan: flow, curve, points; empty without one
    air: str  #: at the tool, open alone
    sized: bool  #: whether it is a box with sizes


def branch_of(rig: Rig, port: str) -> BranchPart | None:
    """The branch of a tool port; None where the line has none of that id."""
    return next((way[0] for way in rig.line.ways if way[0].id == port), None)


def hood_paths(rig: Rig, port: str) -> list[str]:
    """Paths of every field of a port and its hood."""
    branch = branch_of(rig, port)
    assert branch is not None
    assert branch.port is not None
    root = f"{path_of(rig.model_dump(mode='json'), port)}.port"
    hood = branch.port.hood
    return [*(f"{root}.{key}" for key in PORT_KEYS), *(f"{root}.hood.{key}" for key in _hood_keys(hood))]


def _hood_keys(hood: AnyHood | None) -> list[str]:
    if hood is None:
        return []
    kind = str(hood.kind)  # type: ignore[attr-defined]
    keys = [*KIND_KEYS[kind], "release", "thrown_share", "thrown_bore_m", *(() if kind == "floor" else ("rebound",))]
    if isinstance(hood, EnclosurePart):
        keys += [f"openings[{i}].{key}" for i in range(len(hood.openings)) for key in ("name", "area_m2", "share")]
        keys += _box_keys(hood.box)
    if hood.extra_fan is not None:
        keys += [f"extra_fan.{key}" for key in (*_moving_keys(hood.extra_fan), *FAN_KEYS)]
    return keys


def _box_keys(box: BoxPart | None) -> list[str]:
    if box is None:
        return []
    keys = ["box.width_m", "box.depth_m", "box.height_m", "box.gap_m"]
    for i in range(len(box.passages)):
        keys += [f"box.passages[{i}].{key}" for key in ("side", "width_m", "height_m")]
    for i in range(len(box.doors)):
        keys += [f"box.doors[{i}].{key}" for key in ("name", "side", "width_m", "height_m", "share")]
    return keys


def _moving_keys(fan: ExtraFanPart) -> tuple[str, ...]:
    """What its air is told by; the points of a measured curve stay in the file."""
    if fan.curve is None:
        return ("flow_m3_s",)
    return (*FAN_CURVE_KEYS, "bore_m") if isinstance(fan.curve, NameplatePart) else ("bore_m",)


def hood_editor(rig: Rig, port: str, name: str, system: str) -> Editor:
    """The editor of a port and its hood."""
    document = rig.model_dump(mode="json")
    guessed = {guess_path(document, guess) for guess in document["guesses"]}
    fields = []
    for path in hood_paths(rig, port):
        field = replace(rig_field(rig, document, path, system), guess=path in guessed)
        if path.rsplit(".", 1)[-1] in UNSAID:
            field = replace(field, unknown=UNSAID[path.rsplit(".", 1)[-1]])
        if ".extra_fan.curve." in path:
            field = replace(field, label=FAN_CURVE_LABELS[path.rsplit(".", 1)[-1]])
        if document_kind(rig, port) == "floor" and path.endswith("thrown_share"):
            field = replace(field, label=PICKED_UP["thrown_share"])
        fields.append(field)
    return Editor(port, name, "hood", tuple(fields))


def fan_told_by(rig: Rig, port: str) -> str:
    """What tells the air of a port's extra fan: its flow, a curve, or points of one; empty where it has none."""
    branch = branch_of(rig, port)
    hood = branch.port.hood if branch and branch.port else None
    if hood is None or hood.extra_fan is None:
        return ""
    curve = hood.extra_fan.curve
    return "flow" if curve is None else "curve" if isinstance(curve, NameplatePart) else "points"


def _sized(rig: Rig, port: str) -> bool:
    branch = branch_of(rig, port)
    hood = branch.port.hood if branch and branch.port else None
    return isinstance(hood, EnclosurePart) and hood.box is not None


def document_kind(rig: Rig, port: str) -> str:
    """Kind of a port's hood; empty where none is described."""
    branch = branch_of(rig, port)
    hood = branch.port.hood if branch and branch.port else None
    return str(hood.kind) if hood else ""


def hood_view(state: LineState, port: str, system: str, editor: Editor | None = None) -> HoodView:
    """Solve the line with one port open alone and prepare its page.

    Parameters
    ----------
    state : the line as stored
    port : id of the port
    system : unit system
    editor : fields as they were typed, with what is wrong with them
    """
    rig = alone(state.rig, port) or state.rig
    solved, voice = solve(rig), voice_for(rig, system)
    line, found = solved.line, solved.found
    at = [leaf.id for leaf in line.leaves].index(port)
    leaf = line.leaves[at]
    caught = next((one for one in found.captures if one.id == port), None)
    rows, picture = [], None
    if caught is not None and leaf.port.hood is not None:
        drawn = float(tool_flow(line, found.point, at)[0])
        rows = hood_rows(line, leaf, caught, drawn, found.fate, voice)
        picture = _picture(leaf, caught, line, float(found.point.port_flow[at, 0]), voice)
    return HoodView(
        state=state,
        port=port,
        name=leaf.port.name,
        others=[(one.id, one.port.name) for one in line.leaves],
        editor=editor or hood_editor(state.rig, port, leaf.port.name, system),
        kind=document_kind(rig, port),
        symbol=_symbol(rig, port),
        kinds=[(kind, HOOD_WORDS[kind]) for kind in HOOD_KINDS],
        tools=[(key, tool.label) for key, tool in TOOLS.items()],
        picture=picture,
        rows=rows,
        ways=_ways(line, caught, voice) if caught and len(caught.ways) > 1 else [],
        line_first=_line_first(state, port, system),
        options=_options(rig, port, found, voice),
        fan=fan_told_by(rig, port),
        air=voice.figure(found.point.port_flow[at, 0], "flow"),
        sized=_sized(state.rig, port),
    )


def _picture(leaf: Leaf, caught: Capture, line: Line, flow: float, voice: Voice) -> Markup:
    hood = leaf.port.hood
    assert hood is not None
    through = flow + one_value(extra_flow(hood.extra_fan, line))
    return render_hood(hood, caught, float(leaf.port.bore), through, leaf.port.entry == "flanged", voice)


def _ways(line: Line, port: Capture, voice: Voice) -> list[HoodWayRow]:
    return [
        HoodWayRow(
            way.name,
            voice.figure(way.share, "share"),
            voice.figure(float(way.area[0]), "opening"),
            voice.figure(float(way.face[0]), "speed"),
            voice.figure(float(way.airborne[0]), "share"),
            LEVEL_WORDS[int(speed_level(way.velocity, port.needed, line)[0])],
        )
        for way in port.ways
    ]


def _line_first(state: LineState, port: str, system: str) -> tuple[str, Suggestion] | None:
    """What Line and Ports put first for this tool, so that this page does not begin with something else."""
    study = port_study(state.rig, state.owned, port)
    if study.best is None:
        return None
    here = PortFound(study.line, study.found, study.port, voice_of(state, system))
    return candidate_key(study.best.candidate), helping(study.best, here)


def _options(rig: Rig, port: str, found: Assessment, voice: Voice) -> list[OptionRow]:
    rows = []
    for option in hood_options(rig, port, found):
        action, effort = option_words(option.id, option.value, voice)
        rows.append(OptionRow(option.id, action, effort, effect_words(option.id, option.gain, option.in_bin)))
    return rows


def _symbol(rig: Rig, port: str) -> Markup:
    """The kind of tool that a port is of."""
    own = next(way[0].port for way in rig.line.ways if way[0].id == port)
    assert own is not None
    return render_tool(symbol_of(own))
