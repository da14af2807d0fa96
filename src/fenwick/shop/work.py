"""The shop's jobs on one of its lines: a job's tool is the port that bears its name."""

from __future__ import annotations

from fenwick.core.formulas.work import planed_volume, sawn_volume
from fenwick.core.hours.air import Room, room_of
from fenwick.core.hours.work import Job
from fenwick.core.rules import RuleBook
from fenwick.rig import Rig
from fenwick.shop.model import JobPart, OwnedTool, ShopFile

HOUR = 3600.0  #: [s]
UNITS = {"time": "hour", "planed": "board", "cuts": "cut"}


def port_of_tool(rig: Rig, tool: OwnedTool) -> int | None:
    """Place among the line's tool ports of the one that bears a tool's name; None where it is on another line."""
    names = [port.name.lower() for port in tool.ports]
    for i, way in enumerate(rig.line.ways):
        port = way[0].port
        if port is not None and (port.name.lower() in names or (port.tool or "").lower() in names):
            return i
    return None


def tool_of_port(shop: ShopFile | None, rig: Rig, port: int) -> OwnedTool | None:
    """The shop's tool at a place among the line's ports; None where the shop has none of that name."""
    return next((tool for tool in shop.tools if port_of_tool(rig, tool) == port), None) if shop else None


def jobs_on_line(shop: ShopFile, rig: Rig, rules: RuleBook) -> tuple[list[Job], list[tuple[str, str]]]:
    """(jobs that can be followed, name and reason of those that cannot)."""
    tools = {tool.id: tool for tool in shop.tools}
    found, left = [], []
    for part in shop.jobs:
        tool = tools[part.tool]
        at = port_of_tool(rig, tool)
        if at is None:
            left.append((part.name, f"the {tool.ports[0].name.lower()} is not on this line"))
            continue
        port = rig.line.ways[at][0].port
        rate = (port.dust_rate_kg_s if port else None) or tool.ports[0].dust_rate_kg_s
        mass, times, seconds = _amount(part, rate, rules)
        if mass is None:
            left.append((part.name, f"what the {tool.ports[0].name.lower()} makes in a minute is not known"))
            continue
        found.append(Job(part.id, part.name, at, mass, times, seconds, UNITS[part.work]))
    return found, left


def dust_of_jobs(shop: ShopFile, rig: Rig) -> tuple[tuple[str, str], ...]:
    """(name, kind of dust) of every job whose tool is on the line."""
    tools = {tool.id: tool for tool in shop.tools}
    return tuple(
        (job.name, tools[job.tool].dust) for job in shop.jobs if port_of_tool(rig, tools[job.tool]) is not None
    )


def hours_a_week(shop: ShopFile | None, rig: Rig, port: int, rules: RuleBook) -> float | None:
    """Hours a week that the jobs at a port take [h]; None where no job is known there."""
    if shop is None:
        return None
    jobs, _ = jobs_on_line(shop, rig, rules)
    hours = [job.seconds * job.times / HOUR for job in jobs if job.port == port and job.seconds is not None]
    return sum(hours) or None


def _amount(part: JobPart, rate: float | None, rules: RuleBook) -> tuple[float | None, float, float | None]:
    """(dust each time [kg], times a week, seconds each time) of a job; an hour's work counts as one time."""
    if part.work == "time":
        return (None if rate is None else rate * HOUR), part.hours_a_week or 0.0, HOUR
    assert part.width_m is not None
    assert part.depth_m is not None
    assert part.length_m is not None
    assert part.times_a_week is not None
    volume = planed_volume if part.work == "planed" else sawn_volume
    density = float(rules["work.wood"]) if part.wood_kg_m3 is None else part.wood_kg_m3
    mass = float(volume(part.width_m, part.depth_m, part.length_m)) * density
    return mass, part.times_a_week, mass / rate if rate else None


def room_of_shop(shop: ShopFile, rules: RuleBook, cleaned: float | None = None) -> Room:
    """The shop's room, with its own room filter or another."""
    room = shop.room
    changes = None if room.air_changes_per_h is None else room.air_changes_per_h / HOUR
    own = room.filter_flow_m3_s or 0.0
    return room_of(room.volume, changes, own if cleaned is None else cleaned, rules, room.height_m)
