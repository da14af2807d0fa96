"""What the shop's page shows, prepared as plain values."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import degrees

from markupsafe import Markup

from fenwick.data.shops import ShopState
from fenwick.drawing.floor import render_floor
from fenwick.rig import Rig
from fenwick.rig.edits.routes import route_length
from fenwick.shop import ShopFile
from fenwick.shop.plan import FloorPlan, lay_floor
from fenwick.units import format_value
from fenwick.web.kit.document_fields import document_field
from fenwick.web.kit.fields import Field
from fenwick.web.shop.fills import FillRow, fill_rows
from fenwick.web.shop.findings import shop_findings

WORK_KEYS = ("hours_a_week", "times_a_week", "width_m", "depth_m", "length_m", "wood_kg_m3")
#: which of them a way of counting asks for, and what they are called there
WORK_LABELS: dict[str, dict[str, str]] = {
    "time": {"hours_a_week": "Hours a week"},
    "planed": {"times_a_week": "Boards a week", "width_m": "Wide", "depth_m": "Taken off", "length_m": "Long"},
    "cuts": {"times_a_week": "Cuts a week", "width_m": "Kerf", "depth_m": "Thick", "length_m": "Long"},
}
MOST_FACTS = 3  #: told of a thing in the list
ENDS = tuple(f"{end}.{key}" for end in ("one_end", "other_end") for key in ("inside_d_m", "outside_d_m"))


@dataclass(frozen=True)
class OwnedList:
    """One of the shop's lists."""

    key: str
    title: str
    singular: str  #: what one is called
    fields: tuple[str, ...]  #: keys of what is asked of it


LISTS = (
    OwnedList(
        "tools",
        "Tools",
        "tool",
        (
            "ports[0].name",
            "kind",
            "dust",
            "ports[0].bore_m",
            "ports[0].entry",
            "port_height_m",
            "travel_m",
            "swing_m",
            "faces",
            "current_a",
            "circuit",
        ),
    ),
    OwnedList(
        "vacuums",
        "Vacuums",
        "vacuum",
        (
            "name",
            "curve.sealed_suction_pa",
            "curve.open_flow_m3_s",
            "electrical_power_w",
            "current_a",
            "inlet_bore_m",
            "filter.price",
            "cord_m",
            "circuit",
        ),
    ),
    OwnedList("hoses", "Hoses", "hose", ("name", "bore_m", "length_m", "wall", *ENDS)),
    OwnedList("fittings", "Fittings", "fitting", ("name", "one_bore_m", "other_bore_m", "length_m")),
    OwnedList("circuits", "Circuits", "circuit", ("name", "rating_a", "voltage_v", "switch_a", "run_on_s")),
    OwnedList("furniture", "Furniture", "piece", ("name", "width_m", "depth_m", "walked", "wheels")),
    OwnedList("jobs", "Jobs", "job", ("name", "tool", "work", *WORK_KEYS)),
    OwnedList("bins", "Bins", "bin", ("name", "top_d_m", "bottom_d_m", "height_m", "wall_m", "material", "closure")),
    OwnedList("sheets", "Sheets", "sheet", ("material", "thickness_m", "width_m", "height_m", "price")),
    OwnedList("tubes", "Tubes", "tube", ("material", "bore_m", "wall_m", "length_m")),
    OwnedList("cutting", "Cutting tools", "cutting tool", ("kind", "d_m", "depth_m")),
    OwnedList("salvaged", "Salvaged", "part", ("name", "kind", "cord_fine", "brushes_fine", "no_cracks", "last_held")),
    OwnedList("prices", "Prices", "price", ("of", "price")),
)
ROOM = (
    "name",
    "money",
    "room.width_m",
    "room.depth_m",
    "room.height_m",
    "room.air_changes_per_h",
    "room.filter_flow_m3_s",
    "site.temperature_c",
    "site.altitude_m",
)
END_LABELS = {
    "one_end.inside_d_m": "One end inside",
    "one_end.outside_d_m": "outside",
    "other_end.inside_d_m": "Other inside",
    "other_end.outside_d_m": "outside",
}


@dataclass(frozen=True)
class ItemRow:
    """One thing that is owned."""

    id: str
    name: str
    facts: str  #: what is known of it, in a few words
    fields: tuple[Field, ...]
    open: bool  #: whether its fields are shown


@dataclass(frozen=True)
class LineLength:
    """A line in which a tool stands, with the hose it has there."""

    line_id: int
    line: str
    branch: str
    length: str
    fits: bool  #: long enough, and no more than half a metre too long


@dataclass(frozen=True)
class HoseRow:
    """What the floor plan asks of one tool's hose."""

    tool: str
    name: str
    length: str
    bends: str
    lines: tuple[LineLength, ...]


@dataclass(frozen=True)
class ListTab:
    """The heading of one of the shop's lists."""

    key: str
    title: str
    count: int | None  #: None: nothing to count


ROOM_TAB = ListTab("room", "Room", None)


@dataclass(frozen=True)
class ShopView:
    """The page."""

    state: ShopState
    listed: str
    tabs: list[ListTab]
    singular: str
    items: list[ItemRow]
    opened: str  #: id of the thing whose fields are shown; empty: none
    fills: list[FillRow]
    room: tuple[Field, ...]
    plan: Markup
    hoses: list[HoseRow]
    findings: list[tuple[str, str]]  #: (level, sentence)
    can_move: bool  #: whether the separator stands elsewhere than at the best spot
    error: str = ""
    unreadable: tuple[str, ...] = ()  #: names of lines that are there and cannot be read


@dataclass(frozen=True)
class Refusal:
    """What was typed and is not saved."""

    typed: dict[str, str]
    errors: dict[str, str]


