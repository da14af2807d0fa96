"""What is measured at the first switch-on: two small forms, and what was read beside what the line expects."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwick.core.tuning.readings import BLOCKED, KEPT, KINDS, Reading, can_be
from fenwick.data.readings import readings_of
from fenwick.rig import Rig
from fenwick.rig.voice import voice_for
from fenwick.services.builds import stage_of
from fenwick.services.first_run import NOTE, should_be
from fenwick.units import BadNumberError, parse_value, unit_label
from fenwick.web.build.hand import InHand
from fenwick.web.kit.database import session
from fenwick.web.kit.fields import Field
from fenwick.web.kit.units import unit_system

HEAVIEST = 50.0  #: heap that a first run is fed [kg]
#: by the kind of reading: the fields that ask for it, each with its label and quantity
ASKED: dict[str, dict[str, tuple[str, str]]] = {
    BLOCKED: {"suction_pa": ("Suction behind it, hose blocked", "suction")},
    KEPT: {"in_bin_kg": ("In the bin", "mass"), "past_kg": ("Past it, in the vacuum", "mass")},
}


@dataclass(frozen=True)
class MeasuredForm:
    """One of the two forms."""

    kind: str
    fields: tuple[Field, ...]
    read: tuple[str, ...]  #: what was read already, beside what the line expects

    @property
    def wrong(self) -> bool:
        """Whether something in it is."""
        return any(field.error for field in self.fields)


def measured_forms(hand: InHand, typed: MeasuredForm | None = None) -> tuple[MeasuredForm, ...]:
    """Both forms with what was read; none for something else than a separator.

    Parameters
    ----------
    typed : one that was refused, in its place
    """
    if stage_of(hand.state.rig, hand.what) is None:
        return ()
    taken = [one.reading for one in readings_of(session(), hand.state.id) if one.note == NOTE and not one.left_out]
    found = []
    for kind in ASKED:
        fields = typed.fields if typed is not None and typed.kind == kind else _empty(kind)
        read = tuple(_said(hand.state.rig, one) for one in taken if one.kind == kind)
        found.append(MeasuredForm(kind, fields, read))
    return tuple(found)


def _empty(kind: str) -> tuple[Field, ...]:
    system = unit_system()
    return tuple(Field(key, label, "", unit_label(of, system)) for key, (label, of) in ASKED[kind].items())


def read_measured(kind: str, typed: Mapping[str, str]) -> tuple[list[float], MeasuredForm]:
    """What was typed as numbers, and as fields with what is wrong beside them."""
    system, values, fields = unit_system(), [], []
    for key, (label, quantity) in ASKED[kind].items():
        text, error = typed.get(key, "").strip(), ""
        try:
            values.append(parse_value(text, quantity, system))
            error = _amiss(kind, values[-1])
        except BadNumberError as bad:
            error = str(bad) if text else "Type what was read."
        fields.append(Field(key, label, text, unit_label(quantity, system), error=error))
    if kind == KEPT and not any(field.error for field in fields) and sum(values) <= 0.0:
        fields[0] = Field(fields[0].path, fields[0].label, fields[0].text, fields[0].unit, error="Nothing was fed.")
    return values, MeasuredForm(kind, tuple(fields), ())


def _amiss(kind: str, value: float) -> str:
    if kind == BLOCKED:
        return "" if can_be(kind, value) else "Below 0, or more than can be: check the figure and its unit."
    return "" if 0.0 <= value <= HEAVIEST else "Below 0, or more than a first heap: check the figure and its unit."


def _said(rig: Rig, reading: Reading) -> str:
    """What was read beside what the line expects."""
    voice = voice_for(rig, unit_system())
    wanted = should_be(rig, reading)
    read = voice.figure(reading.value, KINDS[reading.kind])
    if wanted is None:
        return f"Read: {read}. What it should be is not known."
    return f"Read: {read}; the line expects {voice.figure(wanted, KINDS[reading.kind])}."
