"""How the line does at a tool: a few figures, each against what it should be, with one sentence why."""

from __future__ import annotations

from dataclasses import replace

from fenwick.core.doubt.uncertainty import Band
from fenwick.core.judging.assess import Assessment
from fenwick.core.judging.check import LEVEL_WORDS, Check
from fenwick.core.judging.checks import carrying_check, caught_level, kept_level
from fenwick.core.line.line import Leaf, Line
from fenwick.wording.air import NOT_AT_ALL
from fenwick.wording.checks import check_sentence
from fenwick.wording.rows import VerdictRow, bar, split, times
from fenwick.wording.say import Voice

TITLES = {
    "air": "Air at the tool",
    "caught": "Caught at the port",
    "escapes": "Escapes to be breathed",
    "settling": "Slowest speed",
    "kept": "Kept in the bin",
    "collapse": "Bin against collapse",
}


def verdict(
    line: Line, assessment: Assessment, band: Band | None, voice: Voice, port: int = 0, mask: str | None = None
) -> list[VerdictRow]:
    """Rows for one port, by its place among the leaves; what is not known says so.

    Of dust that harms most, what escapes comes first and what is kept last.

    Parameters
    ----------
    line, assessment : solved
    band : of what all stages keep; None leaves it out
    voice : words and units
    port : place among the leaves
    mask : how long to stay masked after the cut, in words; None: not known
    """
    rows = _usual_verdict(line, assessment, band, voice, port)
    if line.dust is None or not line.dust.harmful or assessment.fate is None or not line.leaves[port].open:
        return rows
    known = {row.id: row for row in rows}
    first = _escapes(line, assessment, port, mask, voice)
    rest = [row for key, row in known.items() if key not in ("caught", "kept")]
    return [first, *rest, *([known["kept"]] if "kept" in known else [])]


def _escapes(line: Line, assessment: Assessment, port: int, mask: str | None, voice: Voice) -> VerdictRow:
    """What gets past the port into the air one breathes, and for how long."""
    assert assessment.fate is not None
    grams = 100.0 * float(assessment.fate.escapes[0])
    level = next(
        (LEVEL_WORDS[int(caught_level(one, line)[0])] for one in assessment.captures if one.id == line.leaves[port].id),
        "",
    )
    stay = f"Stay masked {mask} after the cut" if mask else "Stay masked until the air has cleared"
    if mask == NOT_AT_ALL:
        stay = "Masked at the tool; away from it the air stays clear"
    caught = next((one for one in assessment.captures if one.id == line.leaves[port].id), None)
    floats = "" if caught is None else f" {voice.figure(float(caught.airborne[0]), 'share')} of what floats is caught."
    sentence = f"{stay}: this dust harms most.{floats}"
    return VerdictRow("escapes", TITLES["escapes"], f"{grams:.1f}", "g of 100", level, grams / 100.0, None, sentence)


def _usual_verdict(line: Line, assessment: Assessment, band: Band | None, voice: Voice, port: int) -> list[VerdictRow]:
    leaf = line.leaves[port]
    own = {check.id: check for check in assessment.checks if check.part == leaf.id}
    rows = [_air(own, float(assessment.point.port_flow[port, 0]), voice), _caught(line, assessment, leaf, voice)]
    if assessment.carrying is not None:
        trunk = frozenset(part.id for part in line.trunk)
        for check in carrying_check(assessment.carrying, leaf.parts | trunk):
            row = _figure_row("settling", TITLES["settling"], check, "speed", voice)
            rows.append(replace(row, sentence=f"{row.sentence}{_lies(assessment, check.part, voice)}"))
    if line.separators:
        rows.append(_kept(line, assessment, band, voice))
        rows.append(_collapse(assessment, voice))
    return rows


def _lies(assessment: Assessment, part: str | None, voice: Voice) -> str:
    """What comes to lie in the slowest run, to be put behind its sentence; empty where nothing does."""
    beds = assessment.beds
    row = None if beds is None or part is None else beds.index(part)
    if beds is None or row is None or not float(beds.share[row, 0]) > 0.0:
        return ""
    volume, suction = voice.figure(beds.volume[row, 0], "volume"), voice.figure(beds.suction[row, 0], "suction")
    return f" {volume} lie there in the end, for {suction}."


def _figure_row(name: str, title: str, check: Check, quantity: str, voice: Voice) -> VerdictRow:
    value, limit = float(check.value[0]), float(check.limit[0])
    number, unit = split(voice.figure(value, quantity))
    return VerdictRow(
        name, title, number, unit, LEVEL_WORDS[int(check.level[0])], *bar(value, limit), check_sentence(check, voice)
    )


