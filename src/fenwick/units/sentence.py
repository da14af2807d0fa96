"""How a name that stands alone is written within a sentence."""

from __future__ import annotations


def inside(name: str) -> str:
    """A name or a sentence as it stands within another: its first letter small, unless it is written in capitals."""
    return name if name[:2].isupper() and name[1:2].isalpha() else name[:1].lower() + name[1:]


def both_ends(name: str, most: int) -> str:
    """A name that is too long, shortened in its middle: names that begin alike are told apart at their ends.

    Parameters
    ----------
    name : any
    most : characters that there is room for [-]
    """
    if len(name) <= most:
        return name
    tail = 2 * (most - 1) // 3
    return f"{name[: most - 1 - tail].rstrip()}…{name[len(name) - tail :].lstrip()}"
