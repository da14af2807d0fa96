"""The array conventions that every part of the core shares.

The last axis is the variant. A plain float stands for a value that all variants share.
"""

from __future__ import annotations

import dataclasses
from typing import Any, TypeAlias, TypeVar

import numpy as np
import numpy.typing as npt

Array: TypeAlias = npt.NDArray[np.float64]
Values: TypeAlias = float | Array

T = TypeVar("T")


def variant_count(*values: object) -> int:
    """Number of variants described by nested components [-].

    Parameters
    ----------
    values : dataclasses, tuples, mappings, floats or arrays of shape (n,)

    Returns
    -------
    n, or 1 when every value is shared.

    Raises
    ------
    ValueError
        When two arrays disagree about n.
    """
    sizes: set[int] = set()
    _collect_sizes(values, sizes)
    sizes.discard(1)
    if len(sizes) > 1:
        raise ValueError(f"variants disagree in number: {sorted(sizes)}")
    return sizes.pop() if sizes else 1


def _collect_sizes(value: Any, sizes: set[int]) -> None:
    if isinstance(value, np.ndarray):
        if value.ndim:
            sizes.add(value.shape[-1])
    elif isinstance(value, tuple):
        for item in value:
            _collect_sizes(item, sizes)
    elif isinstance(value, dict):
        for item in value.values():
            _collect_sizes(item, sizes)
    elif dataclasses.is_dataclass(value):
        for field in dataclasses.fields(value):
            _collect_sizes(getattr(value, field.name), sizes)


def take_variants(value: T, part: slice) -> T:
    """The same nested component with only the variants of `part`; shared values stay as they are."""
    return _take(value, part)  # type: ignore[no-any-return]


def _take(value: Any, part: slice) -> Any:
    if isinstance(value, np.ndarray):
        return value[..., part] if value.ndim and value.shape[-1] > 1 else value
    if isinstance(value, tuple):
        return tuple(_take(item, part) for item in value)
    if isinstance(value, dict):
        return {key: _take(item, part) for key, item in value.items()}
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        changed = {f.name: _take(getattr(value, f.name), part) for f in dataclasses.fields(value)}
        return dataclasses.replace(value, **changed)
    return value


def join_variants(parts: list[T]) -> T:
    """Put batches of one dataclass type side by side along the variant axis.

    Every array field is joined; fields of other kinds must be equal in all parts and are taken from the first.
    """
    first: Any = parts[0]
    if len(parts) == 1:
        return parts[0]
    joined: dict[str, Any] = {}
    for field in dataclasses.fields(first):
        values = [getattr(part, field.name) for part in parts]
        if isinstance(values[0], np.ndarray):
            joined[field.name] = np.concatenate(values, axis=-1)
        elif dataclasses.is_dataclass(values[0]):
            joined[field.name] = join_variants(values)
        elif isinstance(values[0], tuple) and values[0] and dataclasses.is_dataclass(values[0][0]):
            joined[field.name] = tuple(join_variants(list(items)) for items in zip(*values, strict=True))
        else:
            joined[field.name] = values[0]
    result: T = dataclasses.replace(first, **joined)
    return result
