"""What the core refuses.

CoreError
├── OutsideDomainError (also ValueError): impossible input to a formula or component
└── NotConvergedError (also ArithmeticError): the operating point was not found
"""

from __future__ import annotations


class CoreError(Exception):
    """Anything the core refuses on purpose."""


class OutsideDomainError(CoreError, ValueError):
    """Impossible input: `name` broke `rule`; `unit` is that of `value`."""

    def __init__(self, name: str, rule: str, value: object = None, unit: str = "") -> None:
        super().__init__(name, rule, value, unit)
        self.name, self.rule, self.value, self.unit = name, rule, value, unit

    def __str__(self) -> str:
        got = "" if self.value is None else f" (got {self.value:g} {self.unit})".replace(" )", ")")
        return f"{self.name} {self.rule}{got}"


class NotConvergedError(CoreError, ArithmeticError):
    """The flows did not settle: `residual_pa` [Pa] is what was left after `passes`."""

    def __init__(self, residual_pa: float, passes: int) -> None:
        super().__init__(residual_pa, passes)
        self.residual_pa, self.passes = residual_pa, passes

    def __str__(self) -> str:
        return f"the flows did not settle: {self.residual_pa:.3g} Pa left after {self.passes} passes"
