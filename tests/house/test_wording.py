"""Sentences have one signature: what is told about first, whose words last; and a name means one thing."""

import importlib
import inspect
import pkgutil
from collections import defaultdict
from collections.abc import Callable
from typing import Any

import pytest

import fenwick.wording


def every_function() -> list[tuple[str, Callable[..., Any]]]:
    """(module, function) of all that is public."""
    found = []
    for module in pkgutil.walk_packages(fenwick.wording.__path__, "fenwick.wording."):
        loaded = importlib.import_module(module.name)
        for name, made in vars(loaded).items():
            if inspect.isfunction(made) and made.__module__ == module.name and not name.startswith("_"):
                found.append((module.name, made))
    return found


FUNCTIONS = every_function()


@pytest.mark.parametrize(("module", "sentence"), FUNCTIONS, ids=[f"{m}.{f.__name__}" for m, f in FUNCTIONS])
def test_whose_words_it_is_comes_last_of_what_must_be_given(module: str, sentence: Callable[..., Any]) -> None:
    given = [
        one.name
        for one in inspect.signature(sentence).parameters.values()
        if one.default is inspect.Parameter.empty and one.kind is not inspect.Parameter.KEYWORD_ONLY
    ]
    assert "voice" not in given[:-1]


def test_no_two_of_them_have_one_name() -> None:
    homes = defaultdict(list)
    for module, made in FUNCTIONS:
        homes[made.__name__].append(module)
    assert {name: modules for name, modules in homes.items() if len(modules) > 1} == {}
