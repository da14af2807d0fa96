"""The open rig file: one model that validates it for the file, the command line and the page alike."""

from fenwick.rig.build import build_line
from fenwick.rig.edit import edit_rig
from fenwick.rig.model import Rig
from fenwick.rig.problems import Problem, RigError
from fenwick.rig.read import check_rig, read_rig, write_rig

__all__ = ["Problem", "Rig", "RigError", "build_line", "check_rig", "edit_rig", "read_rig", "write_rig"]