def _air(checks: dict[str, Check], flow: float, voice: Voice) -> VerdictRow:
    title = TITLES["air"]
    number, unit = split(voice.figure(flow, "flow"))
    if "air-at-tool" not in checks:
        return VerdictRow("air", title, number, unit, "", None, None, "Its gate is shut; this is what leaks past.")
    air = checks["air-at-tool"]
    if "containment" in checks and int(air.level[0]) == 0:
        contained = checks["containment"]
        drawn, wanted = float(contained.value[0]), float(contained.limit[0])
        more = voice.figure(drawn, "flow")
        together = "" if more == f"{number} {unit}" else f"All its ports and fans draw {more}. "
        sentence = f"{together}{check_sentence(contained, voice)}"
        level = LEVEL_WORDS[int(contained.level[0])]
        return VerdictRow("air", title, number, unit, level, *bar(drawn, wanted), sentence)
    sentence = check_sentence(air, voice)
    if int(air.level[0]) == 0:
        sentence += " Name the machine to see how far that is from containing fine dust. Wear a respirator."
        return VerdictRow("air", title, number, unit, "", None, None, sentence)
    return VerdictRow("air", title, number, unit, "act", 0.0, None, sentence)


def _caught(line: Line, assessment: Assessment, leaf: Leaf, voice: Voice) -> VerdictRow:
    title = TITLES["caught"]
    known = [capture for capture in assessment.captures if capture.id == leaf.id]
    if not known:
        why = (
            "Describe the hood to learn what it catches." if leaf.open else "Nothing is caught while its gate is shut."
        )
        return VerdictRow("caught", title, "not known" if leaf.open else "shut", "", "", None, None, why)
    port = known[0]
    number, unit = split(voice.figure(float(port.tool_total[0]), "share"))
    speed, needed = voice.figure(float(port.velocity[0]), "speed"), voice.figure(port.needed, "speed")
    level = LEVEL_WORDS[int(caught_level(port, line)[0])]
    floating, thrown = (voice.figure(float(share[0]), "share") for share in (port.airborne, port.thrown))
    sentence = f"{thrown} of chips, {floating} of what floats: {speed} at the dust, wanted {needed}."
    if float(port.tool_total[0]) > float(port.total[0]) + 1e-9:
        sentence = f"By all its ports; here {sentence}"
    good = float(line.rules["verdict.caught-good"])
    return VerdictRow("caught", title, number, unit, level, float(port.tool_total[0]), good, sentence)


def _kept(line: Line, assessment: Assessment, band: Band | None, voice: Voice) -> VerdictRow:
    title = TITLES["kept"]
    all_kept = assessment.kept
    if all_kept is None:
        return VerdictRow("kept", title, "not known", "", "", None, None, "Name the dust to learn what the bin keeps.")
    kept = float(all_kept[0])
    level = LEVEL_WORDS[int(kept_level(all_kept, line)[0])]
    number, _ = split(voice.figure(kept, "share"))
    assert assessment.walk is not None
    assert assessment.walk.going_on is not None
    past = f"{100.0 * float(assessment.walk.going_on[0]):.1f}"
    grades = assessment.separations[0].grades
    cut = voice.figure(float(grades.cut_size[0]), "grain") if grades else ""
    sentence = f"Of what enters. {past} g in 100 g go on to the filter; cut size {cut}.{believable_words(band, voice)}"
    good = float(line.rules["verdict.kept-good"])
    return VerdictRow("kept", title, number, "%", level, kept, good, sentence)


def believable_words(band: Band | None, voice: Voice) -> str:
    """What is believable of the kept share, to be put behind its sentence; empty without a band."""
    if band is None:
        return ""
    low, high = (voice.figure(end, "share", unit=False) for end in (band.low, band.high))
    return f" {low}–{high} % is believable."


def _collapse(assessment: Assessment, voice: Voice) -> VerdictRow:
    title, weakest = TITLES["collapse"], assessment.collapse
    if weakest is None:
        sentence = "Give the bin's wall and material to learn when it folds. Until then, keep clear of a blocked line."
        return VerdictRow("collapse", title, "not known", "", "", None, None, sentence)
    check = next(one for one in assessment.checks if one.id == "bin-collapse" and one.part == weakest.part)
    ratio = float(weakest.ratio[0])
    number, _ = split(times(ratio))
    filled, mark = bar(ratio, 1.0)
    sentence = check_sentence(check, voice)
    return VerdictRow("collapse", title, number, "×", LEVEL_WORDS[int(check.level[0])], filled, mark, sentence)
