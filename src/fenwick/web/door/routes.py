"""Routes of the door: signing in and out, who is in, a code for the next phone."""

from __future__ import annotations

import segno
from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask import session as cookie
from flask.typing import ResponseReturnValue
from markupsafe import Markup

from fenwick.data.door import Door
from fenwick.web.kit.door import TOKEN, attempts, entrance, own_addresses, signed_in
from fenwick.web.kit.page import no_header

bp = Blueprint("door", __name__)
WRONG = "That is not the passphrase."
WRONG_CODE = "That code lets nobody in, or no longer: ask for another one."


@bp.get("/sign-in")
def ask() -> ResponseReturnValue:
    """Ask for the passphrase, or for the code that was scanned."""
    _door()
    return _ask()


@bp.post("/sign-in")
def enter() -> ResponseReturnValue:
    """Let in who knows the passphrase or brings a code."""
    door, address = _door(), request.remote_addr or ""
    wait = attempts().wait(address)
    if wait > 0.0:
        return _ask(f"Too many attempts: try again in {max(wait / 60.0, 1.0):.0f} min.", 429)
    code = request.form.get("code", "").strip()
    if not (door.takes_code(code) if code else door.fits(request.form.get("passphrase", ""))):
        attempts().wrong(address)
        return _ask(WRONG_CODE if code else WRONG, 422)
    attempts().right(address)
    cookie.clear()
    cookie[TOKEN] = door.sign_in(_browser())
    cookie.permanent = True
    return redirect(_next())


@bp.post("/sign-out")
def leave() -> ResponseReturnValue:
    """End this browser's sign-in."""
    here = signed_in()
    if here is not None:
        _door().end(here.id)
    cookie.clear()
    return redirect(url_for("door.ask"))


@bp.get("/sign-ins")
def who() -> ResponseReturnValue:
    """Every browser that is in, and a way to end it."""
    return _who()


@bp.post("/sign-ins/<sign_in>/end")
def end(sign_in: str) -> ResponseReturnValue:
    """Let a browser in no longer."""
    _door().end(sign_in)
    return redirect(url_for("door.who"))


@bp.post("/sign-ins/pair")
def pair() -> ResponseReturnValue:
    """A code that lets the next phone in."""
    code = _door().new_code()
    host = next((one for one in own_addresses() if ":" not in one), request.host.partition(":")[0])
    scheme, port = ("https", "") if entrance().behind_tls else ("http", f":{entrance().port}")
    name = next(iter(entrance().names), host) if entrance().behind_tls else host
    address = f"{scheme}://{name}{port}{url_for('door.ask', code=code)}"
    drawn = segno.make(address).svg_inline(scale=5, border=2, dark="#22313a", light="#ffffff")
    return _who(code=f"{code[:4]}-{code[4:]}", address=address, qr=Markup(drawn))


def _who(**more: object) -> ResponseReturnValue:
    here = signed_in()
    return render_template("door/who.html", sign_ins=_door().sign_ins(), here=here.id if here else "", **more)


def _door() -> Door:
    door = entrance().door
    if door is None:
        abort(404)
    return door


def _ask(error: str = "", status: int = 200) -> ResponseReturnValue:
    no_header()
    code = request.values.get("code", "")[:20] if status == 200 else ""
    return render_template("door/ask.html", error=error, code=code, next=_next()), status


def _next() -> str:
    """A page of ours to go on to."""
    wanted = request.values.get("next", "")
    return wanted if wanted.startswith("/") and not wanted.startswith(("//", "/\\")) else "/"


def _browser() -> str:
    """What a person would know the browser that asks by."""
    kind = "Phone" if "Mobi" in request.headers.get("User-Agent", "") else "Computer"
    return f"{kind} at {request.remote_addr}"
