"""The array conventions that every part of the core shares.

The last axis is the variant. A plain float stands for a value that all variants share.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from functools import cache
from typing import Any, Generic, TypeAlias, TypeVar

import numpy as np
import numpy.typing as npt

Array: TypeAlias = npt.NDArray[np.float64]
Values: TypeAlias = float | Array

T = TypeVar("T")


@dataclasses.dataclass(frozen=True)
class Batch(Generic[T]):
    """Some of a sequence of single components, as one with many variants."""

    places: tuple[int, ...]  #: in the sequence, in the order of the variants [-]
    together: T


def one_value(values: Values) -> float:
    """The value of a single variant.

    Parameters
    ----------
    values : a float, or an array of any shape [any unit]

    Raises
    ------
    ValueError
        When it holds values that differ: then it is a batch, and no one of them is “the value”.
    """
    if isinstance(values, float):
        return values
    flat = np.asarray(values, dtype=float).reshape(-1)
    if flat.size > 1 and np.any(flat != flat[0]):
        raise ValueError("a batch has no single value")
    return float(flat[0])


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


_PLAIN = frozenset({float, int, str, bool, type(None)})  #: told at a glance; most of a component is of these


def _collect_sizes(value: Any, sizes: set[int]) -> None:
    if isinstance(value, np.ndarray):
        if value.ndim:
            sizes.add(value.shape[-1])
        return
    inner: Any = ()
    if isinstance(value, tuple):
        inner = value
    elif isinstance(value, dict):
        inner = value.values()
    elif dataclasses.is_dataclass(value) and not isinstance(value, type):
        inner = [getattr(value, name) for name in _names(value)]
    for item in inner:
        if type(item) not in _PLAIN:
            _collect_sizes(item, sizes)


@cache
def _names_in(kind: Any) -> tuple[str, ...]:
    return tuple(field.name for field in dataclasses.fields(kind))


def _names(value: Any) -> tuple[str, ...]:
    """The fields of a component; asked for as often as one is looked through."""
    kind: Any = type(value)
    return _names_in(kind)


def take_variants(value: T, part: slice | npt.NDArray[np.intp]) -> T:
    """The same nested component with only the variants of `part`; shared values stay as they are.

    Parameters
    ----------
    part : which of them; places, too, which may come more than once [-]
    """
    return _take(value, part)  # type: ignore[no-any-return]


def _take(value: Any, part: slice | npt.NDArray[np.intp]) -> Any:
    if isinstance(value, np.ndarray):
        return value[..., part] if value.ndim and value.shape[-1] > 1 else value
    if isinstance(value, tuple):
        return tuple(_take(item, part) for item in value)
    if isinstance(value, dict):
        return {key: _take(item, part) for key, item in value.items()}
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        changed = {name: _take(getattr(value, name), part) for name in _names(value)}
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


def batches(parts: Sequence[T]) -> list[Batch[T]]:
    """Single components that may differ in anything; those alike but for numbers share a batch.

    Numbers that differ become arrays of shape (len(places),); a list of numbers has no variant axis, nor has an array
    over sizes, so that such components are apart where it differs.

    Parameters
    ----------
    parts : as many as one likes, each a single variant
    """
    groups: dict[object, list[int]] = {}
    for i, part in enumerate(parts):
        groups.setdefault(variant_form(part), []).append(i)
    return [Batch(tuple(places), _stack([parts[i] for i in places])) for places in groups.values()]


def variant_form(value: Any) -> object:
    """What two components must have in common to be variants of one another, as something that can be compared."""
    if isinstance(value, bool | str) or value is None:
        return value
    if isinstance(value, np.ndarray) and value.size > 1:
        return value.shape, value.tobytes()
    if isinstance(value, int | float | np.ndarray | np.generic):
        return "number"
    if isinstance(value, tuple):
        if value and all(isinstance(item, int | float) for item in value):
            return value
        return tuple(variant_form(item) for item in value)
    if isinstance(value, dict):
        return tuple((key, variant_form(item)) for key, item in value.items())
    return (type(value).__name__, *(variant_form(getattr(value, name)) for name in _names(value)))


def _stack(values: list[Any]) -> Any:
    first = values[0]
    if isinstance(first, bool | str) or first is None or (isinstance(first, np.ndarray) and first.size > 1):
        return first
    if isinstance(first, int | float | np.ndarray | np.generic):
        column = np.array([float(np.asarray(value).reshape(-1)[0]) for value in values])
        return float(column[0]) if np.all(column == column[0]) else column
    if isinstance(first, tuple):
        if first and all(isinstance(item, int | float) for item in first):
            return first
        return tuple(_stack(list(items)) for items in zip(*values, strict=True))
    if isinstance(first, dict):
        return {key: _stack([value[key] for value in values]) for key in first}
    names = _names(first)
    return dataclasses.replace(first, **{name: _stack([getattr(value, name) for value in values]) for name in names})
