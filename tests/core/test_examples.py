"""The examples in the docstrings of the core run and give what they say."""

import doctest
import importlib
import pkgutil

import knollstack.core


def test_every_example_in_a_docstring_runs():
    tried = 0
    for found in pkgutil.walk_packages(knollstack.core.__path__, "knollstack.core."):
        result = doctest.testmod(importlib.import_module(found.name))
        assert result.failed == 0, found.name
        tried += result.attempted
    assert tried >= 10
