"""What is asked of the finder: limits and wishes as fields, and reading them back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from fenwick.core.search.designs import BOUGHT, MADE, RANGES
from fenwick.core.search.finder import DEFAULT_WISHES, WISHES, Limits
from fenwick.rig.edits.kinds import KINDS
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.web.kit.fields import Field
from fenwick.web.kit.pieces import Tick

#: limit: (label, quantity); lengths of the whole are in millimetres like everything at the bench
LIMITS: dict[str, tuple[str, str]] = {
    "height": ("Stands at most", "bore"),
    "suction": ("Costs at most", "suction"),
    "largest_hole": ("Largest hole", "bore"),
    "cutter_reach": ("Cutter reaches", "bore"),
    "sheet_width": ("Sheet wide", "bore"),
    "sheet_height": ("Sheet long", "bore"),
    "cost": ("Spend at most", "number"),
    "hours": ("Hours at most", "number"),
}
WISH_LABELS = {
    "kept": "Kept in the bin",
    "air": "Air at the tool",
    "height": "Low",
    "cost": "Cheap",
    "hours": "Quick to make",
}
WEIGHTS = (("0", "no matter"), ("1", "a little"), ("2", "much"), ("3", "most of all"))
HOW = ((MADE, "Made"), (BOUGHT, "Bought"))
BINS = (("as-it-is", "As it is"), ("mended", "Mended"))  #: sealed, empty, upright
MOST_SEED, MOST_DESIGNS, DESIGNS = 9999, 60_000, 12_000


@dataclass(frozen=True)
class FinderAsked:
    """What was typed, and what it comes to."""

    limits: Limits
    wishes: dict[str, float]
    seed: int
    count: int
    bin: str  #: as-it-is, mended (sealed, empty, upright), or bin: and the id of one of the shop's
    fields: tuple[Field, ...]
    wish_fields: tuple[Field, ...]
    kinds: tuple[Tick, ...]  #: those that are allowed
    error: str = ""

    @property
    def bin_words(self) -> str:
        """What to say of a bin that is not the line's own as it is; empty for that."""
        if self.bin == "mended":
            return " · the bin counted as sealed, empty and upright"
        field = next(field for field in self.fields if field.path == "bin")
        return f" · over {dict(field.choices)[self.bin]}, empty" if self.bin.startswith("bin:") else ""

    @property
    def bad(self) -> bool:
        """Whether something cannot be read."""
        return bool(self.error) or any(field.error for field in self.fields)


def read_asked(
    form: Mapping[str, Any], picked: list[str], system: str, money: str, bins: Sequence[tuple[str, str]] = ()
) -> FinderAsked:
    """Read the finder's form; an empty field is no limit.

    Parameters
    ----------
    form : what was posted, or nothing
    picked : kinds that were ticked; none ticked on a fresh page means all
    system : unit system
    money : the shop's money
    bins : (bin:ID, name) of the bins that the shop has
    """
    values: dict[str, float | None] = {}
    fields = []
    for name, (label, quantity) in LIMITS.items():
        text = str(form.get(name, "")).strip()
        unit = money if name == "cost" else "h" if name == "hours" else unit_label(quantity, system)
        field = Field(name, label, text, unit, optional=True, unknown="no limit")
        try:
            values[name] = _positive(text, quantity, system)
        except BadNumberError as error:
            values[name], field = None, replace(field, error=f"{error}")
        fields.append(field)
    how = str(form.get("how", MADE)) if form.get("how") in (MADE, BOUGHT) else MADE
    fields.append(Field("how", "Made or bought", how, choices=HOW))
    choices = (*BINS, *bins)
    bin_ = str(form.get("bin")) if form.get("bin") in dict(choices) else BINS[0][0]
    fields.append(Field("bin", "The bin", bin_, choices=choices))
    seed, fields = _whole(form, "seed", "Seed", 1, MOST_SEED, fields)
    count, fields = _whole(form, "count", "Designs", DESIGNS, MOST_DESIGNS, fields)
    kinds = tuple(key for key in RANGES if key in picked) if form else tuple(RANGES)
    wishes = {wish: _weight(form, wish) for wish in WISHES}
    sheet = (values["sheet_width"], values["sheet_height"])
    whole = "" if kinds else "Tick at least one kind of separator."
    if (sheet[0] is None) != (sheet[1] is None):
        whole = "A sheet has a width and a length: give both, or neither."
    return FinderAsked(
        Limits(
            kinds=kinds or tuple(RANGES),
            how=how,
            height=values["height"],
            suction=values["suction"],
            largest_hole=values["largest_hole"],
            cutter_reach=values["cutter_reach"],
            sheet=None if sheet[0] is None or sheet[1] is None else (sheet[0], sheet[1]),
            cost=values["cost"],
            hours=values["hours"],
        ),
        wishes,
        seed,
        count,
        bin_,
        tuple(fields),
        tuple(Field(f"wish-{w}", WISH_LABELS[w], str(int(wishes[w])), choices=WEIGHTS) for w in WISHES),
        tuple(Tick(key, KINDS[key].label, key in kinds) for key in RANGES),
        whole,
    )


def _positive(text: str, quantity: str, system: str) -> float | None:
    if not text:
        return None
    value = parse_value(text, quantity, system)
    if value <= 0.0:
        raise BadNumberError(text, "Must be above nothing, or left empty for no limit.")
    return value


def _whole(
    form: Mapping[str, Any], name: str, label: str, begin: int, most: int, fields: list[Field]
) -> tuple[int, list[Field]]:
    text = str(form.get(name, begin)).strip()
    if len(text) < 10 and text.isdecimal() and 1 <= int(text) <= most:
        return int(text), [*fields, Field(name, label, text)]
    return begin, [*fields, Field(name, label, text, error=f"Must be a whole number from 1 to {most}.")]


def _weight(form: Mapping[str, Any], wish: str) -> float:
    text = str(form.get(f"wish-{wish}", int(DEFAULT_WISHES[wish])))
    return float(text) if text in dict(WEIGHTS) else DEFAULT_WISHES[wish]
