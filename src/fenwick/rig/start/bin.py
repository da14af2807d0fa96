"""A bin from a ruler, from a pail that says its litres, or from neither."""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt
from typing import Any

from scipy.optimize import brentq

from fenwick.core.arrays import one_value
from fenwick.core.catalogue import parts
from fenwick.core.components.bins import Bin
from fenwick.core.rules import RuleBook
from fenwick.rig.edits.guesswork import Guesswork, tidy
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.conclusion import Conclusion
from fenwick.rig.start.limits import LIMITS


@dataclass(frozen=True)
class BinGuess:
    """A bin that nobody has measured whole."""

    document: dict[str, Any]  #: as the rig file has it
    marks: tuple[dict[str, Any], ...]  #: of what is guessed
    said: tuple[Conclusion, ...]
    top: float  #: width there [m]


@dataclass(frozen=True)
class _Sizes:
    """A tapered round bin, inside [m]."""

    top: float
    bottom: float
    height: float

    @property
    def volume(self) -> float:
        """[m^3]"""
        return one_value(Bin((0.0, self.height), (self.bottom, self.top)).volume_to(self.height))


def guess_bin(answers: Answers) -> BinGuess:
    """The bin that answers tell of."""
    work, usual = Guesswork("sep"), _Sizes(*parts.TYPICAL_BIN)
    top, bottom = answers.bin_top, answers.bin_bottom
    ruled = _Sizes(top or bottom or usual.top, bottom or top or usual.bottom, answers.bin_height or usual.height)
    sizes, said = ruled, []
    if answers.bin_volume is not None:
        fitted = _that_can_be(_of_volume(answers, ruled, usual))
        sizes = fitted or ruled
        said = _concluded(answers.bin_volume, sizes, answers) if fitted else [_left_out(ruled)]
    made = [
        work.take(key, answer, tidy(value))
        for key, answer, value in (
            ("bin.profile[1].d_m", answers.bin_top, sizes.top),
            ("bin.profile[0].d_m", answers.bin_bottom, sizes.bottom),
            ("bin.profile[1].height_m", answers.bin_height, sizes.height),
        )
    ]
    top, bottom, height = made
    material = work.take("bin.material", answers.bin_material, "hdpe")
    document = {
        "profile": [{"height_m": 0.0, "d_m": bottom}, {"height_m": height, "d_m": top}],
        "material": material,
        "wall_m": work.take("bin.wall_m", None, parts.TYPICAL_WALL.get(material, parts.TYPICAL_PLASTIC_WALL)),
        "closure": work.take("bin.closure", answers.bin_closure, "clamp-ring"),
    }
    return BinGuess(document, tuple(work.marks), tuple(said), top)


def _of_volume(answers: Answers, ruled: _Sizes, usual: _Sizes) -> _Sizes | None:
    """Sizes that hold so much; what the ruler did not say is as in the usual bin. None: they cannot."""
    volume = answers.bin_volume or 0.0
    widths = answers.bin_top, answers.bin_bottom
    if answers.bin_height is None:
        if widths == (None, None):
            grown = (volume / usual.volume) ** (1.0 / 3.0)
            return _Sizes(usual.top * grown, usual.bottom * grown, usual.height * grown)
        return _Sizes(ruled.top, ruled.bottom, ruled.height * volume / ruled.volume)
    if widths == (None, None):
        grown = sqrt(volume / _Sizes(usual.top, usual.bottom, ruled.height).volume)
        return _Sizes(usual.top * grown, usual.bottom * grown, ruled.height)
    if None not in widths:
        return ruled if abs(volume / ruled.volume - 1.0) <= one_value(RuleBook()["start.agree"]) else None
    known = widths[0] or widths[1] or 0.0

    def with_other(width: float) -> _Sizes:
        top, bottom = (known, width) if widths[0] else (width, known)
        return _Sizes(top, bottom, ruled.height)

    most = one_value(RuleBook()["start.taper"])
    narrow, wide = known / most, known * most
    if not with_other(narrow).volume <= volume <= with_other(wide).volume:
        return None  # no bin tapers so far: one of the figures is another's
    return with_other(float(brentq(lambda width: with_other(width).volume - volume, narrow, wide)))


def _that_can_be(sizes: _Sizes | None) -> _Sizes | None:
    """Sizes that litres came to, where a bin may have them: 125 L in a pipe would stand higher than a room."""
    if sizes is None:
        return None
    told = (("bin_top", sizes.top), ("bin_bottom", sizes.bottom), ("bin_height", sizes.height))
    within = all(LIMITS[name][0][0] <= value <= LIMITS[name][0][1] for name, value in told)
    return sizes if within else None


def _concluded(volume: float, sizes: _Sizes, answers: Answers) -> list[Conclusion]:
    if None not in (answers.bin_top, answers.bin_bottom, answers.bin_height):
        return []
    words = "A bin of {} was taken to be {} wide at the top, {} at the floor and {} high."
    figures = ((volume, "volume"), (sizes.top, "bore"), (sizes.bottom, "bore"), (sizes.height, "bore"))
    return [Conclusion(words, figures)]


def _left_out(ruled: _Sizes) -> Conclusion:
    return Conclusion(
        "By its widths and height the bin holds {}: the litres do not go with them and were left out.",
        ((ruled.volume, "volume"),),
    )
