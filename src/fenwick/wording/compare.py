"""Two lines side by side in words: their figures, and which of them does better."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from fenwick.core.search.apart import BETTER, CANNOT_TELL, SAME, WORSE, DrawnFigure, FigureApart
from fenwick.wording.rows import times
from fenwick.wording.say import Voice

Tell = Callable[[float, Voice], str]


def _of(quantity: str) -> Tell:
    return lambda value, voice: voice.figure(value, quantity)


def _of_100(value: float, _: Voice) -> str:
    return f"{100.0 * value:.1f} g"


@dataclass(frozen=True)
class ComparedTitle:
    """How a figure is called and told."""

    title: str
    tell: Tell


#: of every port, in the order of the air
PORT_TITLES: Mapping[str, ComparedTitle] = {
    "flow": ComparedTitle("Air at the tool", _of("flow")),
    "speed": ComparedTitle("Slowest hose", _of("speed")),
    "caught": ComparedTitle("Caught", _of("share")),
    "kept": ComparedTitle("Kept", _of("share")),
    "in_bin": ComparedTitle("In the bin, of 100 g", _of_100),
}
WHOLE_TITLES: Mapping[str, ComparedTitle] = {
    "acts": ComparedTitle("Checks to act on", lambda value, _: f"{value:.0f}"),
    "week_lost": ComparedTitle("Lost of 100 g of the week's dust", _of_100),
    "week_in_bin": ComparedTitle("In the bin of 100 g of it", _of_100),
    "cut_size": ComparedTitle("Cut size", _of("grain")),
    "folding": ComparedTitle("Bin against collapse", lambda value, _: times(value)),
    "mark": ComparedTitle("Bin up to its fill mark", _of("volume")),
    "height": ComparedTitle("Height of the separator", _of("bore")),
    "price": ComparedTitle("Price of hoses and separators", lambda value, _: f"about {value:.0f}"),
    "loudness": ComparedTitle("Loudness read", _of("loudness")),
}
VERDICT_WORDS = {BETTER: "better", WORSE: "worse", SAME: "the same", CANNOT_TELL: "cannot tell"}


@dataclass(frozen=True)
class SideWords:
    """A figure of one line."""

    text: str
    band: str  #: what is believable of it; empty where that is not drawn


@dataclass(frozen=True)
class ComparedWords:
    """A figure of both lines; None where a line has none."""

    title: str
    left: SideWords | None
    right: SideWords | None
    verdict: str | None  #: key of `VERDICT_WORDS`
    why: str  #: how sure that is


def compared_words(name: str, found: FigureApart, voice: Voice, money: str = "") -> ComparedWords:
    """A figure in words.

    Parameters
    ----------
    name : of the figure
    found : of both lines
    voice : whose words
    money : sign of the shop's money
    """
    row = PORT_TITLES.get(name) or WHOLE_TITLES[name]

    def side(one: DrawnFigure | None) -> SideWords | None:
        if one is None:
            return None
        text = row.tell(one.now, voice) + (f" {money}" if name == "price" and money else "")
        low, high = row.tell(one.low, voice), row.tell(one.high, voice)
        return SideWords(text, "" if low == high else _band(low, high))

    return ComparedWords(row.title, side(found.left), side(found.right), found.verdict, _why(found))


def _band(low: str, high: str) -> str:
    """Two figures of one unit, which is said once."""
    return f"{low.split(' ')[0]} to {high.split(' ')[0]}"


def _why(found: FigureApart) -> str:
    if found.surely is None:
        return "by rules of thumb, which tell no more than a round sum" if found.verdict == CANNOT_TELL else ""
    if found.left is not None and found.left.low == found.left.high:
        return ""
    share = f"{100.0 * found.surely:.0f} %"
    if found.verdict == CANNOT_TELL:
        return f"no more than {share} of what is believable says one thing"
    return f"in {share} of what is believable of both"


def tally_words(tally: Mapping[str, int], name: str) -> str:
    """How a line does beside the other, counted.

    Parameters
    ----------
    tally : how many figures come to each verdict [-]
    name : of the line
    """
    said = [f"better in {_figures(tally[BETTER])}", f"worse in {_count(tally[WORSE])}"]
    rest = [
        words
        for count, words in (
            (tally[CANNOT_TELL], f"{_count(tally[CANNOT_TELL])} cannot be told apart"),
            (tally[SAME], f"{_count(tally[SAME])} are the same" if tally[SAME] != 1 else "one is the same"),
        )
        if count
    ]
    return f"{name} is {', '.join(said)}{'; ' if rest else ''}{', '.join(rest)}."


def _count(count: int) -> str:
    return "none" if count == 0 else "one" if count == 1 else str(count)


def _figures(count: int) -> str:
    return f"{_count(count)} figure{'' if count == 1 else 's'}" if count else "none of the figures"
