"""The open rig file: one model that validates it for the file, the command line and the page alike."""

from fenwick.rig.edits.edit import edit_rig
from fenwick.rig.format.model import Rig
from fenwick.rig.format.problems import Problem, RigError
from fenwick.rig.format.read import check_rig, read_from_outside, read_rig, write_rig
from fenwick.rig.to_core.line import build_line

__all__ = [
    "Problem",
    "Rig",
    "RigError",
    "build_line",
    "check_rig",
    "edit_rig",
    "read_from_outside",
    "read_rig",
    "write_rig",
]
