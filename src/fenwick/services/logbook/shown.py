"""A line as the log has it today: how full its bin is, what its filter holds; and what a change of that means."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

from sqlmodel import Session

from fenwick.core.errors import CoreError
from fenwick.core.logbook.entries import BIN, FILTER, KINDS
from fenwick.data.by_log import show_by_log, shows_by_log, stored_rig
from fenwick.data.lines import ShownRig
from fenwick.data.logbook import add_entries
from fenwick.logged import Logged
from fenwick.rig import Rig, RigError
from fenwick.services.logbook.estimate import HolderToday
from fenwick.services.logbook.holders import first_separator, height_of_share, with_fill
from fenwick.services.logbook.today import shop_today

STEP, GRAM = 1e-3, 5e-4  #: to which level [m] and dust on a filter [kg] are told: no estimate is finer


def as_the_log_has_it(clock: Callable[[], datetime]) -> ShownRig:
    """What makes a line's stored rig the one that is shown, by the shop's clock."""

    def shown(session: Session, line_id: int, rig: Rig) -> Rig:
        try:
            return with_today(rig, shop_today(session, clock()).of_line(line_id))
        except (CoreError, RigError):  # its own page says what is wrong with it
            return rig

    return shown


def with_today(rig: Rig, holders: list[HolderToday]) -> Rig:
    """A rig with what the log says of its first bin and of its filter, as far as it says anything."""
    for one in (one for one in holders if one.known):
        if one.holder.kind == BIN:
            rig = _filled(rig, one.used.likely)
        elif one.holder.kind == FILTER and one.held is not None and rig.vacuum.filter is not None:
            held = round(one.held / GRAM) * GRAM
            loaded = rig.vacuum.filter.model_copy(update={"held_kg": held})
            rig = rig.model_copy(update={"vacuum": rig.vacuum.model_copy(update={"filter": loaded})})
    return rig


def _filled(rig: Rig, used: float) -> Rig:
    part, level = first_separator(rig), height_of_share(rig, used)
    if part is None or level is None:
        return rig
    return with_fill(rig, part.id, min(round(level / STEP) * STEP, part.bin.profile[-1].height_m))


@dataclass(frozen=True)
class ToStore:
    """What a change comes to."""

    rig: Rig | None  #: as it is to be stored; None: nothing of the line changed
    entry: Logged | None = None  #: of the log, that it is instead or as well
    described: bool = False  #: the line shows what is described from now on


def to_store(session: Session, line_id: int, shown: Rig, changed: Rig, now: datetime) -> ToStore:
    """What of a change belongs to the line, without what the log said of today, and what to the log.

    Another level in the bin is an entry of the log: somebody looked, or emptied it; so is a clean filter. Another load
    of the filter is none that can be logged: the line shows again what is described.

    Parameters
    ----------
    session : opened to write
    line_id : of the line
    shown : the rig as it was shown
    changed : the same with the change
    now : by the shop's clock
    """
    stored = stored_rig(session, line_id)
    if stored == shown or not shows_by_log(session, line_id):
        return ToStore(changed)
    of_bin = _bin_back(stored, shown, changed, line_id, now)
    assert of_bin.rig is not None
    of_filter = _filter_back(stored, shown, of_bin.rig, line_id, now)
    rig = None if of_filter.rig == stored else of_filter.rig
    return ToStore(rig, of_bin.entry or of_filter.entry, of_filter.described)


def keep_in_log(session: Session, line_id: int, change: ToStore) -> None:
    """Do what a change means beside the line."""
    if change.entry is not None:
        add_entries(session, [change.entry], KINDS[change.entry.kind].label)
    if change.described:
        show_by_log(session, line_id, on=False)


def _bin_back(stored: Rig, shown: Rig, changed: Rig, line_id: int, now: datetime) -> ToStore:
    parts = [part for part in map(first_separator, (stored, shown, changed)) if part is not None]
    if len(parts) < 3:
        return ToStore(changed)
    was, seen, wanted = (part.bin.fill_height_m for part in parts)
    another = (parts[1].bin.profile, parts[1].bin.of_shop) != (parts[2].bin.profile, parts[2].bin.of_shop)
    if was == seen or another:
        return ToStore(changed)
    back = with_fill(changed, parts[2].id, min(was, parts[2].bin.profile[-1].height_m))
    if wanted == seen:
        return ToStore(back)
    # emptied, nobody said how full it was: an estimate would be learned from as if it had been seen
    looked = Logged("looked", now, line_id, level=wanted)
    return ToStore(back, looked if wanted > 0.0 else Logged("emptied", now, line_id))


def _filter_back(stored: Rig, shown: Rig, changed: Rig, line_id: int, now: datetime) -> ToStore:
    media = [medium for medium in (rig.vacuum.filter for rig in (stored, shown, changed)) if medium is not None]
    vacuums = [(rig.vacuum.name, rig.vacuum.of_shop) for rig in (shown, changed)]
    if len(media) < 3 or vacuums[0] != vacuums[1] or media[0].held_kg == media[1].held_kg:
        return ToStore(changed)
    seen, wanted = media[1].held_kg, media[2].held_kg
    if wanted not in (seen, 0.0):
        return ToStore(changed, described=True)
    medium = media[2].model_copy(update={"held_kg": media[0].held_kg})
    back = changed.model_copy(update={"vacuum": changed.vacuum.model_copy(update={"filter": medium})})
    return ToStore(back, None if wanted == seen else Logged("tapped", now, line_id))
