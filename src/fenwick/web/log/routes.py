"""Routes of the log: parse, call, render."""

from __future__ import annotations

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for
from flask.typing import ResponseReturnValue

from fenwick.core.logbook.entries import KINDS
from fenwick.data.by_log import show_by_log, shows_by_log
from fenwick.data.lines import readable_lines
from fenwick.data.logbook import (
    LogWanted,
    add_entries,
    change_entry,
    count_of,
    entries_of,
    entry_of,
    photos_of,
    remove_entries,
    standing_of_log,
    step_log,
)
from fenwick.data.shops import readable_shop, the_shop
from fenwick.logged import Logged
from fenwick.services.logbook.due import due_in
from fenwick.services.logbook.elsewhere import done_elsewhere
from fenwick.services.logbook.jobs import jobs_to_log, usual_week
from fenwick.services.logbook.today import shop_today
from fenwick.shop import money_sign
from fenwick.web.kit.clock import shop_clock
from fenwick.web.kit.database import session
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.paging import paged
from fenwick.web.kit.quick import ASKED, quick_logs
from fenwick.web.kit.units import unit_system
from fenwick.web.log import exchange, photos, tool_clock
from fenwick.web.log.due_page import due_page
from fenwick.web.log.emptying_page import emptying_page
from fenwick.web.log.entry_page import entry_page, form_page, log_shop
from fenwick.web.log.form import APART, EntryForm, form_of, read_entry, tools_of
from fenwick.web.log.money_page import money_page
from fenwick.web.log.trend_page import trend_page
from fenwick.web.log.view import (
    ON_A_PAGE,
    LogView,
    TodaySwitch,
    label_of,
    log_days,
    meanwhile,
    shown_due,
    today_rows,
)

bp = Blueprint("log", __name__)
bp.register_blueprint(exchange.bp)
bp.register_blueprint(photos.bp)
bp.register_blueprint(tool_clock.bp)
GROUPS = {
    "emptied": ("emptied", "looked", "tank"),
    "filters": ("tapped", "blown", "washed", "replaced", "bag"),
    "looked": ("inspected", "renewed", "changed"),
    "worked": ("worked",),
    "measured": ("suction", "kept", "wiped", "heard", "inside"),
    "told": ("odd", "spent", "remark"),
}
GROUP_WORDS = {
    "emptied": "Bins", "filters": "Filters and bags", "looked": "Seals and repairs", "worked": "Hours",
    "measured": "Readings", "told": "Money and remarks",
}  # fmt: skip


@bp.get("/log")
def show() -> ResponseReturnValue:
    """The log."""
    return _page()


@bp.get("/log/due")
def due() -> ResponseReturnValue:
    """All that is due, on a strip of the coming weeks."""
    return due_page()


@bp.get("/log/trend")
def trend() -> ResponseReturnValue:
    """Whether it gets worse."""
    return trend_page()


@bp.get("/log/money")
def money() -> ResponseReturnValue:
    """What was spent, and what the separator saved of it."""
    return money_page()


@bp.get("/log/emptying")
def emptying() -> ResponseReturnValue:
    """How the bin of a line is emptied, and what that takes."""
    return emptying_page()


@bp.post("/log/tap")
def tap() -> ResponseReturnValue:
    """Log something at once, as done now; more can be said of it on the page that comes."""
    kind = request.form.get("kind", "")
    line = request.form.get("line", type=whole)
    if kind not in KINDS or KINDS[kind].needs or line not in dict(log_shop().lines):
        abort(404)
    entry = Logged(kind, shop_clock().replace(second=0, microsecond=0), line)
    (added,) = add_entries(session(), [entry], label_of(entry))
    return redirect(url_for("log.edit", entry_id=added, just=1))


@bp.post("/log/week")
def week() -> ResponseReturnValue:
    """Log all that the jobs of a usual week take, as done by now."""
    entries = usual_week(list(log_shop().jobs.values()), shop_clock().replace(second=0, microsecond=0))
    if not entries:
        abort(404)
    add_entries(session(), entries, "A usual week of the jobs")
    flash(f"Logged: a usual week, {len(entries)} jobs. Undo takes it back.")
    return redirect(url_for("log.show"))


@bp.get("/log/new")
def ask() -> ResponseReturnValue:
    """The form of an entry."""
    kind = request.args.get("kind", "remark")
    if kind not in KINDS:
        abort(404)
    return form_page(form_of(kind, log_shop(), request.args, unit_system(), shop_clock()))


