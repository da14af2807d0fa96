"""Every rule of thumb the model rests on, in one table.

A rule is a constant that no published equation fixes: shop practice or an engineering assumption. Formulas take its
value as an argument; the system layer reads it from a `RuleBook`, which a calibration or an uncertainty run may replace
value by value, arrays included.
"""

from fenwick.core.rules.book import RULES, SUBJECTS, RuleBook, rule
from fenwick.core.rules.published import CONTAINMENT_M3_H, ENTRY_LOSS, RELEASE_VELOCITY
from fenwick.core.rules.rule import ESTIMATE, Rule

__all__ = [
    "CONTAINMENT_M3_H",
    "ENTRY_LOSS",
    "ESTIMATE",
    "RELEASE_VELOCITY",
    "RULES",
    "SUBJECTS",
    "Rule",
    "RuleBook",
    "rule",
]
