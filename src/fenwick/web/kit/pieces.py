"""Small pieces that several pages show."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Tick:
    """A box to tick."""

    key: str
    words: str
    on: bool


@dataclass(frozen=True)
class BeforeAfter:
    """One figure as it is and as it would be."""

    what: str
    before: str
    after: str


@dataclass(frozen=True)
class Refused:
    """What was typed and is not taken."""

    key: str  #: of the row it stands in
    text: str
    error: str
