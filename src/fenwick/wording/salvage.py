"""What must be looked at before a salvaged part is trusted."""

from __future__ import annotations

from collections.abc import Mapping

#: key: (what to look at, what is said where it failed)
LOOKS = {
    "cord_fine": (
        "cord and plug",
        "its cord or plug is not whole: it stays unplugged until a licensed hand has mended it",
    ),
    "brushes_fine": ("brushes", "its brushes are worn: they arc before they stop"),
    "no_cracks": ("cracks", "it is cracked: suction finds every crack"),
}
ELECTRIC = ("head", "fan")  #: kinds that have a cord and brushes


def salvage_sentence(name: str, kind: str, looks: Mapping[str, bool | None], last_held: str | None) -> tuple[str, str]:
    """(level, sentence) of a salvaged part: watch while something was not looked at, act where it failed."""
    wanted = [key for key in LOOKS if kind in ELECTRIC or key == "no_cracks"]
    failed = [LOOKS[key][1] for key in wanted if looks.get(key) is False]
    if failed:
        return "act", f"{name}: {'; '.join(failed)}."
    unknown = [LOOKS[key][0] for key in wanted if looks.get(key) is None]
    if last_held is None:
        unknown.append("what it last held: wood dust and sparks in one tank are a fire")
    if unknown:
        return "watch", f"{name}: before it is trusted, look at {', '.join(unknown)}."
    return "ok", f"{name}: looked at, and fine."
