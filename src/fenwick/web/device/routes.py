"""Routes of the devices: parse, call, render."""

from __future__ import annotations

import re
from dataclasses import replace

from flask import Blueprint, Response, jsonify, redirect, render_template, request, stream_with_context, url_for
from flask.typing import ResponseReturnValue

from fenwick.data.allowed import allowed_hosts
from fenwick.data.devices import add_device, device_state, devices_of, remove_device
from fenwick.data.home import Home
from fenwick.data.lines import line_names, line_state
from fenwick.devices.address import why_not
from fenwick.devices.protocol import PROTOCOLS, known_units
from fenwick.web.device.live import events, figure_at_rest
from fenwick.web.device.words import KIND_NAMES
from fenwick.web.kit.database import read_enough, session, shop, while_others_write
from fenwick.web.kit.devices import hub, reader_of
from fenwick.web.kit.fields import Field
from fenwick.web.kit.numbers import whole
from fenwick.web.kit.units import unit_system

bp = Blueprint("device", __name__)
PLACE = re.compile(r"[^a-z0-9_-]")  #: what no place of a run has in its name: above all a line's end
BAUDS = ("1200", "2400", "4800", "9600", "19200", "38400", "57600", "115200")


@bp.get("/lines/<int:line_id>/devices")
def show(line_id: int) -> ResponseReturnValue:
    """The devices of the shop, read live."""
    return _render(line_id, _form(request.args))


@bp.post("/lines/<int:line_id>/devices")
def add(line_id: int) -> ResponseReturnValue:
    """Add a device; what is wrong comes back beside what was typed."""
    form = _checked(_form(request.form))
    if any(field.error for field in form):
        return _render(line_id, form, 422)
    given = {field.path: field.text.strip() for field in form}
    name = given["name"] or KIND_NAMES[given["kind"]]
    add_device(session(), name, given["kind"], given["address"], int(given["baud"]), given["unit"])
    return redirect(url_for("device.show", line_id=line_id))


@bp.post("/lines/<int:line_id>/devices/<int:device_id>/<any(remove, back):what>")
def remove(line_id: int, device_id: int, what: str) -> ResponseReturnValue:
    """Take a device away, or bring it back."""
    remove_device(session(), device_id, back=what == "back")
    hub().close(device_id)
    return redirect(url_for("device.show", line_id=line_id, removed=device_id if what == "remove" else None))


@bp.get("/devices/<int:device_id>/stream")
def stream(device_id: int) -> ResponseReturnValue:
    """Its figures as they come, as server-sent events; a page that comes back says where it left off."""
    device = device_state(session(), device_id)
    number = request.headers.get("Last-Event-ID", request.args.get("last", 0, type=whole), type=whole)
    body = stream_with_context(events(reader_of(device), number, unit_system()))
    read_enough()  # the stream goes on for long, and reads the shop no more
    return Response(body, mimetype="text/event-stream", headers={"Cache-Control": "no-store"})


@bp.post("/devices/<int:device_id>/latest")
def latest(device_id: int) -> ResponseReturnValue:
    """A figure that has come to rest; the sentence of what is wrong where there is none."""
    device = device_state(session(), device_id)
    with while_others_write():
        text, error = figure_at_rest(device, PLACE.sub("", request.form.get("place", ""))[:20], unit_system())
    return jsonify(text=text, error=error, name=device.name)


def _form(typed: object) -> list[Field]:
    get = typed.get  # type: ignore[attr-defined]
    kind = get("kind", "scale")
    kind = kind if kind in PROTOCOLS else "scale"
    units = tuple((unit, unit) for unit in known_units(kind))
    return [
        Field("kind", "Kind", kind, choices=tuple(KIND_NAMES.items())),
        Field("name", "Name", get("name", ""), optional=True, free_text=True, unknown=KIND_NAMES[kind]),
        Field("address", "Port or address", get("address", ""), free_text=True),
        Field("baud", "Baud", get("baud", "9600"), choices=tuple((b, b) for b in BAUDS)),
        Field("unit", "Unit where it names none", get("unit", ""), choices=units, optional=True,
              unknown=PROTOCOLS[kind].unit),
    ]  # fmt: skip


def _checked(form: list[Field]) -> list[Field]:
    errors = {}
    given = {field.path: field.text.strip() for field in form}
    if not given["address"]:
        errors["address"] = "Say where it is plugged in, as /dev/ttyUSB0, COM3 or socket://127.0.0.1:4001."
    else:
        errors["address"] = why_not(given["address"], allowed_hosts(Home.of(shop().path)))
    if given["baud"] not in BAUDS:
        errors["baud"] = "Choose its speed."
    return [replace(field, error=errors.get(field.path, "")) for field in form]


def _render(line_id: int, form: list[Field], status: int = 200) -> ResponseReturnValue:
    state = line_state(session(), line_id)
    fragment = request.headers.get("HX-Request")
    return render_template(
        "device/_devices.html" if fragment else "device/page.html",
        state=state,
        devices=devices_of(session()),
        kinds=KIND_NAMES,
        form=form,
        lines=line_names(session(), line_id),
        removed=request.args.get("removed", type=whole),
    ), status
