"""Files of a build: templates, sheets, booklet, the whole pack."""

from __future__ import annotations

import io
import zipfile
from datetime import date

from flask import Blueprint, Response, abort, request
from flask.typing import ResponseReturnValue

from fenwick.rig.voice import voice_for
from fenwick.services.builds import still_to_buy
from fenwick.services.making_files import (
    booklet_pdf,
    layout_drawing,
    pack_files,
    template_file,
    templates_pdf,
)
from fenwick.sheets.flat_files import flat_dxf, flat_svg
from fenwick.sheets.paper import PAPERS
from fenwick.web.build.hand import InHand, in_hand
from fenwick.web.kit.units import unit_system
from fenwick.wording.making.facts import to_buy
from fenwick.wording.say import Voice

bp = Blueprint("files", __name__)
TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "zip": "application/zip",
    "txt": "text/plain",
    "json": "application/json",
}


@bp.get("/lines/<int:line_id>/build/files/<name>.<any(pdf, svg, dxf, zip, txt, json):kind>")
def file(line_id: int, name: str, kind: str) -> ResponseReturnValue:
    """One file of the pack, or all of it as a zip."""
    hand = in_hand(line_id)
    voice = voice_for(hand.state.rig, unit_system())
    content = _content(hand, name, kind, voice)
    if content is None:
        abort(404)
    shown = "inline" if kind == "svg" and request.args.get("view") == "1" else "attachment"
    headers = {"Content-Disposition": f'{shown}; filename="{name}.{kind}"'}
    return Response(content, mimetype=TYPES[kind], headers=headers)


def _content(hand: InHand, name: str, kind: str, voice: Voice) -> bytes | None:
    pack, today, paper = hand.found.pack, date.today().isoformat(), _paper()
    whole = {
        ("templates", "pdf"): lambda: templates_pdf(pack, today, paper, voice),
        ("booklet", "pdf"): lambda: booklet_pdf(pack, today, paper, voice),
        ("sheets", "svg"): lambda: flat_svg(layout_drawing(pack, voice)).encode(),
        ("sheets", "dxf"): lambda: flat_dxf(layout_drawing(pack, voice)).encode(),
        ("shopping", "txt"): lambda: shopping_list(hand, voice).encode(),
        ("pack", "zip"): lambda: _zip(hand, today, paper, voice),
        ("parts", "json"): lambda: pack_files(pack, hand.found.limits, today, paper, voice)["parts.json"],
    }
    if (name, kind) in whole:
        return whole[name, kind]()
    if kind not in ("svg", "dxf"):
        return None
    try:
        return template_file(pack, name, kind, today, voice)
    except KeyError:
        return None


def shopping_list(hand: InHand, voice: Voice) -> str:
    """What is to buy, a thing a line."""
    pack = hand.found.pack
    *needed, whole = to_buy(still_to_buy(pack, hand.found.file), pack.money, voice) or ["Nothing is left to buy."]
    return "\n".join([f"{pack.title}, {pack.rig}", "", *(f"[ ] {one}" for one in needed), "", whole.capitalize(), ""])


def _zip(hand: InHand, today: str, paper: str, voice: Voice) -> bytes:
    files = pack_files(hand.found.pack, hand.found.limits, today, paper, voice)
    files["shopping.txt"] = shopping_list(hand, voice).encode()
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return out.getvalue()


def _paper() -> str:
    wanted = request.args.get("paper", "a4")
    return wanted if wanted in PAPERS else "a4"
