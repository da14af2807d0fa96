"""The page of one entry, new or there already."""

from __future__ import annotations

from flask import render_template, request

from fenwick.core.logbook.entries import KINDS
from fenwick.data.lines import readable_lines
from fenwick.data.logbook import entry_of, photos_of
from fenwick.data.shops import readable_shop
from fenwick.logged import Logged
from fenwick.services.logbook.jobs import jobs_to_log
from fenwick.services.logbook.today import shop_today
from fenwick.shop import money_sign
from fenwick.units import format_value
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.units import unit_system
from fenwick.web.log.form import AT, EntryForm, LogShop, form_of, typed_of
from fenwick.wording.handling import bag_steps


def log_shop() -> LogShop:
    """What entries can be about in this shop."""
    rigs, shop = readable_lines(session())[0], readable_shop(session())
    at_work = shop_today(session(), shop_clock()).read.latest_first
    # the line that was logged last is the likeliest to be logged next
    rigs = sorted(rigs, key=lambda one: at_work.index(one[0]) if one[0] in at_work else len(at_work))
    return LogShop(rigs, jobs_to_log(shop, rigs), money_sign(shop))


def entry_page(entry_id: int, photo_error: str = "") -> str:
    """An entry, free to be changed.

    Raises
    ------
    NotFoundError
    """
    entry, system = entry_of(session(), entry_id), unit_system()
    return form_page(form_of(entry.kind, log_shop(), typed_of(entry, system), system, shop_clock()), entry, photo_error)


def form_page(form: EntryForm, entry: Logged | None = None, photo_error: str = "") -> str:
    """A form with what was typed in it."""
    photos = photos_of(session(), [entry.id]) if entry is not None and entry.id is not None else {}
    return render_template(
        "log/entry.html",
        form=form,
        entry=entry,
        just=bool(request.args.get("just")),
        photos=next(iter(photos.values()), []),
        photo_error=photo_error,
        kinds={key: kind.label for key, kind in KINDS.items()},
        latest=shop_clock().strftime(AT),
        steps=_bag_steps(form) if form.kind == "bag" else (),
    )


def _bag_steps(form: EntryForm) -> tuple[str, ...]:
    """How a new bag goes in, at the vacuum of the line that is picked."""
    picked = next((field.text for field in form.fields if field.path == "line"), "")
    rigs = {str(number): rig for number, rig in log_shop().lines}
    rig = rigs.get(picked) or next(iter(rigs.values()), None)
    bore = None if rig is None else rig.vacuum.inlet_bore_m
    return bag_steps("" if bore is None else format_value(bore, "bore", unit_system(), unit=True))