Lines = Sequence[tuple[int, Rig]]


def shop_view(
    state: ShopState,
    listed: str | None,
    lines: Lines,
    system: str,
    refused: Refusal | None = None,
    unreadable: tuple[str, ...] = (),
    opened: str = "",
) -> ShopView:
    """Lay the floor and prepare the page.

    Parameters
    ----------
    state : the shop as stored
    listed : which list is open
    lines : (id, rig) of every line, for the lengths they have
    system : unit system
    refused : what was just refused
    unreadable : names of lines that are there and cannot be read
    opened : id of the thing whose fields are shown
    """
    shop = state.file
    plan = lay_floor(shop)
    open_list = next((one for one in LISTS if one.key == listed), None if listed == "room" else LISTS[0])
    lengths = {r.id: format_value(r.length, "length", system, unit=True) for r in plan.routes}
    return ShopView(
        state=state,
        listed=open_list.key if open_list else "room",
        tabs=[*(ListTab(one.key, one.title, len(getattr(shop, one.key))) for one in LISTS), ROOM_TAB],
        singular=open_list.singular if open_list else "",
        items=_items(shop, open_list, system, refused, opened) if open_list else [],
        opened=opened,
        fills=fill_rows(shop, lines),
        room=tuple(_settled(field, refused) for field in room_fields(shop, system)),
        plan=render_floor(shop, plan, lengths, "floor"),
        hoses=_hoses(shop, plan, lines, lengths, system),
        findings=shop_findings(shop, plan, system),
        can_move=plan.spot is not None and (plan.longest is None or plan.spot.length < plan.longest - 0.05),
        error=refused.errors.get("", "") if refused else "",
        unreadable=unreadable,
    )


def item_fields(shop: ShopFile, group: str, at: int, system: str) -> tuple[Field, ...]:
    """The fields of one thing, as it stands."""
    document = shop.model_dump(mode="json")
    keys = next(one.fields for one in LISTS if one.key == group)
    item = document[group][at]
    if group == "vacuums":
        measured = item["curve"]["kind"] != "nameplate"
        keys = tuple(key for key in keys if not (measured and key.startswith("curve.")))
        keys = tuple(key for key in keys if not (item["filter"] is None and key.startswith("filter.")))
    if group == "jobs":
        keys = tuple(k for k in keys if k not in WORK_KEYS or k in _work_labels(item["work"]))
    fields = (_field(shop, document, f"{group}[{at}].{key}", key, system) for key in keys)
    if group != "jobs":
        return tuple(fields)
    labels = _work_labels(item["work"])
    return tuple(replace(field, label=labels.get(key, field.label)) for key, field in zip(keys, fields, strict=True))


def _work_labels(work: str) -> dict[str, str]:
    labels = WORK_LABELS[work]
    return labels if work == "time" else {**labels, "wood_kg_m3": "Wood"}


def room_fields(shop: ShopFile, system: str) -> tuple[Field, ...]:
    """The fields of the shop itself and its room."""
    document = shop.model_dump(mode="json")
    return tuple(document_field(ShopFile, document, path, system) for path in ROOM)


def _field(shop: ShopFile, document: dict[str, object], path: str, key: str, system: str) -> Field:
    field = document_field(ShopFile, document, path, system, END_LABELS.get(key, ""))
    if key == "ports[0].name":
        return replace(field, label="Tool")
    if key == "circuit":
        return replace(field, choices=tuple((c.id, c.name) for c in shop.circuits), free_text=False)
    if key == "tool":
        return replace(field, choices=tuple((t.id, t.ports[0].name) for t in shop.tools), free_text=False)
    return field


def _items(shop: ShopFile, listed: OwnedList, system: str, refused: Refusal | None, opened: str) -> list[ItemRow]:
    rows = []
    for at, item in enumerate(getattr(shop, listed.key)):
        fields = tuple(_settled(field, refused) for field in item_fields(shop, listed.key, at, system))
        wrong = any(field.error for field in fields)
        name = _word(fields[0]) or item.id
        rows.append(ItemRow(item.id, name, _facts(fields[1:]), fields, item.id == opened or wrong))
    return rows


def _facts(fields: Sequence[Field]) -> str:
    """What is known of a thing, as many as a line takes."""
    told = (field for field in fields if field.text and field.text != "no")
    known = [field.label.lower() if field.text == "yes" else f"{_word(field)} {field.unit}".strip() for field in told]
    return " · ".join(known[:MOST_FACTS])


def _word(field: Field) -> str:
    return dict(field.choices).get(field.text, field.text)


def _settled(field: Field, refused: Refusal | None) -> Field:
    if refused is None:
        return field
    return replace(field, text=refused.typed.get(field.path, field.text), error=refused.errors.get(field.path, ""))


def _hoses(shop: ShopFile, plan: FloorPlan, lines: Lines, lengths: dict[str, str], system: str) -> list[HoseRow]:
    tools = {tool.id: tool for tool in shop.tools}
    rows = []
    for route in plan.routes:
        name = tools[route.id].ports[0].name
        bends = [f"{degrees(turn):.0f}°" for turn in route.bends]
        found = []
        for line_id, rig in lines:
            for way in rig.line.ways:
                if way[0].port and way[0].port.name.lower() == name.lower():
                    has = route_length(rig, way[0].id)
                    shown = format_value(has, "length", system, unit=True)
                    fits = route.length <= has + 0.01 and has <= route.length + 0.5
                    found.append(LineLength(line_id, rig.name, way[0].id, shown, fits))
        rows.append(HoseRow(route.id, name, lengths[route.id], ", ".join(bends) or "none", tuple(found)))
    return rows
