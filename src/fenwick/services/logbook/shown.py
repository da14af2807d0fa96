"""A line as the log has it today: how full its bin is, what its filter holds; and what a change of that means."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime

from sqlmodel import Session

from fenwick.core.errors import CoreError
from fenwick.core.logbook.entries import BIN, FILTER
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


def to_store(session: Session, line_id: int, shown: Rig, changed: Rig, now: datetime) -> Rig:
    """A changed rig as it is to be stored: what the log said of today stays out of it.

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
        return changed
    changed = _bin_back(session, line_id, stored, shown, changed, now)
    return _filter_back(session, line_id, stored, shown, changed, now)


def _bin_back(session: Session, line_id: int, stored: Rig, shown: Rig, changed: Rig, now: datetime) -> Rig:
    parts = [first_separator(rig) for rig in (stored, shown, changed)]
    if any(part is None for part in parts):
        return changed
    bins = [part.bin for part in parts if part is not None]
    was, seen, wanted = (one.fill_height_m for one in bins)
    another = (bins[1].profile, bins[1].of_shop) != (bins[2].profile, bins[2].of_shop)
    if was == seen or another or parts[2] is None:
        return changed
    if wanted != seen:
        kind, level = ("looked", wanted) if wanted > 0.0 else ("emptied", seen)
        add_entries(
            session, [Logged(kind, now, line_id, level=level)], "Looked at the bin" if wanted else "Emptied the bin"
        )
    return with_fill(changed, parts[2].id, min(was, parts[2].bin.profile[-1].height_m))


def _filter_back(session: Session, line_id: int, stored: Rig, shown: Rig, changed: Rig, now: datetime) -> Rig:
    media = [rig.vacuum.filter for rig in (stored, shown, changed)]
    if any(medium is None for medium in media):
        return changed
    was, seen, wanted = (medium.held_kg for medium in media if medium is not None)
    vacuums = [(rig.vacuum.name, rig.vacuum.of_shop) for rig in (shown, changed)]
    if was == seen or vacuums[0] != vacuums[1] or media[2] is None:
        return changed
    if wanted == 0.0:
        add_entries(session, [Logged("tapped", now, line_id)], "Tapped the filter")
    elif wanted != seen:
        show_by_log(session, line_id, on=False)
        return changed
    back = media[2].model_copy(update={"held_kg": was})
    return changed.model_copy(update={"vacuum": changed.vacuum.model_copy(update={"filter": back})})
