"""A pack as files: parts, templates, sheets, booklet; made in memory, written by whoever asked."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence

from fenwick.core.making.parts import MAKE, MadePart
from fenwick.core.making.steps import WorkStep
from fenwick.core.making.tolerances import Tolerance
from fenwick.rig.parts_file import parts_document
from fenwick.services.making import Pack
from fenwick.sheets.booklet import Booklet, StepPage, write_booklet
from fenwick.sheets.flat import FlatDrawing, draw_layout, draw_part
from fenwick.sheets.flat_files import flat_dxf, flat_svg
from fenwick.sheets.tiles import tiling, write_templates
from fenwick.units import METRIC
from fenwick.wording.making.facts import (
    cut_words,
    duration,
    how_words,
    sheet_lines,
    sheet_title,
    size_words,
    stock_words,
    to_buy,
)
from fenwick.wording.making.figures import step_figures
from fenwick.wording.making.names import part_name
from fenwick.wording.making.troubles import trouble_sentence
from fenwick.wording.making.work import CAUTIONS, FIRST_RUN, HOLDS, LAST, REASONS, step_title
from fenwick.wording.say import Voice

METRIC_VOICE = Voice(METRIC, {})


def templates_of(pack: Pack) -> tuple[MadePart, ...]:
    """The flat parts that are cut or marked by a sheet 1:1; what is at hand is marked by one, too."""
    return tuple(part for part in pack.parts if part.outline)


def warnings_of(pack: Pack, voice: Voice) -> tuple[str, ...]:
    """What is amiss, each once, as sentences."""
    return tuple(dict.fromkeys(trouble_sentence(one, voice) for one in pack.troubles))


def pack_document(pack: Pack, tolerances: Mapping[str, Sequence[Tolerance]]) -> dict[str, object]:
    """The file of parts as plain values.

    Parameters
    ----------
    tolerances : by part
    """
    warnings = warnings_of(pack, METRIC_VOICE)
    return parts_document(pack.rig, pack.of, pack.parts, pack.steps, pack.cuts, warnings, tolerances, pack.to_buy)


def pack_files(
    pack: Pack, tolerances: Mapping[str, Sequence[Tolerance]], date: str, paper: str, voice: Voice = METRIC_VOICE
) -> dict[str, bytes]:
    """Every file of a pack by its name.

    Parameters
    ----------
    tolerances : by part
    date : as it is printed
    paper : a4 or letter
    """
    files = {
        "parts.json": json.dumps(
            pack_document(pack, tolerances), indent=1, allow_nan=False, ensure_ascii=False
        ).encode()
    }
    for part in templates_of(pack):
        files[f"{part.id}.svg"] = template_file(pack, part.id, "svg", date, voice)
        files[f"{part.id}.dxf"] = template_file(pack, part.id, "dxf", date, voice)
    files["templates.pdf"] = templates_pdf(pack, date, paper, voice)
    sheets = layout_drawing(pack, voice)
    files["sheets.svg"], files["sheets.dxf"] = flat_svg(sheets).encode(), flat_dxf(sheets).encode()
    files["booklet.pdf"] = booklet_pdf(pack, date, paper, voice)
    return files


def drawing_of(pack: Pack, part: MadePart, date: str, voice: Voice) -> FlatDrawing:
    """The template of a part.

    Parameters
    ----------
    date : as it is printed
    """
    return draw_part(part, sheet_lines(part, pack.rig, pack.title, date, voice))


def template_file(pack: Pack, name: str, kind: str, date: str, voice: Voice) -> bytes:
    """The template of a part as SVG or DXF.

    Parameters
    ----------
    name : id of the part
    kind : svg or dxf
    date : as it is printed

    Raises
    ------
    KeyError
        When there is no template of that name.
    """
    part = next((one for one in templates_of(pack) if one.id == name), None)
    if part is None:
        raise KeyError(name)
    drawing = drawing_of(pack, part, date, voice)
    return (flat_svg(drawing) if kind == "svg" else flat_dxf(drawing)).encode()


def layout_drawing(pack: Pack, voice: Voice) -> FlatDrawing:
    """The sheets with the parts on them."""
    titles = [sheet_title(sheet, voice) for sheet in pack.layout.sheets]
    return draw_layout(pack.layout, pack.parts, [part_name(part.id) for part in pack.parts], titles)


def templates_pdf(pack: Pack, date: str, paper: str, voice: Voice) -> bytes:
    """All templates, tiled.

    Parameters
    ----------
    date : as it is printed
    paper : a4 or letter
    """
    parts = templates_of(pack)
    drawings = [drawing_of(pack, part, date, voice) for part in parts]
    return write_templates(drawings, [part_name(part.id) for part in parts], f"{pack.title}: templates 1:1", paper)


def page_count(pack: Pack, date: str, paper: str, voice: Voice) -> int:
    """Pages of the templates.

    Parameters
    ----------
    date : as it is printed
    paper : a4 or letter
    """
    drawings = [drawing_of(pack, part, date, voice) for part in templates_of(pack)]
    return 1 + sum(tiling(one.width, one.height, paper).pages for one in drawings)


def booklet_pdf(pack: Pack, date: str, paper: str, voice: Voice) -> bytes:
    """The booklet.

    Parameters
    ----------
    date : as it is printed
    paper : a4 or letter
    """
    return write_booklet(booklet_of(pack, date, voice), paper)


def booklet_of(pack: Pack, date: str, voice: Voice) -> Booklet:
    """What the booklet says.

    Parameters
    ----------
    date : as it is printed
    """
    rows = [("part", "of", "size", "how", "pieces")]
    rows += [
        (part_name(p.id), stock_words(p, voice), size_words(p, voice), how_words(p), str(p.count)) for p in pack.parts
    ]
    cuts = [("part", "edge", "tool", "setting")]
    for name, found in pack.cuts.items():
        for cut in found:
            row = cut_words(cut, voice)
            setting = ", ".join(one for one in (row.setting, row.remark) if one)
            cuts.append((part_name(name), row.edge, row.tool, setting))
    return Booklet(
        title=f"{pack.title}: to build",
        where=f"{pack.rig} · {date}",
        summary=f"{duration(pack.hours * 3600.0)} of work, {duration(pack.waiting)} of waiting if nothing overlaps.",
        parts=tuple(rows),
        buy=tuple(to_buy(pack.to_buy, pack.money, voice)),
        sheets=layout_drawing(pack, voice) if pack.layout.sheets else None,
        cuts=tuple(cuts),
        steps=tuple(_step_page(pack, i, step, date, voice) for i, step in enumerate(pack.steps, start=1)),
        first_run=tuple(FIRST_RUN.values()),
        warnings=warnings_of(pack, voice),
    )


def _step_page(pack: Pack, number: int, step: WorkStep, date: str, voice: Voice) -> StepPage:
    wait = f", then {duration(step.cure)} of waiting" if step.cure > 0.0 else ""
    lines = [*step_figures(step, pack.parts, pack.cuts, voice), *reasons(step, pack.steps)]
    if step.last is not None:
        lines.append(LAST[step.last])
    found = [part for part in pack.parts if part.id in step.parts and part.outline and part.how == MAKE]
    return StepPage(
        number,
        step_name(step),
        f"{duration(step.hands)}{wait}",
        tuple(lines),
        HOLDS[step.hold] if step.hold else "",
        tuple(CAUTIONS[key] for key in step.cautions),
        tuple(drawing_of(pack, part, date, voice) for part in found[:2]),
    )


def step_name(step: WorkStep) -> str:
    """What a step is called."""
    return step_title(step.id)


def reasons(step: WorkStep, steps: Sequence[WorkStep]) -> tuple[str, ...]:
    """What must come before a step, and why; steps for the same reason in one line."""
    by_id: Mapping[str, WorkStep] = {one.id: one for one in steps}
    because: dict[str, list[str]] = {}
    for name, why in step.after.items():
        because.setdefault(why, []).append(step_name(by_id[name]))
    return tuple(f"After “{'”, “'.join(names)}”: {REASONS[why]}." for why, names in because.items())
