"""The last few results of something slow, kept by a key that says all that they rest on."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Made = TypeVar("Made")


class Recent(Generic[Made]):
    """As `lru_cache`, for what is worked out with the help of something that is no part of the key."""

    def __init__(self, most: int) -> None:
        self._most, self._made = most, OrderedDict[Hashable, Made]()
        self._lock = Lock()

    def get(self, key: Hashable, make: Callable[[], Made]) -> Made:
        """What was made under a key, else what is made now."""
        with self._lock:
            if key in self._made:
                self._made.move_to_end(key)
                return self._made[key]
        made = make()
        with self._lock:
            self._made[key] = made
            while len(self._made) > self._most:
                self._made.popitem(last=False)
        return made
