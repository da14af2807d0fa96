"""A field of any form: its text in the user's units, its choices, and what is wrong with it."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Field:
    """One field."""

    path: str  #: its name in the form; of a rig, the path of its value
    label: str
    text: str
    unit: str = ""
    choices: tuple[tuple[str, str], ...] = ()  #: (value, word); empty for a number
    optional: bool = False
    error: str = ""
    guess: bool = False  #: nobody has measured it yet
    unknown: str = "not known"  #: what an empty answer is called
    free_text: bool = False  #: words rather than a number
    hint: str = ""

    @property
    def id(self) -> str:
        """Its id on the page."""
        return "f-" + "".join(c if c.isalnum() else "-" for c in self.path)

    @property
    def wide(self) -> bool:
        """Whether its choices need the room of two fields."""
        return max((len(word) for _, word in self.choices), default=0) > 16
