"""Changes that were made without knowing of each other: put together, or told side by side."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from pydantic import BaseModel

from fenwick.rig import RigError
from fenwick.rig.format.merge import Clash, merge

Document = TypeVar("Document", bound=BaseModel)


class ClashError(Exception):
    """A change does not go with another that came first; nothing was stored.

    `now` is the id of the state that stands, with `label` what was done to get there. `clashes` are the places that
    both have changed; where there are none, the two together break the rule that `sentence` tells.
    """

    def __init__(
        self, now: int, label: str, clashes: tuple[Clash, ...], documents: tuple[Any, Any], sentence: str = ""
    ) -> None:
        super().__init__(sentence or label)
        self.now, self.label, self.clashes, self.sentence = now, label, clashes, sentence
        self.mine, self.theirs = documents


class MovedOnError(Exception):
    """What was to be taken back is not the last change any more; nothing was. The message names the last one."""


@dataclass(frozen=True)
class MadeFrom:
    """What somebody had before their eyes when they made a change, by ids of states."""

    shown: int  #: that the page was made of
    seen: int | None = None  #: that they were shown beside it, and mean to change


def put_together(
    base: Document,
    mine: Document,
    theirs: Document,
    made_from: MadeFrom,
    now: tuple[int, str],
    check: Callable[[Any], Document],
) -> Document:
    """Both changes in one document.

    Parameters
    ----------
    base : what the change began with
    mine : the change
    theirs : what stands there now
    made_from : which of them the person has seen
    now : id of the state that stands, and what was done last
    check : makes a checked document of a plain one

    Raises
    ------
    ClashError
        Where both have changed the same and the person has not seen it, or both together break a rule.
    """
    documents = [one.model_dump(mode="json") for one in (base, mine, theirs)]
    merged = merge(*documents, prefer_mine=made_from.seen == now[0])
    if merged.clashes and made_from.seen != now[0]:
        raise ClashError(*now, merged.clashes, (documents[1], documents[2]))
    try:
        return check(merged.document)
    except RigError as error:
        raise ClashError(*now, (), (documents[1], documents[2]), error.problems[0].sentence()) from error
