"""What a fair test is: what is changed, how it is read, what must be reset, and how often it is done."""

from __future__ import annotations

from dataclasses import dataclass, field

from fenwick.core.rules import rule

CATCHES = ("vacuum", "filter", "bag", "cloth")  #: what may be weighed for what gets past
BEFORE, FEED, AFTER, READ = "before", "feed", "after", "read"
MOST_VARIANTS, MOST_REPEATS = 4, 20
DEPTHS = 4  #: points at which a ruler goes into the bin


@dataclass(frozen=True)
class Ask:
    """One figure that a run asks for."""

    key: str
    quantity: str  #: it is typed in
    stage: str  #: of the run: before, feed, after or read
    needed: bool = True
    device: str = ""  #: kind of device that can tell it: scale, manometer or monitor
    place: str = ""  #: what lies on a scale for it
    choices: tuple[str, ...] = ()  #: what can be answered instead of a figure; the answer's place is its value


@dataclass(frozen=True)
class ReadingWay:
    """One way of reading a test."""

    key: str
    quantity: str  #: of its outcome
    better: int  #: +1 where more is better, −1 where less is, 0 where neither
    asks: tuple[Ask, ...]
    feeds: bool = False  #: whether dust or water is fed at an even pace
    ordinal: bool = False  #: grades, which have an order but no distance
    takes: str = "else"  #: which rule `test.minutes-…` tells how long a run takes


def _depths(stage: str) -> tuple[Ask, ...]:
    return tuple(Ask(f"free_{stage}_{i}", "bore", stage) for i in range(1, DEPTHS + 1))


def _weighed(thing: str, stage: str, *, needed: bool = True) -> Ask:
    return Ask(f"{thing}_{stage}", "weighed", stage, needed, "scale", thing)


def _sucked(key: str, stage: str, *, needed: bool = True) -> Ask:
    return Ask(key, "suction", stage, needed, "manometer")


MASSES, RULER, SUCTION, DROP, LEAK = "masses", "ruler", "suction", "drop", "leak"
MONITOR, SHEET, LOOK, PITCH, FORCE, CARRY = "monitor", "sheet", "look", "pitch", "force", "carry"
WAYS: dict[str, ReadingWay] = {
    way.key: way
    for way in (
        ReadingWay(
            MASSES,
            "share",
            +1,
            (
                _weighed("bin", BEFORE),
                _weighed("past", BEFORE),
                _weighed("hose", BEFORE, needed=False),
                _weighed("fed", FEED),
                _weighed("bin", AFTER),
                _weighed("past", AFTER),
                _weighed("hose", AFTER, needed=False),
            ),
            feeds=True,
            takes="fed",
        ),
        ReadingWay(
            RULER,
            "share",
            +1,
            (
                *_depths(BEFORE),
                Ask("fed_volume", "volume", FEED, needed=False),
                _weighed("fed", FEED, needed=False),
                *_depths(AFTER),
            ),
            feeds=True,
            takes="fed",
        ),
        ReadingWay(
            SUCTION,
            "suction",
            0,
            tuple(_sucked(f"suction_{i}", READ, needed=i == 1) for i in range(1, 4)),
        ),
        ReadingWay(
            DROP,
            "suction",
            -1,
            (_sucked("before_hose", READ), _sucked("behind_hose", READ)),
        ),
        ReadingWay(
            LEAK,
            "suction",
            -1,
            (
                _sucked("sealed", BEFORE),
                _sucked("shut", READ),
                Ask("whistle", "number", READ, needed=False, choices=("none heard", "heard")),
            ),
            takes="shut",
        ),
        ReadingWay(MONITOR, "particles", -1, (Ask("log", "particles", READ, device="monitor"),), takes="air"),
        ReadingWay(SHEET, "share", -1, (Ask("squares_hit", "number", READ),)),
        ReadingWay(LOOK, "number", -1, (Ask("grade", "number", READ),), ordinal=True),
        ReadingWay(
            PITCH,
            "share",
            +1,
            (
                Ask("pitch_open", "number", BEFORE),
                Ask("pitch_shut", "number", BEFORE),
                Ask("pitch_now", "number", READ),
            ),
        ),
        ReadingWay(FORCE, "force", +1, (Ask("force", "force", READ),)),
        ReadingWay(
            CARRY,
            "weighed",
            -1,
            (_weighed("cloth", BEFORE), _weighed("fed", FEED), _weighed("cloth", AFTER)),
            feeds=True,
            takes="fed",
        ),
    )
}


@dataclass(frozen=True)
class TestKind:
    """One kind of test."""

    key: str
    ways: tuple[str, ...]  #: in which it can be read, the surest first
    compares: bool  #: whether it sets one state against another
    resets: tuple[str, ...]  #: before every run


