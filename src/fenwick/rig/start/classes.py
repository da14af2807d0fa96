"""Putting a generic class of vacuum in the place of a line's own: all its figures are guesses then."""

from __future__ import annotations

from fenwick.core.catalogue.vacuums import VACUUMS
from fenwick.rig.format.model import Rig
from fenwick.rig.format.read import check_rig
from fenwick.rig.format.tuning import OF_VACUUM, without_factors
from fenwick.rig.start.answers import Answers
from fenwick.rig.start.vacuum import guess_vacuum


def take_class(rig: Rig, key: str) -> Rig:
    """The rig with a vacuum of a class.

    Raises
    ------
    KeyError
        When there is no such class.
    """
    if key not in VACUUMS:
        raise KeyError(key)
    guessed = guess_vacuum(Answers(vacuum=key))
    document = rig.model_dump(mode="json")
    document["vacuum"] = guessed.document
    document["guesses"] = [mark for mark in document["guesses"] if mark["part"] != "vacuum"]
    document["guesses"] += guessed.marks
    return check_rig(without_factors(document, OF_VACUUM))
