"""The lessons in words: a story, a question with three answers from less to more, and why."""

from __future__ import annotations

from dataclasses import dataclass

from fenwick.wording.say import Voice


@dataclass(frozen=True)
class LessonWords:
    """One lesson in words."""

    title: str
    story: str
    question: str
    answers: tuple[str, ...]  #: three, from the lowest change of the figure to the highest
    why: str


LESSON_WORDS = {
    "wide-hose": LessonWords(
        "A wider hose",
        "The hose to the drum sander is 38 mm, then 50. Somebody gives you one of 63 mm, all the way: more air for "
        "sure.",
        "How fast does the air carry the dust in the slowest hose then?",
        ("Slower", "As fast", "Faster"),
        "There is more air, but it has much more room: the speed falls below what dust needs, and it lies down in the "
        "hose. As wide as carries, no wider.",
    ),
    "leak-below": LessonWords(
        "A leak below",
        "The lid of the bin leaks: all the gaps together are a hole of 5 mm. One hardly hears it.",
        "How much of what the separator kept does it lose?",
        ("More than 10 in 100", "1 to 10 in 100", "Hardly any"),
        "The vacuum sucks through the bin. Air that comes in below rises through the dust outlet, against what falls, "
        "and takes the fine dust along. A leak above the separator costs air; one below costs dust.",
    ),
    "leaning": LessonWords(
        "A little aslant",
        "The floor is not level: bin and slotted disc lean by 20°.",
        "What does that do to what is kept?",
        ("It loses more than 20 in 100", "It loses 1 to 20 in 100", "Nothing: the air turns all the same"),
        "The air does, but the dust heaps up on the low side, near the slot, and is stirred up again. A cyclone with "
        "its narrow outlet minds it far less than a flat chamber.",
    ),
    "full-bin": LessonWords(
        "Six sevenths full",
        "The bin is 42 cm deep, the dust stands at 36: there is still room for some boards.",
        "What does the separator keep, against an empty bin?",
        ("More than 5 in 100 less", "1 to 5 in 100 less", "The same"),
        "The air dips into the bin and turns there. Near the dust it stirs up again what has fallen. Empty it at its "
        "mark, not at its rim.",
    ),
    "dirty-filter": LessonWords(
        "The filter from before",
        "The separator is new, the vacuum is not: 150 g of fine dust are still on its filter. Behind a separator that "
        "cannot matter.",
        "How much air does it cost?",
        ("More than 40 in 100", "5 to 40 in 100", "Hardly any"),
        "All of the air goes through that cake, whatever the separator keeps from now on. Clean the filter once, "
        "outdoors and masked, when the separator goes in.",
    ),
    "few-points": LessonWords(
        "A few points more",
        "A tight cyclone takes the place of the slotted disc. It keeps a few points more: a small thing, it seems.",
        "How much less reaches the filter?",
        ("More than a quarter less", "A tenth to a quarter less", "About as much"),
        "What counts for the filter is what gets past, not what is kept. From 95 to 99 in 100 it is a fifth of what it "
        "was, and the filter lasts five times as long.",
    ),
    "hoses-swapped": LessonWords(
        "The other way round",
        "After cleaning, the hoses went back on: the tool's on the middle, the vacuum's on the side. It sucks as "
        "before.",
        "What does the separator keep now?",
        ("More than 10 in 100 less", "1 to 10 in 100 less", "The same: air is air"),
        "There is as much air, so nobody notices. But the dust enters in the middle and is sucked off at the wall, "
        "where the swirl would have thrown it.",
    ),
    "wide-port": LessonWords(
        "A larger mouth",
        "The port at the sander is widened from 50 to 100 mm; the hose behind it stays.",
        "What does it catch?",
        ("Less", "The same", "More"),
        "The hose decides how much air comes. In front of a mouth of twice the width the same air is slower, and chips "
        "that are thrown at it are drawn in less. A wider port needs a wider hose, and a stronger fan.",
    ),
    "tape": LessonWords(
        "A minute with the tape",
        "The bin's lid leaks through gaps that make a hole of 5 mm together. A strip of tape goes round it.",
        "What does that bring?",
        ("Nothing that one would notice", "1 to 10 in 100 more are kept", "More than 10 in 100 more are kept"),
        "It is the cheapest part of a separator, and does more than most dear ones. Tape is for finding out: then mend "
        "the gasket, which holds longer, and opens.",
    ),
    "starved-fan": LessonWords(
        "It sounds as if it worked harder",
        "A hose of 25 mm goes between tool and cuff. The motor sounds higher at once, and the hose sucks at "
        "one's palm.",
        "How much air comes?",
        ("Less", "As much", "More"),
        "A fan that gets no air has less to do and runs faster: what sounds like work is idling. The suction is high "
        "because nothing flows. Air is what carries dust.",
    ),
}
FIGURE_WORDS = {
    "kept": ("Kept in the bin", "share"),
    "past": ("Gets past, to the filter", "share"),
    "caught": ("Caught at the port", "share"),
    "flow": ("Air at the tool", "flow"),
    "speed": ("Slowest speed", "speed"),
}


def lesson_figure(figure: str, value: float, voice: Voice) -> str:
    """A figure of a lesson.

    Parameters
    ----------
    figure : key of FIGURE_WORDS
    value : stored unit
    voice : whose units
    """
    return voice.figure(value, FIGURE_WORDS[figure][1])
