"""Results in plain trade words, in the user's units. No figure is computed here."""

from fenwick.wording.checks import check_sentence
from fenwick.wording.rows import VerdictRow
from fenwick.wording.verdict import verdict
from fenwick.wording.warnings import least_certain, warnings

__all__ = ["VerdictRow", "check_sentence", "least_certain", "verdict", "warnings"]
