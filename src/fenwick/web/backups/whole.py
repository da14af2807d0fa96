"""Routes of the whole shop in one file: written and read beside the page, which says how far it is."""

from __future__ import annotations

import shutil
import tempfile
import time
import weakref
from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Any

from flask import Blueprint, abort, current_app, redirect, render_template, request, send_file, url_for
from flask.typing import ResponseReturnValue

from fenwick.data import ShopDatabaseError
from fenwick.data.backups import Backup
from fenwick.services.whole import bring_whole, export_shop
from fenwick.web.backups.page import copies_page
from fenwick.web.kit.browsers import this_browser
from fenwick.web.kit.database import shop
from fenwick.web.kit.jobs import BackgroundJob, Jobs
from fenwick.web.kit.telling import HowFar, telling

bp = Blueprint("whole", __name__)
AT_ONCE = 1.0  #: work that is done by then shows no page of its own [s]
LOOK = 0.02  #: [s]


class ZipErrand:
    """A zip that is written or read, in a folder that goes when nobody holds the errand any more."""

    def __init__(self, named: str, *, writes: bool) -> None:
        self.named = named  #: as the user knows it
        self.writes = writes
        folder = tempfile.mkdtemp(prefix="fenwick-")
        self.path = Path(folder) / ("shop.zip" if writes else "brought.zip")
        weakref.finalize(self, shutil.rmtree, folder, ignore_errors=True)


def _jobs() -> Jobs:
    found: Jobs = current_app.extensions["fenwick-jobs"]
    return found


def _job(name: str) -> BackgroundJob:
    found = _jobs().get(name)
    if found is None or not isinstance(found.owner, ZipErrand) or found.browser != this_browser():
        abort(404)
    return found


@bp.get("/whole.zip")
def straight() -> ResponseReturnValue:
    """The whole shop in one file, for a script: it waits until all of it is written."""
    errand = ZipErrand(_file_name(), writes=True)
    export_shop(shop(), errand.path)
    return _sent(errand)


@bp.post("/whole/write")
def write() -> ResponseReturnValue:
    """Write the whole shop: JSON, photos, and tables to read beside it."""
    errand, mine = ZipErrand(_file_name(), writes=True), shop()

    def does(tell: Callable[[float], None]) -> Path:
        export_shop(mine, errand.path, tell)
        return errand.path

    return _begun(errand, does)


@bp.post("/whole")
def read() -> ResponseReturnValue:
    """A whole shop from such a file, laid beside the copies; nothing is done with it yet."""
    upload = request.files.get("whole")
    if upload is None or not upload.filename:
        return copies_page("Choose a file first: a whole shop ends in .zip.", 422)
    errand, mine, now = ZipErrand(upload.filename[:60], writes=False), shop(), datetime.now()
    upload.save(errand.path)
    return _begun(errand, lambda tell: bring_whole(mine, errand.path, now, tell))


@bp.get("/whole/<job>")
def watch(job: str) -> ResponseReturnValue:
    """How far it is; a fragment that asks again by itself."""
    found = _job(job)
    if found.over and request.headers.get("HX-Request"):
        return "", 200, {"HX-Redirect": url_for("backups.whole.watch", job=job)}
    if found.over:
        return _over(found)
    page = "_writing.html" if request.headers.get("HX-Request") else "writing.html"
    return render_template(f"backups/{page}", job=found, far=found.state or HowFar())


@bp.get("/whole/<job>/file")
def file(job: str) -> ResponseReturnValue:
    """What was written."""
    found = _job(job)
    if not found.owner.writes or not isinstance(found.state, HowFar) or found.state.outcome is None:
        abort(404)
    return _sent(found.owner)


def _begun(errand: ZipErrand, does: Callable[[Callable[[float], None]], Any]) -> ResponseReturnValue:
    """Its outcome where it is soon there, else the page that says how far it is."""
    job = _jobs().start(errand, telling(does), this_browser())
    until = time.monotonic() + current_app.config.get("WORK_AT_ONCE", AT_ONCE)
    while not job.over and time.monotonic() < until:
        time.sleep(LOOK)
    return _over(job) if job.over else redirect(url_for("backups.whole.watch", job=job.id))


def _over(job: BackgroundJob) -> ResponseReturnValue:
    far, errand = job.state if isinstance(job.state, HowFar) else HowFar(), job.owner
    if isinstance(far.error, ShopDatabaseError):
        return copies_page(str(far.error).replace("brought.zip", errand.named), 422)
    if far.error is not None:
        raise far.error
    if far.outcome is None:
        return copies_page("That was stopped, since nobody looked at it any more; nothing was changed.", 409)
    if isinstance(far.outcome, Backup):
        return redirect(url_for("backups.look", name=far.outcome.name))
    return render_template("backups/written.html", job=job, named=errand.named, size=errand.path.stat().st_size)


def _file_name() -> str:
    return f"fenwick-shop-{datetime.now():%Y-%m-%d}.zip"


def _sent(errand: ZipErrand) -> ResponseReturnValue:
    there = errand.path.open("rb")  # it is read to its end although its folder may be gone by then
    return send_file(there, "application/zip", as_attachment=True, download_name=errand.named)
