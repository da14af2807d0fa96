"""From five answers, each of which may be “don't know”, to a rig whose guesses are marked."""

from fenwick.rig.start.answers import Answers
from fenwick.rig.start.line import StartedLine, start_line

__all__ = ["Answers", "StartedLine", "start_line"]