_FED = ("dust", "mass", "pace", "filter", "bin", "vacuum", "hose")
KINDS: dict[str, TestKind] = {
    kind.key: kind
    for kind in (
        TestKind("separation", (MASSES, RULER, LOOK), False, _FED),
        TestKind("builds", (MASSES, RULER, LOOK), True, (*_FED, "one-change")),
        TestKind("tilt", (MASSES, RULER, LOOK), True, (*_FED, "one-change")),
        TestKind(
            "fill", (MASSES, LOOK), True, ("dust", "mass", "pace", "filter", "vacuum", "hose", "fill", "one-change")
        ),
        TestKind(
            "dust", (MASSES, RULER, LOOK), True, ("mass", "pace", "filter", "bin", "vacuum", "hose", "one-change")
        ),
        TestKind("slot", (MASSES, RULER, LOOK), True, (*_FED, "one-change")),
        TestKind("hose", (SUCTION, MASSES, PITCH), True, ("filter", "bin", "same-place", "warm", "one-change")),
        TestKind("leak", (LEAK,), False, ("warm", "cool", "relief")),
        TestKind("blockage", (DROP, PITCH), True, ("warm", "filter", "same-place", "one-change")),
        TestKind("stations", (SUCTION,), False, ("warm", "filter", "same-place")),
        TestKind("air", (MONITOR,), False, ("air", "same-cut", "doors", "mask")),
        TestKind("hood", (SHEET, MONITOR, LOOK), True, ("air", "same-cut", "doors", "sheet", "mask", "one-change")),
        TestKind("wet", (CARRY, LOOK), False, ("water-level", "mass", "dry-cloth", "filter")),
        TestKind("pull-off", (FORCE,), True, ("same-patch", "cured", "one-change")),
    )
}


@dataclass(frozen=True)
class Setup:
    """The instruments, by the steps they show."""

    bin_step: float = 1e-3  #: of the scale for the bin [kg]
    past_step: float = 1e-3  #: of the scale for what gets past [kg]
    repeat_sd: float = 0.0  #: by which the same weighing scatters [kg]
    ruler_step: float = 1e-3  #: [m]
    gauge_step: float = 50.0  #: of the tube of water or the manometer [Pa]
    force_step: float = 0.5  #: [N]
    squares: int = 100  #: on the marked sheet
    catch: str = "vacuum"  #: what is weighed for what gets past, of CATCHES


@dataclass(frozen=True)
class Condition:
    """How a state stands where it stands otherwise than its line does."""

    lean: float | None = None  #: of the first separator, from upright [rad]; None: as its line
    level: float | None = None  #: share of the bin's height at which a run begins [-]; None: as the test has it
    dust: str = ""  #: kind that is fed; empty: as the plan has it

    @property
    def plain(self) -> bool:
        """Whether nothing is said of it."""
        return self == AS_ITS_LINE

    @property
    def stands_as_its_line(self) -> bool:
        """Whether what it comes to is a reading of its line: a reading knows what was fed, but not how it leant."""
        return self.lean is None


AS_ITS_LINE = Condition()


@dataclass(frozen=True)
class Plan:
    """A test as planned."""

    kind: str  #: of KINDS
    way: str  #: of WAYS
    variants: tuple[str, ...] = ("as it is",)  #: what is set against what; the first is what the others are held to
    repeats: int = 3  #: runs of each
    hoped: float = 0.02  #: difference worth knowing of, in the outcome's unit
    fed: float = 0.1  #: in each run [kg]
    feed_seconds: float = 60.0  #: over which it is fed [s]
    dust: str = ""  #: kind; empty: that of the line
    port: str = ""  #: at which it is fed or read; empty: the line as it stands
    station: str = ""  #: behind which suction is read
    seed: int = 0  #: of the order of its runs
    setup: Setup = field(default_factory=Setup)
    conditions: tuple[Condition, ...] = ()  #: of the variants, in their order; those left out stand as their line does

    def condition(self, variant: int) -> Condition:
        """How a state stands.

        Parameters
        ----------
        variant : its place in the plan [-]
        """
        return self.conditions[variant] if variant < len(self.conditions) else AS_ITS_LINE

    def begins(self, variant: int) -> float | None:
        """Share of the bin's height at which a run of a state begins [-]; None: as its line stands.

        Parameters
        ----------
        variant : its place in the plan [-]
        """
        said = self.condition(variant).level
        return 0.0 if said is None and "bin" in KINDS[self.kind].resets else said

    @property
    def fed_within(self) -> float:
        """How near to what is to be fed it must be weighed out [kg]."""
        return rule("test.feed-tolerance").value * self.fed

    @property
    def compares(self) -> bool:
        """Whether there is something to compare."""
        return len(self.variants) > 1

    @property
    def minutes(self) -> float:
        """Rough time that the whole test takes [min]."""
        return rule(f"test.minutes-{WAYS[self.way].takes}").value * self.repeats * len(self.variants)