@bp.post("/log/new")
def add() -> ResponseReturnValue:
    """Take the entry; what is wrong comes back beside what was typed."""
    entry, form = _read(request.form.get("kind", ""))
    if entry is None:
        return form_page(form), 422
    add_entries(session(), [entry], label_of(entry))
    flash(f"Logged: {label_of(entry)}.")
    return redirect(url_for("log.show"))


@bp.get("/log/<int:entry_id>")
def edit(entry_id: int) -> ResponseReturnValue:
    """An entry, free to be changed."""
    return entry_page(entry_id)


@bp.post("/log/<int:entry_id>")
def change(entry_id: int) -> ResponseReturnValue:
    """Put what the form says in the place of the entry."""
    before = entry_of(session(), entry_id)
    entry, form = _read(before.kind)
    if entry is None:
        return form_page(form, before), 422
    change_entry(session(), entry_id, entry, f"Changed: {label_of(entry)}")
    flash(f"Logged: {label_of(entry)}.")
    return redirect(url_for("log.show"))


@bp.post("/log/<int:entry_id>/remove")
def remove(entry_id: int) -> ResponseReturnValue:
    """Take an entry out of the log."""
    entry = entry_of(session(), entry_id)
    remove_entries(session(), [entry_id], f"Removed: {label_of(entry)}")
    return redirect(url_for("log.show"))


@bp.post("/log/today/<int:line_id>/<any(on, off):way>")
def switch(line_id: int, way: str) -> ResponseReturnValue:
    """Show a line as the log has it today, or as it is described."""
    show_by_log(session(), line_id, on=way == "on")
    return redirect(url_for("log.show"))


@bp.post("/log/<any(undo, redo):way>")
def step(way: str) -> ResponseReturnValue:
    """Take the last change of the log back, or bring it again."""
    label = step_log(session(), -1 if way == "undo" else 1)
    if label:
        flash(f"{'Taken back' if way == 'undo' else 'Done again'}: {label}.")
    return redirect(url_for("log.show"))


def _read(kind: str) -> tuple[Logged | None, EntryForm]:
    if kind not in KINDS:
        abort(404)
    shop, system, now = log_shop(), unit_system(), shop_clock()
    return read_entry(form_of(kind, shop, request.form, system, now), shop, system, now)


def _page() -> ResponseReturnValue:
    now, system = shop_clock(), unit_system()
    rigs, shop = readable_lines(session())[0], readable_shop(session())
    group, line = request.args.get("group", ""), request.args.get("line", type=whole)
    text = request.args.get("find", "").strip()[:100]
    wanted = LogWanted(GROUPS.get(group, ()), line, None, text)
    pages = paged(count_of(session(), wanted), ON_A_PAGE, "log.show", group=group or None, line=line, find=text or None)
    read = entries_of(session(), wanted, start=pages.skip, most=ON_A_PAGE + 1)
    entries, after = read[:ON_A_PAGE], read[ON_A_PAGE] if len(read) > ON_A_PAGE else None
    done = [] if group or text else done_elsewhere(session(), None if line is None else [line])
    elsewhere = meanwhile(done, entries, after, first=pages.page == 1)
    photos = photos_of(session(), [one.id for one in entries if one.id is not None])
    due, today = due_in(session(), now), shop_today(session(), now)
    names = {number: rig.name for number, rig in rigs}
    view = LogView(
        the_shop(session()).name,
        quick_logs(rigs, today.read.latest_first, shop, due),
        shown_due(due, now),
        sum(item.overdue for item in due),
        log_days(entries, elsewhere, photos, names, system, money_sign(shop), now),
        pages,
        standing_of_log(session()),
        bool(wanted.kinds or line is not None or text),
        today_rows(today.holders),
        tuple(
            TodaySwitch(number, names[number], shows_by_log(session(), number))
            for number in today.read.latest_first
            if number in names and any(one.known for one in today.of_line(number))
        ),
    )
    return render_template(
        "log/page.html",
        view=view,
        asked=ASKED,
        groups=GROUP_WORDS,
        group=group,
        find=text,
        line=line,
        lines=names,
        jobs=len(jobs_to_log(shop, rigs)),
        clock=tool_clock.running(),
        tools=[
            (f"{number}{APART}{tool}", f"{tool} · {rig.name}")
            for number, rig in log_shop().lines
            for tool in tools_of(rig)
        ],
    )
